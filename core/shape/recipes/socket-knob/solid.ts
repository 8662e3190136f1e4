import type { Body, PartKernel } from '../../kernels/kernel';
import type { MateSurface } from '../../mates';
import { circle, Path } from '../../outline';
import type { Frame } from '../../vector';
import { lengthOf, type Parameters } from '../parameters';
import { gripOf, hasFlats, isRound, middleOf, reachOf, sizesOf, socketOf } from './sizes';

/** Out along x, for the set screw. */
const SIDEWAYS: Frame = { at: [0, 0, 0], x: [0, 1, 0], up: [1, 0, 0] };

export function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  let body = kernel.extrude(gripOf(s), 0, s.height);
  const deep = s.through ? s.height + 2 : s.depth + 1;
  body = kernel.cut(body, kernel.extrude(socketOf(s), -1, deep));
  const c = lengthOf(p, 'leadIn');
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
  if (p.setScrew === true) {
    const z = lengthOf(p, 'screwHeight');
    const hole = circle([0, z], lengthOf(p, 'screwHole') / 2);
    body = kernel.cut(body, kernel.extrude(hole, 0, s.grip + 1, SIDEWAYS));
  }
  return body;
}

export function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const from = lengthOf(p, 'leadIn');
  const to = s.through ? s.height : s.depth;
  // Clear of the set screw's hole, which comes in from one side.
  const low =
    p.setScrew === true ? Math.max(from, lengthOf(p, 'screwHeight') + lengthOf(p, 'screwHole') / 2) : from;
  const z = (low + to) / 2;
  const common = { side: 'inside' as const, axis: [0, 0, 1] as const, from, to };
  const list: MateSurface[] = [];
  if (hasFlats(p)) {
    const flats = s.shape === 'hexagon' ? 6 : s.shape === 'square' ? 4 : 2;
    list.push({
      ...common,
      mate: 'flats',
      kind: 'flats',
      size: s.flats,
      at: [middleOf(s), 0, z],
      across: [1, 0, 0],
      flats,
    });
  }
  if (isRound(p))
    list.push(
      s.shape === 'round'
        ? { ...common, mate: 'shaft', kind: 'round', size: s.round, at: [0, 0, z] }
        : // Its round is open at the flats: measured across it, along them.
          { ...common, mate: 'shaft', kind: 'flats', size: s.round, at: [0, 0, z], across: [0, 1, 0] },
    );
  if (s.key)
    list.push({
      ...common,
      mate: 'key',
      kind: 'flats',
      size: s.key.width,
      at: [s.round / 2 + s.key.over / 2, 0, z],
      across: [0, 1, 0],
    });
  return list;
}
