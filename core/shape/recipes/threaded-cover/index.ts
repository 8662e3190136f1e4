import { box, Draft } from '../../drawing/draft';
import type { DrawPoint } from '../../drawing/drawing';
import type { Body, PartKernel, Point2 } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import { crestOf, type ThreadForm, threadBody } from '../../thread';
import { PLATE, WALL } from '../advice';
import { choice, length, Refusals, step } from '../fields';
import { type Finding, lengthOf, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * A cover or ring on a threaded neck, or a plug into one; any pitch, hand and number of starts. The end lies
 * on the bed, the thread opens upwards; the axis is z.
 */
const isPlug = (p: Parameters) => p.style === 'plug';

interface Sizes {
  thread: ThreadForm;
  outer: number;
  floor: number;
  top: number;
  seal: number;
  lobes: number;
}

function sizesOf(p: Parameters): Sizes {
  const major = lengthOf(p, isPlug(p) ? 'plugThread' : 'coverThread');
  const floor = p.style === 'ring' ? 0 : lengthOf(p, 'end');
  const long = lengthOf(p, 'length');
  const wall = lengthOf(p, 'wall');
  return {
    thread: {
      major,
      minor: major - 2 * lengthOf(p, 'ridge'),
      pitch: lengthOf(p, 'pitchLength'),
      starts: lengthOf(p, 'starts'),
      hand: p.hand as 'right' | 'left',
      foot: lengthOf(p, 'foot'),
      flankAngle: lengthOf(p, 'flanks'),
      from: floor,
      to: floor + long,
    },
    outer: major / 2 + wall,
    floor,
    top: floor + long,
    seal: p.style === 'cover' ? lengthOf(p, 'seal') : 0,
    lobes: lengthOf(p, 'flutes'),
  };
}

/** The outside from above: round, with flutes to grip by. */
function gripOf(s: Sizes): Point2[] {
  return Array.from({ length: s.lobes }, (_, i): Point2 => {
    const a = (2 * Math.PI * i) / s.lobes;
    return [(s.outer + 1.2) * Math.cos(a), (s.outer + 1.2) * Math.sin(a)];
  });
}

function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const { major, minor } = s.thread;
  const lead = (major - minor) / 2;
  let body: Body;
  if (isPlug(p)) {
    // A hollow core keeps the plug from warping; the head is as wide as a cover's.
    const head = kernel.extrude(circle([0, 0], s.outer), 0, s.floor);
    const core = kernel.extrude(circle([0, 0], minor / 2), s.floor - 0.5, s.top - s.floor + 0.5);
    body = fluted(kernel.fuse(head, core), s, s.floor, kernel);
    body = kernel.fuse(body, threadBody({ ...s.thread, from: s.floor - 0.4 }, kernel));
    // The first turn runs in along a cone.
    const ring = new Path([minor / 2, s.top + 1])
      .to([minor / 2, s.top])
      .to([minor / 2 + lead + 1, s.top - lead - 1])
      .to([minor / 2 + lead + 1, s.top + 1])
      .close();
    return kernel.cut(body, kernel.revolve(ring));
  }
  body = kernel.extrude(circle([0, 0], s.outer), 0, s.top);
  body = kernel.cut(body, kernel.extrude(circle([0, 0], minor / 2), s.floor === 0 ? -1 : s.floor, s.top + 2));
  body = fluted(body, s, s.top, kernel);
  if (s.seal > 0) {
    // A recess in the end for a flat ring, under the neck's rim.
    body = kernel.cut(body, kernel.extrude(circle([0, 0], minor / 2), s.floor - s.seal, s.seal + 0.5));
  }
  const mouth = new Path([minor / 2 - 0.5, s.top + 1])
    .to([minor / 2 - 0.5, s.top - lead - 0.5])
    .to([minor / 2, s.top - lead])
    .to([minor / 2 + lead, s.top])
    .to([minor / 2 + lead, s.top + 1])
    .close();
  body = kernel.cut(body, kernel.revolve(mouth));
  const from = s.floor === 0 ? -1 : s.floor;
  return kernel.cut(body, threadBody({ ...s.thread, from, to: s.top + 1 }, kernel));
}

function fluted(body: Body, s: Sizes, height: number, kernel: PartKernel): Body {
  return gripOf(s).reduce((b, at) => kernel.cut(b, kernel.extrude(circle(at, 2), -1, height + 2)), body);
}

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const { major, minor } = s.thread;
  const to = s.top - (major - minor) / 2;
  return [
    {
      mate: isPlug(p) ? 'plug' : 'cover',
      side: isPlug(p) ? 'outside' : 'inside',
      kind: 'thread',
      size: major,
      core: minor,
      hand: s.thread.hand,
      at: [0, 0, (s.floor + to) / 2],
      axis: [0, 0, 1],
      from: s.floor,
      to,
    },
  ];
}

function refuse(p: Parameters) {
  const s = sizesOf(p);
  const { thread } = s;
  const depth = (thread.major - thread.minor) / 2;
  return new Refusals()
    .when(
      thread.minor < 2,
      'ridge',
      'The ridge is higher than the neck is wide: was a diameter typed for its height?',
      thread.major / 10,
    )
    .when(
      thread.foot > 0.9 * thread.pitch,
      'foot',
      'The ridge fills the whole pitch: nothing is left between its turns.',
      0.55 * thread.pitch,
    )
    .when(
      crestOf(thread) < 0.2,
      'foot',
      'The flanks meet below the crest: a wider foot, a lower ridge, or steeper flanks.',
      2 * depth * Math.tan(((thread.flankAngle / 2) * Math.PI) / 180) + 0.6,
    )
    .when(
      s.top - s.floor < depth + thread.pitch * 0.5 + 0.5,
      'length',
      'The thread is too short to hold: at least half a turn and its lead-in.',
      depth + thread.pitch + 1,
    )
    .when(
      s.seal > 0 && s.seal > s.floor - 0.8,
      'seal',
      'The recess for the seal cuts through the end.',
      Math.max(0, s.floor - 1.2),
    )
    .when(
      lengthOf(p, 'wall') < (s.lobes > 0 ? 1.8 : 0.8),
      'wall',
      'The flutes cut through the wall: make it thicker, or leave them out.',
      2.4,
    )
    .when(
      s.lobes > 0 && (2 * Math.PI * s.outer) / s.lobes < 5,
      'flutes',
      'So many flutes run into each other.',
      Math.floor((2 * Math.PI * s.outer) / 6),
    ).list;
}

/** One side of a cut: the thread's teeth in (radius, height), starting at the seam. */
function teeth({ major, minor, pitch, foot, from, to }: ThreadForm, crest: number): DrawPoint[] {
  const points: DrawPoint[] = [[minor / 2, from]];
  const flank = (foot - crest) / 2;
  for (let z = from + pitch * 0.2; z + foot < to; z += pitch)
    points.push(
      [minor / 2, z],
      [major / 2, z + flank],
      [major / 2, z + flank + crest],
      [minor / 2, z + foot],
    );
  points.push([minor / 2, to]);
  return points;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const line = teeth(s.thread, Math.max(0.1, crestOf(s.thread)));
  const draft = new Draft();
  const flip = (points: readonly DrawPoint[], sign: number): DrawPoint[] =>
    points.map(([x, y]) => [sign * x, y]);
  for (const sign of [-1, 1]) {
    const wall: DrawPoint[] = isPlug(p)
      ? [...line, [0, s.top], [0, 0], [s.outer, 0], [s.outer, s.floor]]
      : [
          ...line,
          [s.outer, s.top],
          [s.outer, 0],
          ...((s.floor > 0
            ? [
                [0, 0],
                [0, s.floor],
              ]
            : [[s.thread.minor / 2, 0]]) as DrawPoint[]),
        ];
    draft.cut(flip(wall, sign));
    draft.mate(isPlug(p) ? 'plug' : 'cover', flip(line, sign));
  }
  draft.centre([0, -3], [0, s.top + 3]);
  const gap = Math.max(5, s.outer / 4);
  const r = s.thread.major / 2;
  draft.across(
    isPlug(p) ? 'plug' : 'cover',
    isPlug(p) ? 'over ridges' : 'over grooves',
    [-r, r],
    s.top,
    s.top + gap,
    true,
  );
  draft.up('length', 'thread', s.outer, [s.floor, s.top], s.outer + gap);
  return draft.done('Cut through the thread, its end on the bed');
}

function objectDrawing(measured: Readonly<Record<string, number>>, p: Parameters) {
  const inside = isPlug(p);
  const major = measured[inside ? 'socket' : 'neck'] ?? (inside ? 100 : 108);
  const pitch = measured.pitch ?? 13;
  const ridge = measured.ridge_height ?? 3.5;
  const high = measured.neck_height ?? 2.4 * pitch;
  const form: ThreadForm = {
    major,
    minor: Math.max(1, major - 2 * ridge),
    pitch,
    starts: 1,
    hand: 'right',
    foot: pitch * 0.5,
    flankAngle: 40,
    from: 0,
    to: high,
  };
  const line = teeth(form, pitch * 0.25);
  const back = inside ? major / 2 + 6 : form.minor / 2 - 4;
  const draft = new Draft();
  const key = inside ? 'socket' : 'neck';
  for (const sign of [-1, 1]) {
    const points: DrawPoint[] = [...line, [back, high], [back, 0]];
    draft.cut(points.map(([x, y]): DrawPoint => [sign * x, y]));
    draft.mate(
      key,
      line.map(([x, y]): DrawPoint => [sign * x, y]),
    );
  }
  draft.cut(box(-major * 0.62, -8, major * 0.62, 0));
  draft.centre([0, -12], [0, high + 8]);
  draft.across(key, inside ? 'over grooves' : 'over ridges', [-major / 2, major / 2], high, high + 8, true);
  draft.up('neck_height', 'height', -major / 2, [0, high], -major / 2 - 10);
  draft.up('pitch', 'pitch', major / 2, [pitch * 0.2, pitch * 1.2], major / 2 + 8);
  draft.across('ridge_height', 'ridge', [form.minor / 2, major / 2], 0, -16);
  return draft.done('Cut through the neck');
}

const inTurns = (p: Parameters) => !isPlug(p);

export const threadedCover: Recipe = {
  id: 'threaded-cover',
  version: 1,
  family: 'adapter',
  title: 'Threaded cover, ring or plug',
  purpose: 'Screws on a neck or into one, standard thread or odd: any pitch, hand and number of starts.',
  guide: [
    step(
      'neck',
      'Neck, over its ridges',
      'outside-jaws',
      'Across opposite ridges; turn it and keep the largest.',
      { critical: true, needed: inTurns },
    ),
    step(
      'socket',
      'Neck, over its grooves inside',
      'inside-jaws',
      'The tips of the inside jaws in opposite grooves; rock them and keep the largest.',
      { critical: true, needed: isPlug },
    ),
    step(
      'pitch',
      'From one turn to the next',
      'span',
      'Over several turns, divided by their number: a single turn is read badly.',
    ),
    step('ridge_height', 'Ridge, height', 'depth-rod', 'From the crest down to the neck between two turns.'),
    step('neck_height', 'Neck, height', 'step', 'From its rim to what the cover must not touch.'),
  ],
  mates: [
    {
      id: 'cover',
      name: 'Cover on its neck',
      dimension: 'neck',
      parameter: 'coverThread',
      side: 'inside',
      want: 'screw',
      flexibleWant: 'screw',
      active: inTurns,
    },
    {
      id: 'plug',
      name: 'Plug in its neck',
      dimension: 'socket',
      parameter: 'plugThread',
      side: 'outside',
      want: 'screw',
      flexibleWant: 'screw',
      active: isPlug,
    },
  ],
  parameters: [
    choice('style', 'It is', { cover: 'a cover, closed', ring: 'a ring, open', plug: 'a plug' }),
    length('coverThread', 'Thread, over its grooves', [6, 300], 'neck.model', { shown: inTurns }),
    length('plugThread', 'Thread, over its ridges', [6, 300], 'socket.model', { shown: isPlug }),
    length('pitchLength', 'Pitch', [0.8, 40], 'pitch'),
    choice('hand', 'Hand', { right: 'right: clockwise goes on', left: 'left: anticlockwise goes on' }),
    length('starts', 'Starts', [1, 6], '1', { measure: 'count' }),
    length('length', 'Thread, length', [3, 150], 'neck_height - 1'),
    length('ridge', 'Ridge, height', [0.4, 20], 'ridge_height'),
    length('foot', 'Ridge or groove, width at its foot', [0.5, 36], 'pitchLength * 0.6'),
    length('flanks', 'Angle between its flanks', [4, 90], '40', { measure: 'angle' }),
    length('end', 'End, thickness', [1.2, 60], '3', { shown: p => p.style !== 'ring', sensible: PLATE }),
    length('wall', 'Wall outside the thread', [0.8, 40], '3', { sensible: WALL }),
    length('flutes', 'Flutes to grip by', [0, 40], '12', { measure: 'count', group: 'more' }),
    length('seal', 'Recess for a seal, deep', [0, 20], '0', {
      group: 'more',
      shown: p => p.style === 'cover',
    }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: (): Finding[] => [
    {
      code: 'step-without-thread',
      level: 'note',
      message:
        'Its STEP file has the part without the thread, which is made of triangles: print from 3MF or STL.',
    },
  ],
  demo: {
    name: 'a stowage hatch with a coarse, odd thread',
    sizes: { neck: 108, socket: 100, pitch: 13, ridge_height: 3.5, neck_height: 32 },
    parameters: {
      style: 'cover',
      coverThread: 110,
      plugThread: 98,
      pitchLength: 13,
      hand: 'right',
      starts: 1,
      length: 31,
      ridge: 3.5,
      foot: 7.8,
      flanks: 40,
      end: 3,
      wall: 3,
      flutes: 12,
      seal: 0,
    },
  },
};
