import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import type { MateSurface } from '../../mates';
import { circle, Path } from '../../outline';
import { BED, type Frame, type Point3 } from '../../vector';
import type { Parameters } from '../parameters';
import { lengthOf } from '../parameters';
import {
  BARB_PITCH,
  ENDS,
  type End,
  type EndSizes,
  endProfile,
  is,
  mateAt,
  mouthFrame,
  outsideOf,
  type Profile,
  runOf,
  type Sizes,
  sizesOf,
  wayThrough,
} from './sizes';

/** In line: the whole half section, counter-clockwise. */
export function straightOutline(s: Sizes): Outline {
  const total = s.A.length + s.middle + s.B.length;
  const flip = ([r, z]: [number, number]): [number, number] => [r, total - z];
  const outside = [...outsideOf(s.A, s.chamfer), ...outsideOf(s.B, s.chamfer).map(flip).reverse()];
  const inside = wayThrough(s).reverse();
  const path = new Path(outside[0]!);
  for (const point of [...outside.slice(1), ...inside]) path.to(point);
  return path.close();
}

export function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const body = is.bent(p) ? bent(p, s, kernel) : kernel.revolve(straightOutline(s));
  if (!is.flange(p)) return body;
  return kernel.cut(body, kernel.extrudeAll(boltHoles(p), -1, s.A.length + 2));
}

export function boltHoles(p: Parameters): Outline[] {
  const count = lengthOf(p, 'bolts');
  const r = lengthOf(p, 'boltCircle') / 2;
  return Array.from({ length: count }, (_, i) => {
    const a = (2 * Math.PI * i) / count;
    return circle([r * Math.cos(a), r * Math.sin(a)], lengthOf(p, 'boltHole') / 2);
  });
}

/** The outside all along, then the way through cut out of it: each of a turned end, bends, a turned end. */
function bent(p: Parameters, s: Sizes, kernel: PartKernel): Body {
  const run = runOf(p, s);
  const along = (radius: number, ends: (profile: Profile) => Outline, which: 'outside' | 'inside') => {
    const [a, b] = [endProfile(s.A, s, run, 'A'), endProfile(s.B, s, run, 'B')];
    let body = kernel.revolve(ends(a[which]));
    for (const piece of run.pieces) {
      const next =
        'turn' in piece
          ? kernel.bend(circle([0, 0], radius), run.radius, piece.turn, piece.frame)
          : kernel.extrude(circle([0, 0], radius), 0, piece.straight, piece.frame);
      body = kernel.fuse(body, next);
    }
    return kernel.fuse(body, kernel.revolve(ends(b[which]), mouthFrame(s, run)));
  };
  const outer = along(run.tube, solidTo, 'outside');
  const inner = along(s.bore, wayTo, 'inside');
  return kernel.cut(outer, inner);
}

const solidTo = (profile: Profile): Outline => {
  const path = new Path([0, profile[0]![1]]);
  for (const point of profile) path.to(point);
  return path.to([0, profile.at(-1)![1]]).close();
};

/** Out through the mouth. */
const wayTo = (profile: Profile): Outline => {
  const path = new Path([0, -1]).to([profile[0]![0], -1]);
  for (const point of profile) path.to(point);
  return path.to([0, profile.at(-1)![1]]).close();
};

export function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const run = is.bent(p) ? runOf(p, s) : null;
  const total = s.A.length + s.middle + s.B.length;
  const frames: Record<End, Frame> = {
    A: BED,
    B: run ? mouthFrame(s, run) : { at: [0, 0, total], x: [1, 0, 0], up: [0, 0, -1] },
  };
  return ENDS.flatMap(end => surfacesOf(s[end], end, s, frames[end]));
}

function surfacesOf(e: EndSizes, end: End, s: Sizes, frame: Frame): MateSurface[] {
  const list: MateSurface[] = [];
  const add = (
    mate: string,
    side: MateSurface['side'],
    [from, to]: [number, number],
    more: Partial<MateSurface> = {},
  ) => {
    const middle = (from + to) / 2;
    list.push({
      mate,
      side,
      kind: 'round',
      size: 2 * mateAt(e, middle),
      ...placed(frame, from, to),
      ...more,
    });
  };
  if (e.kind === 'flange') return [];
  // On a barb the first ridge's crest is what the hose sits on.
  if (e.kind === 'barb') add(`barb${end}`, 'outside', [BARB_PITCH * 0.6, BARB_PITCH * 0.85]);
  else {
    const { ridge } = e;
    const whole: [number, number] = [s.chamfer, e.length];
    // Tapered, the size counts midway: the stretch is about it.
    const half = e.length / 2 - s.chamfer;
    const range: [number, number] =
      e.taper > 0
        ? [e.length / 2 - half, e.length / 2 + half]
        : ridge
          ? ridge.from - whole[0] > whole[1] - ridge.to
            ? [whole[0], ridge.from]
            : [ridge.to, whole[1]]
          : whole;
    const growing = (e.kind === 'over' ? -1 : 1) * (pointsUp(frame.up) ? 1 : -1) * e.taper;
    add(
      `${e.kind}${end}`,
      e.kind === 'over' ? 'inside' : 'outside',
      range,
      e.taper > 0 ? { taper: growing } : {},
    );
    if (ridge) add(`ridge${end}`, 'inside', [ridge.low, ridge.high], { size: 2 * ridge.radius });
  }
  return list;
}

/** The direction in which a mate's axis is given: up, or outwards where the axis is horizontal. */
const pointsUp = (up: Point3) => up[2] > 1e-9 || (Math.abs(up[2]) <= 1e-9 && up[0] > 0);

/** A stretch of a turned surface, its heights counted along the frame. */
function placed(
  { at, up }: Frame,
  from: number,
  to: number,
): Pick<MateSurface, 'at' | 'axis' | 'from' | 'to'> {
  const middle = (from + to) / 2;
  const sense = pointsUp(up) ? 1 : -1;
  const axis: Point3 = [sense * up[0] + 0, sense * up[1] + 0, sense * up[2] + 0];
  const base = at[0] * axis[0] + at[1] * axis[1] + at[2] * axis[2];
  const ends = [base + sense * from, base + sense * to] as const;
  return {
    at: [at[0] + middle * up[0], at[1] + middle * up[1], at[2] + middle * up[2]],
    axis,
    from: Math.min(...ends),
    to: Math.max(...ends),
  };
}
