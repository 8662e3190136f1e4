import type { Body, Outline, PartKernel } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import { alongFrame, BED, type Frame, type Point3 } from '../../vector';
import { keyed, type Places, type SurfacePlace } from '../define-recipe';
import { ENDS, type End, FITTINGS, type Fitting, type P } from './parameters';
import {
  BARB_PITCH,
  type EndSizes,
  endProfile,
  is,
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

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const body = is.bent(p) ? bent(p, s, kernel) : kernel.revolve(straightOutline(s));
  if (!is.flange(p)) return body;
  return kernel.cut(body, kernel.extrudeAll(boltHoles(p), -1, s.A.length + 2));
}

export function boltHoles(p: P): Outline[] {
  const count = p.bolts;
  const r = p.boltCircle / 2;
  return Array.from({ length: count }, (_, i) => {
    const a = (2 * Math.PI * i) / count;
    return circle([r * Math.cos(a), r * Math.sin(a)], p.boltHole / 2);
  });
}

/** The outside along the whole length, then the passage cut out of it: each a revolved end, bends, a revolved end. */
function bent(p: P, s: Sizes, kernel: PartKernel): Body {
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

/** The surfaces of an end that may have to fit. */
export type Mate = `${Fitting | 'ridge'}${End}`;

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const run = is.bent(p) ? runOf(p, s) : null;
  const total = s.A.length + s.middle + s.B.length;
  const frames: Record<End, Frame> = {
    A: BED,
    B: run ? mouthFrame(s, run) : { at: [0, 0, total], x: [1, 0, 0], up: [0, 0, -1] },
  };
  return keyed(
    ENDS.flatMap(end => {
      const e = s[end];
      return [
        ...FITTINGS.map(fitting => {
          const fits = e.kind === fitting;
          return [`${fitting}${end}`, fits ? fittingPlace(e, s.chamfer, frames[end]) : null] as const;
        }),
        [`ridge${end}`, e.ridge ? onFrame(frames[end], e.ridge.low, e.ridge.high) : null] as const,
      ];
    }),
  );
}

function fittingPlace(e: EndSizes, chamfer: number, frame: Frame): SurfacePlace {
  // On a barb the first ridge's crest is what the hose sits on.
  if (e.kind === 'barb') return onFrame(frame, BARB_PITCH * 0.6, BARB_PITCH * 0.85);
  if (e.taper > 0) {
    const growing = (e.kind === 'over' ? -1 : 1) * (pointsUp(frame.up) ? 1 : -1) * e.taper;
    return {
      ...onFrame(frame, chamfer, e.length - chamfer),
      // The size applies where it holds.
      at: alongFrame(frame, [0, e.hold]).at,
      taper: growing,
    };
  }
  if (!e.ridge) return onFrame(frame, chamfer, e.length);
  const { from, to } = e.ridge;
  return from - chamfer > e.length - to ? onFrame(frame, chamfer, from) : onFrame(frame, to, e.length);
}

/** The direction of a mate's axis: up, or outwards where the axis is horizontal. */
const pointsUp = (up: Point3) => up[2] > 1e-9 || (Math.abs(up[2]) <= 1e-9 && up[0] > 0);

/** A stretch of a revolved surface, its heights counted along the frame. */
function onFrame({ at, up }: Frame, from: number, to: number): SurfacePlace {
  const middle = (from + to) / 2;
  const sense = pointsUp(up) ? 1 : -1;
  const axis: Point3 = [sense * up[0] + 0, sense * up[1] + 0, sense * up[2] + 0];
  const base = at[0] * axis[0] + at[1] * axis[1] + at[2] * axis[2];
  const ends = [base + sense * from, base + sense * to] as const;
  return {
    kind: 'round',
    at: [at[0] + middle * up[0], at[1] + middle * up[1], at[2] + middle * up[2]],
    axis,
    from: Math.min(...ends),
    to: Math.max(...ends),
  };
}
