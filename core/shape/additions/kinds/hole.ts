import { HEXAGON_NUTS } from '../../../shelf/fasteners';
import { given } from '../../../shelf/table';
import { finding } from '../../findings/finding';
import type { Body, PartKernel } from '../../kernels/kernel';
import { Path, polygon } from '../../outline';
import { choice, flag, length, Refusals } from '../../recipes/fields';
import { lengthOf, type Parameters, textOf } from '../../recipes/parameters';
import { threadBody } from '../../thread';
import type { Frame, Point3 } from '../../vector';
import { cross, point3, scaled } from '../../vector';
import { type AdditionFinding, AdditionGone, type AdditionKind } from '../addition';
import { copies, FROM_MIDDLE, place, position, turning } from '../fields';
import {
  clearanceFor,
  countersunkFor,
  headFor,
  insertFor,
  nominal,
  pilotFor,
  SCREWS,
  threadFor,
} from '../screws';
import { ABOVE, cutFrom, framesOf, seatAt, surfaceOf, throughAll } from '../tools';

const forScrew = (p: Parameters) => p.use !== 'plain';
const headed = (p: Parameters) => p.use === 'clearance';
const aimed = (p: Parameters) => p.by === 'aim';
/** Clearance around a counterbored head or a nut, across. Common practice, no source. */
const HEAD_ROOM = 0.6;
const NUT_ROOM = 0.35;

/** A round hole for a screw, an insert, a pin or a hose. */
export const hole: AdditionKind = {
  kind: 'hole',
  title: 'Hole',
  purpose: 'For a screw that passes, bites or turns in a thread, for a brass insert, a pin, a wire.',
  short: 'hole',
  parameters: [
    choice('use', 'For', {
      clearance: 'a screw to pass',
      pilot: 'a screw that cuts its own thread',
      insert: 'a brass insert, melted in',
      threaded: 'a printed thread',
      plain: 'a diameter of your own',
    }),
    place('top', 'Enters at'),
    choice('screw', 'Screw', Object.fromEntries(SCREWS.map(s => [s, s])), { shown: forScrew }),
    length('diameter', 'Diameter', [0.3, 200], '5', { shown: p => p.use === 'plain' }),
    choice(
      'head',
      'Its head',
      {
        none: 'on the face',
        countersunk: 'countersunk, 90°',
        counterbored: 'sunk, cylinder head',
        nut: 'a nut let in',
      },
      { shown: headed },
    ),
    length('sunk', 'Head let in by', [0.2, 60], '4', {
      shown: p => headed(p) && (p.head === 'counterbored' || p.head === 'nut'),
    }),
    choice('by', 'Runs', { entry: 'straight in', aim: 'towards a point' }),
    length('aimX', 'Point, to the right', [-400, 400], '0', { shown: aimed }),
    length('aimY', 'Point, to the back', [-400, 400], '0', { shown: aimed }),
    length('aimZ', 'Point, above the bed', [-400, 400], '0', { shown: aimed }),
    choice('ends', 'Ends', { through: 'right through', deep: 'at a depth', point: 'at the point' }),
    length('deep', 'Deep', [0.2, 400], '8', { shown: p => p.ends === 'deep' }),
    ...position(),
    length('extra', 'Larger for printing, across', [0, 2], '0.2', { group: 'more', shown: forScrew }),
    flag('teardrop', 'Pointed at the top, to print lying', false, { group: 'more' }),
    turning(),
    ...copies(),
  ],
  fresh: FROM_MIDDLE,
  fit: { parameter: p => (p.use === 'plain' ? 'diameter' : null), side: () => 'inside', form: () => 'round' },
  refuse(p) {
    const screw = textOf(p, 'screw');
    const r = new Refusals();
    r.when(
      p.ends === 'point' && !aimed(p),
      'ends',
      'There is no point to end at: let it run towards a point, or give its depth.',
    );
    r.when(
      p.use === 'insert' && !insertFor(screw),
      'screw',
      `The shelf has no insert for ${screw}: take another screw.`,
    );
    if (headed(p)) {
      r.when(
        p.head === 'countersunk' && !countersunkFor(screw),
        'screw',
        `There is no countersunk ${screw} on the shelf: take another screw, or another head.`,
      );
      r.when(
        p.head === 'counterbored' && !headFor(screw),
        'screw',
        `There is no cylinder head ${screw} on the shelf: take another screw, or another head.`,
      );
    }
    r.when(
      p.use === 'threaded' && p.teardrop === true,
      'teardrop',
      'A thread is round: print it upright, or take a pilot hole.',
    );
    r.when(
      p.use === 'threaded' && nominal(screw) < 5,
      'screw',
      'A printed thread below M5 strips: take a brass insert, or a screw that cuts its own thread.',
    );
    return r.list;
  },
  apply(site, p) {
    const kernel = site.kernels.part;
    const seat = seatAt(site, p);
    const findings: AdditionFinding[] = [];
    if (p.teardrop === true && Math.abs(seat.frame.up[2]) > 0.7)
      findings.push(finding('addition-teardrop', 'note', {}, { parameter: 'teardrop' }));
    const all = throughAll(site);
    const holes = framesOf(seat, p).map(face => {
      const { frame, far } = directed(face, p);
      const deep = p.ends === 'through' ? all : p.ends === 'point' ? far : lengthOf(p, 'deep');
      return { frame, deep, slant: slantOf(face, frame, p) };
    });
    const body = cutFrom(
      kernel,
      site.body,
      holes.flatMap(({ frame, deep, slant }) => bored(kernel, frame, deep, slant, p)),
    );
    const [first] = holes;
    const d = diameterOf(p);
    return {
      body,
      surface: surfaceOf(first!.frame, 'inside', { kind: 'round', size: d }, [
        -Math.min(first!.deep, headDepth(p) + 2),
        -headDepth(p) - first!.slant,
      ]),
      findings,
    };
  },
};

/** As drawn. */
export function diameterOf(p: Parameters): number {
  const screw = textOf(p, 'screw');
  if (p.use === 'plain') return lengthOf(p, 'diameter');
  const extra = lengthOf(p, 'extra');
  if (p.use === 'pilot') return pilotFor(screw).diameter + extra;
  if (p.use === 'insert') return insertFor(screw)!.diameter + extra;
  if (p.use === 'threaded') return threadFor(screw)!.minor + extra;
  return clearanceFor(screw).diameter + extra;
}

const headDepth = (p: Parameters): number => {
  if (!headed(p)) return 0;
  if (p.head === 'countersunk')
    return (countersunkFor(textOf(p, 'screw'))!.diameter - clearanceFor(textOf(p, 'screw')).diameter) / 2;
  return p.head === 'counterbored' || p.head === 'nut' ? lengthOf(p, 'sunk') : 0;
};

/** The hole's own frame at its entry; its z points out of the part. `far` is the depth of the point. */
function directed(face: Frame, p: Parameters): { frame: Frame; far: number } {
  if (!aimed(p)) return { frame: face, far: 0 };
  const point: Point3 = [lengthOf(p, 'aimX'), lengthOf(p, 'aimY'), lengthOf(p, 'aimZ')];
  const out = point3(i => face.at[i] - point[i]);
  const far = Math.hypot(...out);
  const up: Point3 = [out[0] / far, out[1] / far, out[2] / far];
  const square = up[0] * face.up[0] + up[1] * face.up[1] + up[2] * face.up[2];
  if (!(far > 0.1) || square < 0.26)
    throw new AdditionGone(
      far > 0.1
        ? 'The point lies almost along the face, or outside of it: the hole would only scratch it. Choose a point deeper in the part, or another face.'
        : 'The point lies on the face itself: choose one inside the part.',
      'aimX',
    );
  const across = cross(face.up, up);
  const long = Math.hypot(...across);
  const x: Point3 = long < 1e-9 ? face.x : scaled(across, 1 / long);
  return { frame: { at: face.at, x, up }, far };
}

/** A slanting tool begins farther out, so that it removes the whole mouth. */
function slantOf(face: Frame, { up }: Frame, p: Parameters): number {
  const cos = up[0] * face.up[0] + up[1] * face.up[1] + up[2] * face.up[2];
  const tan = Math.sqrt(Math.max(0, 1 - cos * cos)) / cos;
  return (tan * diameterOf(p)) / 2;
}

function bored(kernel: PartKernel, frame: Frame, deep: number, slant: number, p: Parameters): Body[] {
  const screw = textOf(p, 'screw');
  const d = diameterOf(p);
  const high = ABOVE + slant;
  const extra = forScrew(p) ? lengthOf(p, 'extra') : 0;
  const head = headed(p) ? textOf(p, 'head') : 'none';
  const tools: Body[] = [];
  if (p.teardrop === true) tools.push(kernel.extrude(teardrop(d / 2), -deep, deep + high, upright(frame)));
  else tools.push(turned(kernel, frame, d / 2, -deep, high));
  if (head === 'countersunk') {
    const r = (countersunkFor(screw)!.diameter + extra) / 2;
    const cone = new Path([0, -r])
      .to([r, 0])
      .to([r + high, high])
      .to([0, high])
      .close();
    tools.push(kernel.revolve(cone, frame));
  } else if (head === 'counterbored')
    tools.push(turned(kernel, frame, (headFor(screw)!.diameter + HEAD_ROOM) / 2, -lengthOf(p, 'sunk'), high));
  else if (head === 'nut') {
    const flats = given(HEXAGON_NUTS.find(n => n.key === screw)!, 'acrossFlats') + NUT_ROOM;
    tools.push(kernel.extrude(polygon(6, flats), -lengthOf(p, 'sunk'), lengthOf(p, 'sunk') + high, frame));
  }
  if (p.use === 'threaded') {
    const { major, minor, pitch } = threadFor(screw)!;
    const form = {
      major: major + extra,
      minor: minor + extra,
      pitch,
      starts: 1,
      hand: 'right' as const,
      // ISO 68-1: the groove of a nut is three quarters of the pitch wide at its mouth, an eighth at its bottom.
      foot: 0.75 * pitch,
      flankAngle: 60,
      from: -deep,
      to: high,
    };
    tools.push(threadBody(form, kernel, frame));
  }
  return tools;
}

const turned = (kernel: PartKernel, frame: Frame, radius: number, low: number, high: number): Body =>
  kernel.revolve(new Path([0, low]).to([radius, low]).to([radius, high]).to([0, high]).close(), frame);

/** Its second direction points up from the bed as far as its axis allows. */
function upright({ at, x, up }: Frame): Frame {
  const flat = Math.hypot(up[0], up[1]);
  return flat < 1e-6 ? { at, x, up } : { at, x: [-up[1] / flat, up[0] / flat, 0], up };
}

/** A circle with a roof at 45°, which prints without support. */
function teardrop(r: number) {
  const k = r * Math.SQRT1_2;
  return new Path([-k, k])
    .arc([k, k], [0, -r])
    .to([0, 2 * k])
    .to([-k, k])
    .close();
}
