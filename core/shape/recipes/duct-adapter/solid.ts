import type { Body, Level, Outline, PartKernel } from '../../kernels/kernel';
import type { MateSurface } from '../../mates';
import { offsetOutline } from '../../offset';
import type { Point3 } from '../../vector';
import { lengthOf, type Parameters } from '../parameters';
import { ENDS, type EndSizes, isRound, mateName, type Sizes, sizesOf } from './sizes';

export function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  return kernel.cut(kernel.stack(outside(s)), kernel.stack(way(s)));
}

const heights = (s: Sizes) => {
  const a = s.A.length;
  return { a, b: a + s.middle, top: a + s.middle + s.B.length };
};

/** A mouth that goes in is chamfered outside, one that goes over inside. */
export const entryOf = (e: EndSizes, leadIn: number): Outline =>
  offsetOutline(e.mate, e.fit === 'over' ? leadIn : -leadIn);

function outside(s: Sizes): Level[] {
  const { a, b, top } = heights(s);
  const levels: Level[] = [];
  if (s.A.fit === 'into' && s.leadIn > 0)
    levels.push({ outline: entryOf(s.A, s.leadIn), z: 0 }, { outline: s.A.outer, z: s.leadIn });
  else levels.push({ outline: s.A.outer, z: 0 });
  levels.push({ outline: s.A.outer, z: a }, { outline: s.B.outer, z: b });
  if (s.B.fit === 'into' && s.leadIn > 0)
    levels.push({ outline: s.B.outer, z: top - s.leadIn }, { outline: entryOf(s.B, s.leadIn), z: top });
  else levels.push({ outline: s.B.outer, z: top });
  return levels;
}

function way(s: Sizes): Level[] {
  const { a, b, top } = heights(s);
  const levels: Level[] = [];
  const mouth = (e: EndSizes) => (e.fit === 'over' && s.leadIn > 0 ? entryOf(e, s.leadIn) : e.inner);
  levels.push({ outline: mouth(s.A), z: -1 });
  if (mouth(s.A) !== s.A.inner)
    levels.push({ outline: mouth(s.A), z: 0 }, { outline: s.A.inner, z: s.leadIn });
  levels.push({ outline: s.A.inner, z: a });
  if (s.A.fit === 'over') levels.push({ outline: s.A.way, z: a });
  levels.push({ outline: s.B.way, z: b });
  if (s.B.fit === 'over') levels.push({ outline: s.B.inner, z: b });
  if (mouth(s.B) !== s.B.inner)
    levels.push({ outline: s.B.inner, z: top - s.leadIn }, { outline: mouth(s.B), z: top });
  levels.push({ outline: mouth(s.B), z: top + 1 });
  return levels;
}

export function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  const { b, top } = heights(s);
  return ENDS.flatMap((end): MateSurface[] => {
    const e = s[end];
    const [from, to] = end === 'A' ? [s.leadIn, e.length] : [b, top - s.leadIn];
    const [x, y] = end === 'A' ? [0, 0] : s.shift;
    const common = {
      side: e.fit === 'over' ? ('inside' as const) : ('outside' as const),
      at: [x, y, (from + to) / 2] as Point3,
      axis: [0, 0, 1] as Point3,
      from,
      to,
    };
    const mate = (way: 'Round' | 'Width' | 'Depth') => ({
      mate: mateName(p, end, way),
      size: lengthOf(p, mateName(p, end, way)),
    });
    if (isRound(end)(p)) return [{ ...common, ...mate('Round'), kind: 'round' }];
    return [
      { ...common, ...mate('Width'), kind: 'span', across: [1, 0, 0] },
      { ...common, ...mate('Depth'), kind: 'span', across: [0, 1, 0] },
    ];
  });
}
