import type { Finding } from '../../findings/finding';
import type { Frame } from '../../vector';
import { Refusals } from '../fields';
import { ENDS, type P } from './parameters';
import {
  BARB_PITCH,
  type EndSizes,
  is,
  mouthFrame,
  type Profile,
  type Run,
  runOf,
  type Sizes,
  sizesOf,
  straightWall,
} from './sizes';

export function refuse(p: P): Finding[] {
  const s = sizesOf(p);
  const refusals = new Refusals<P>();
  for (const end of ENDS) refuseEnd(p, s, s[end], end, refusals);
  refusals
    .when(s.bore < 0.5, 'stop', 'The stop closes the way through: make it smaller.')
    .when(
      p.leastBore > 2 * s.bore + 1e-9,
      'leastBore',
      `The way through is ${(2 * s.bore).toFixed(1)} mm, narrower than asked: a thinner wall, a smaller stop, or other ends.`,
    );
  if (is.flange(p)) refuseFlange(p, s.A, refusals);
  if (refusals.list.length > 0) return refusals.list;
  if (is.bent(p)) refuseRun(p, s, runOf(p, s), refusals);
  else refuseMiddle(s, refusals);
  return refusals.list;
}

function refuseEnd(p: P, s: Sizes, e: EndSizes, end: 'A' | 'B', refusals: Refusals<P>): void {
  if (e.kind === 'flange') return;
  const name = `${e.kind}${end}` as const;
  const { ridge } = e;
  refusals
    .when(
      e.inner < 0.5,
      e.taper > 0 ? `taper${end}` : name,
      e.taper > 0
        ? `End ${end} tapers to nothing: a smaller angle, or a shorter end.`
        : `End ${end}: no way through is left inside its wall.`,
      e.taper > 0 ? undefined : 2 * p.wall + 4,
    )
    .when(
      e.length < s.chamfer * 2 + 1,
      `length${end}`,
      `End ${end} is too short to hold anything.`,
      s.chamfer * 2 + 4,
    )
    .when(
      e.kind === 'barb' && e.length < BARB_PITCH + 2,
      `length${end}`,
      `A barb needs ${BARB_PITCH + 2} mm of length.`,
      BARB_PITCH + 8,
    )
    .when(s.chamfer > p.wall - 0.3, 'leadIn', 'The lead-in takes the whole wall.', Math.max(0, p.wall - 0.5));
  if (!ridge) return;
  refusals
    .when(e.taper > 0, `taper${end}`, `End ${end} cannot taper and click: choose one.`)
    .when(
      e.mate - ridge.radius < 0.1,
      `ridge${end}`,
      'The ridge must be smaller than the tube it clicks on. Was a radius typed for a diameter?',
      2 * e.mate - 1,
    )
    .when(
      ridge.radius < 0.6 * e.mate,
      `ridge${end}`,
      'The ridge leaves no room for the tube: its groove is not so deep.',
      2 * e.mate - 1.5,
    )
    .when(
      ridge.from < s.chamfer + 0.5 || ridge.to > e.length - 0.2,
      `ridgeAt${end}`,
      'The ridge runs out of its end: nearer to the middle, or a longer end.',
      e.length / 2,
    );
}

function refuseFlange(p: P, e: EndSizes, refusals: Refusals<P>): void {
  const hole = p.boltHole / 2;
  const ring = p.boltCircle / 2;
  const apart = ring * Math.sin(Math.PI / p.bolts);
  refusals
    .when(e.inner < 0.5, 'flangeBore', 'The flange needs a way through.', 5)
    .when(
      ring - hole < e.root + 1,
      'boltCircle',
      'The screws’ holes cut into the tube: a larger circle.',
      2 * (e.root + hole + 2),
    )
    .when(
      ring + hole > e.outer - 1,
      'flangeDiameter',
      'The screws’ holes break through the flange’s rim: a larger flange.',
      2 * (ring + hole + 3),
    )
    .when(apart < hole + 0.5, 'bolts', 'The screws’ holes run into each other: fewer, or a larger circle.');
}

/** In line: the wall between the ends, outside of one against inside of the other, along 45°. */
function refuseMiddle(s: Sizes, refusals: Refusals<P>): void {
  const step = Math.abs(s.A.root - s.B.root);
  refusals.when(
    s.middle < step,
    'middle',
    'The part between the ends is too short: its slope would overhang.',
    step + 2,
  );
  if (refusals.list.length > 0) return;
  const least = straightWall(s);
  refusals.when(
    least < 0.4,
    'middle',
    'Between the ends the wall runs out: make that part longer or the wall thicker.',
    s.middle + 2 * (0.8 - least) + 1,
  );
}

function refuseRun(p: P, s: Sizes, run: Run, refusals: Refusals<P>): void {
  refusals.when(
    run.radius < run.tube + 0.5,
    'bendRadius',
    'The bend is tighter than the tube is wide: a larger radius.',
    1.5 * run.tube,
  );
  if (refusals.list.length > 0) return;
  const mouth = mouthFrame(s, run);
  const b = boxOfEnd(s.B, run.reach.B, mouth);
  refusals.when(
    Math.min(...b.map(q => q[1])) < 0.2,
    is.angle(p) ? 'bendAngle' : 'offset',
    'End B comes down below the bed: a smaller angle, a larger bend, or a longer end A.',
  );
  if (refusals.list.length > 0) return;
  const a = boxOfEnd(s.A, run.reach.A, { at: [0, 0, 0], x: [1, 0, 0], up: [0, 0, 1] });
  refusals.when(
    gapAlong(a, b) < 1,
    is.angle(p) ? 'bendRadius' : 'offset',
    'The ends run into each other: a larger bend, or a smaller angle.',
    is.angle(p) ? run.radius + Math.max(s.A.outer, s.B.outer) : undefined,
  );
}

/** An end in the plane of the bend, (x, z): its corners. It stops short of where the tube bends. */
function boxOfEnd(e: EndSizes, reach: number, { at, x, up }: Frame): Profile {
  const top = e.length + Math.max(0, reach - 1);
  return (
    [
      [-e.outer, 0],
      [e.outer, 0],
      [e.outer, top],
      [-e.outer, top],
    ] as Profile
  ).map(([r, z]) => [at[0] + r * x[0] + z * up[0], at[2] + r * x[2] + z * up[2]]);
}

/** Of two boxes: the widest gap along any of their sides, below 0 where they overlap. */
function gapAlong(a: Profile, b: Profile): number {
  let widest = -Infinity;
  for (const box of [a, b])
    for (const i of [0, 1]) {
      const [p, q] = [box[i]!, box[i + 1]!];
      const long = Math.hypot(q[0] - p[0], q[1] - p[1]);
      const way = [(q[0] - p[0]) / long, (q[1] - p[1]) / long] as const;
      const along = (box: Profile) => box.map(([x, z]) => x * way[0] + z * way[1]);
      const [u, v] = [along(a), along(b)];
      widest = Math.max(widest, Math.min(...v) - Math.max(...u), Math.min(...u) - Math.max(...v));
    }
  return widest;
}
