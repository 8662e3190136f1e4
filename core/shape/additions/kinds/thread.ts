import { threadNamed } from '../../../shelf/threads';
import type { PartKernel } from '../../kernels/kernel';
import { Path } from '../../outline';
import { choice, hand, length, Refusals, words } from '../../recipes/fields';
import { lengthOf, type Parameters, textOf } from '../../recipes/parameters';
import { basicForm, crestOf, OFF_STANDARD, type ThreadForm, threadBody } from '../../thread';
import type { Frame } from '../../vector';
import { AdditionGone, type AdditionKind, type Site } from '../addition';
import { axisFields, axisOf, radiusAt } from '../axis';
import { surfaceOf } from '../tools';

const named = (p: Parameters) => textOf(p, 'standard').trim() !== '';
const odd = (p: Parameters) => !named(p);
const outside = (p: Parameters) => p.wall === 'outside';
/** A joined body reaches this far into the other one, mm. */
const INTO = 0.3;

/** Clearance across the diameter for a printed thread, mm: the middle of that want. Common practice, no source. */
const RUNS_BY = 0.4;

/** A printed thread on a round outside or in a bore; triangles only. */
export const thread: AdditionKind = {
  kind: 'thread',
  title: 'Thread',
  purpose: 'A printed thread around a round end or in a bore: a standard one by its name, or an odd one.',
  short: 'thread',
  parameters: [
    choice('wall', 'It is', { outside: 'on the outside', inside: 'in the bore' }),
    words('standard', 'Standard thread (empty: as measured)', '', 40),
    length('major', 'Diameter, over ridges or grooves', [4, 300], '20'),
    length('pitch', 'Pitch', [0.8, 40], '2.5', { shown: odd }),
    length('ridge', 'Ridge, height', [0.3, 20], '1.25', { shown: odd }),
    length('flanks', 'Angle between its flanks', [4, 90], '60', {
      measure: 'angle',
      group: 'more',
      shown: odd,
    }),
    length('starts', 'Starts', [1, 6], '1', { measure: 'count', group: 'more', shown: odd }),
    hand('hand', 'Hand'),
    length('low', 'From, along the axis', [-400, 400], '0'),
    length('high', 'To, along the axis', [-400, 400], '12'),
    choice('lead', 'Runs in from', { high: 'its upper end', low: 'its lower end', both: 'both ends' }),
    ...axisFields,
  ],
  fit: {
    parameter: () => 'major',
    side: p => (outside(p) ? 'outside' : 'inside'),
    form: () => 'round',
    want: 'screw',
  },
  refuse(p) {
    const r = new Refusals();
    const standard = named(p) ? threadNamed(textOf(p, 'standard').trim()) : undefined;
    if (named(p) && !standard)
      return r.when(
        true,
        'standard',
        `The shelf knows no thread “${textOf(p, 'standard').trim()}”. Write it like M20, M20x1.5, G 3/4 or 1/2-13 UNC, or leave it empty.`,
      ).list;
    r.when(
      standard?.taper === true,
      'standard',
      'A taper thread wedges a printed part apart: take a parallel one with a seal.',
    ).when(
      standard !== undefined && standard.pitch < 0.8,
      'standard',
      'Its pitch is fewer than four layers: take an insert or a tap instead.',
    );
    if (standard) {
      const { designation, major } = standard;
      const drawn = lengthOf(p, 'major');
      r.when(
        Math.abs(drawn - major) > OFF_STANDARD,
        'major',
        `${designation} is ${Number(major.toFixed(2))} mm over its ridges, and ${drawn} mm is drawn: one of the two is wrong.`,
        major + (outside(p) ? -RUNS_BY : RUNS_BY),
      );
    }
    // Where it is another thread altogether, nothing is said about its ridge.
    if (r.list.length > 0) return r.list;
    const [low, high] = [lengthOf(p, 'low'), lengthOf(p, 'high')];
    const form = formOf(p);
    const depth = (form.major - form.minor) / 2;
    r.when(
      high - low < depth * (p.lead === 'both' ? 2 : 1) + form.pitch * 0.6,
      'high',
      'The thread is too short to hold: at least half a turn and its lead-in.',
      low + 2 * depth + form.pitch,
    )
      .when(form.minor < 2, 'major', 'The thread is deeper than it is wide: was a radius typed?')
      .when(
        !(form.foot < 0.92 * form.pitch && crestOf(form) > 0.05),
        'ridge',
        'The ridge does not fit in its pitch: a lower ridge, a longer pitch, or steeper flanks.',
        0.4 * form.pitch,
      );
    return r.list;
  },
  apply(site, p) {
    const kernel = site.kernels.part;
    const axis = axisOf(p);
    const [low, high] = [lengthOf(p, 'low'), lengthOf(p, 'high')];
    const form = formOf(p);
    const [major, minor] = [form.major / 2, form.minor / 2];
    const depth = major - minor;
    const wall = radiusAt(site, axis, (low + high) / 2, !outside(p), 'low');
    const ring = (from: number, to: number, below = 0, above = 0) =>
      kernel.revolve(
        new Path([from, low - below])
          .to([to, low - below])
          .to([to, high + above])
          .to([from, high + above])
          .close(),
        axis,
      );
    // Slightly longer than asked, so that no two faces are coplanar.
    const rod = (hair: number) => threadBody({ ...form, from: low - hair, to: high + hair }, kernel, axis);
    let body = site.body;
    if (outside(p)) {
      const bore = boreAt(site, axis, (low + high) / 2);
      if (minor - bore < 0.8)
        throw new AdditionGone(
          `The bore, ${Number((2 * bore).toFixed(1))} mm, leaves no wall under this thread: a larger thread, or a smaller bore.`,
          'major',
        );
      // The wall is cut to the thread's core, then the ridge is added around it.
      if (wall > minor) body = kernel.cut(body, ring(minor, wall + 1));
      else body = kernel.fuse(body, ring(Math.max(bore + 0.2, wall - INTO), minor));
      const ridge = kernel.cut(rod(INTO / 3), ring(0, minor - INTO, 1, 1));
      body = kernel.fuse(body, ridge);
    } else {
      if (wall < minor) body = kernel.cut(body, ring(0, minor));
      else if (wall > minor + 0.01) body = kernel.fuse(body, ring(minor, wall + INTO));
      // It runs out into the air through an open end.
      body = kernel.cut(body, rod(0.01));
    }
    for (const end of ['low', 'high'] as const)
      if (p.lead === end || p.lead === 'both')
        body = kernel.cut(
          body,
          leadIn(kernel, axis, end === 'low' ? low : high, end, { major, minor, depth }, outside(p)),
        );
    return {
      body,
      surface: {
        ...surfaceOf(axis, outside(p) ? 'outside' : 'inside', { kind: 'round', size: form.major }, [
          low + depth,
          high - depth,
        ]),
        kind: 'thread',
        core: form.minor,
        hand: form.hand,
      },
    };
  },
};

/** The thread about z, at the origin; its extent is set later. */
function formOf(p: Parameters): ThreadForm {
  const standard = named(p) ? threadNamed(textOf(p, 'standard').trim()) : undefined;
  const major = lengthOf(p, 'major');
  const hand = p.hand === 'left' ? ('left' as const) : ('right' as const);
  const extent = { from: 0, to: 1 };
  if (standard) return { ...extent, hand, ...basicForm(standard, major) };
  const [pitch, ridge, flankAngle] = [lengthOf(p, 'pitch'), lengthOf(p, 'ridge'), lengthOf(p, 'flanks')];
  return {
    ...extent,
    major,
    minor: major - 2 * ridge,
    pitch,
    starts: lengthOf(p, 'starts'),
    hand,
    foot: pitch / 2 + ridge * Math.tan(((flankAngle / 2) * Math.PI) / 180),
    flankAngle,
  };
}

function leadIn(
  kernel: PartKernel,
  axis: Frame,
  end: number,
  which: 'low' | 'high',
  { major, minor, depth }: { major: number; minor: number; depth: number },
  isOutside: boolean,
) {
  const way = which === 'high' ? 1 : -1;
  const out = new Path(isOutside ? [minor, end + way * 0.5] : [minor - 0.5, end + way * 0.5]);
  const cone = isOutside
    ? out
        .to([minor, end])
        .to([major + 0.5, end - way * (depth + 0.5)])
        .to([major + 0.5, end + way * 0.5])
        .close()
    : out
        .to([minor - 0.5, end - way * (depth + 0.5)])
        .to([major, end])
        .to([major, end + way * 0.5])
        .close();
  return kernel.revolve(cone, axis);
}

/** Radius of the bore inside a round wall; 0 where it is solid there. */
function boreAt(site: Site, axis: Frame, along: number): number {
  try {
    return radiusAt(site, axis, along, true, 'low');
  } catch (error) {
    if (error instanceof AdditionGone) return 0;
    throw error;
  }
}
