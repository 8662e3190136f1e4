import type { Body, PartKernel } from '../../kernels/kernel';
import { circle, Path } from '../../outline';
import type { Frame } from '../../vector';
import type { Places, SurfacePlace } from '../define-recipe';
import type { P } from './parameters';
import { gripOf, hasFlats, isRound, middleOf, reachOf, sizesOf, socketOf } from './sizes';

/** Out along x, for the set screw. */
const SIDEWAYS: Frame = { at: [0, 0, 0], x: [0, 1, 0], up: [1, 0, 0] };

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(gripOf(s), 0, s.height);
  const deep = s.through ? s.height + 2 : s.depth + 1;
  body = kernel.cut(body, kernel.extrude(socketOf(s), -1, deep));
  const c = p.leadIn;
  if (c > 0) {
    // A cone at the mouth leads corners in.
    const r = reachOf(s);
    const cone = new Path([0, -1])
      .to([r + c + 1, -1])
      .to([r, c])
      .to([0, c])
      .close();
    body = kernel.cut(body, kernel.revolve(cone));
  }
  if (p.setScrew) {
    const z = p.screwHeight;
    const hole = circle([0, z], p.screwHole / 2);
    body = kernel.cut(body, kernel.extrude(hole, 0, s.grip + 1, SIDEWAYS));
  }
  return body;
}

export type Mate = 'flats' | 'shaft' | 'key';

export function places(p: P): Places<Mate> {
  const s = sizesOf(p);
  const from = p.leadIn;
  const to = s.through ? s.height : s.depth;
  // Clear of the set screw's hole, which comes in from one side.
  const low = p.setScrew ? Math.max(from, p.screwHeight + p.screwHole / 2) : from;
  const z = (low + to) / 2;
  const common = { axis: [0, 0, 1] as const, from, to };
  const flats = s.shape === 'hexagon' ? 6 : s.shape === 'square' ? 4 : 2;
  // A D's round is open at the flats: it is measured across it, along them.
  const shaft: SurfacePlace =
    s.shape === 'round'
      ? { ...common, kind: 'round', at: [0, 0, z] }
      : { ...common, kind: 'flats', at: [0, 0, z], across: [0, 1, 0] };
  return {
    flats: hasFlats(p)
      ? { ...common, kind: 'flats', at: [middleOf(s), 0, z], across: [1, 0, 0], flats }
      : null,
    shaft: isRound(p) ? shaft : null,
    key: s.key && { ...common, kind: 'flats', at: [s.round / 2 + s.key.over / 2, 0, z], across: [0, 1, 0] },
  };
}
