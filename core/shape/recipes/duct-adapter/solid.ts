import type { Body, Level, Outline, PartKernel } from '../../kernels/kernel';
import { offsetOutline } from '../../offset';
import { keyed, type Places, type SurfacePlace } from '../define-recipe';
import { ENDS, type End, FITS, type Fit, MEASURES, type Measure, type P } from './parameters';
import { active, type EndSizes, type Sizes, sizesOf } from './sizes';

export function solid(p: P, kernel: PartKernel): Body {
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

export function places(p: P): Places<`${Fit}${Measure}${End}`> {
  const s = sizesOf(p);
  const { b, top } = heights(s);
  const place = (end: End, measure: Measure): SurfacePlace => {
    const [from, to] = end === 'A' ? [s.leadIn, s.A.length] : [b, top - s.leadIn];
    const [x, y] = end === 'A' ? [0, 0] : s.shift;
    const common: Omit<SurfacePlace, 'kind'> = { at: [x, y, (from + to) / 2], axis: [0, 0, 1], from, to };
    if (measure === 'Round') return { ...common, kind: 'round' };
    return { ...common, kind: 'span', across: measure === 'Width' ? [1, 0, 0] : [0, 1, 0] };
  };
  return keyed(
    ENDS.flatMap(end =>
      FITS.flatMap(fit =>
        MEASURES.map(measure => {
          const there = active(fit, measure, end)(p);
          return [`${fit}${measure}${end}`, there ? place(end, measure) : null] as const;
        }),
      ),
    ),
  );
}
