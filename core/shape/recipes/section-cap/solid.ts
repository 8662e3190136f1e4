import { boxOf } from '../../curve';
import type { Body, Level, Outline, PartKernel } from '../../kernels/kernel';
import { offsetOutline } from '../../offset';
import { keyed, type Places, type SurfacePlace } from '../define-recipe';
import { GOES, type Goes, MEASURES, type Measure, type P } from './parameters';
import { active, RIDGE_WIDTH, type Sizes, sizesOf } from './sizes';

const INTO = 0.4;

export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const top = s.end + s.depth;
  if (s.goes === 'over') {
    const outer = kernel.extrude(outerOf(s), 0, top);
    return kernel.cut(outer, kernel.stack([...wallLevels(s), { outline: mouthOf(s), z: top + 1 }]));
  }
  const plug = kernel.stack([{ outline: s.mate, z: s.end - INTO }, ...wallLevels(s).slice(1)]);
  const body = kernel.fuse(kernel.extrude(outerOf(s), 0, s.end), plug);
  return s.wall > 0
    ? kernel.cut(body, kernel.extrude(offsetOutline(s.mate, -s.wall), s.end, s.depth + 1))
    : body;
}

/** Over: the outside of the skirt. Into: the flange. */
export const outerOf = (s: Sizes): Outline => offsetOutline(s.mate, s.goes === 'over' ? s.wall : s.flange);

/** At the mouth a skirt opens, a plug narrows. */
export const mouthOf = (s: Sizes): Outline => offsetOutline(s.mate, s.goes === 'over' ? s.leadIn : -s.leadIn);

/** The mating wall, from the end’s inner face to the mouth, with its ridge. */
export function wallLevels(s: Sizes): Level[] {
  const top = s.end + s.depth;
  const levels: Level[] = [{ outline: s.mate, z: s.end }];
  if (s.ridge) {
    const { from, to } = ridgeRange(s)!;
    const crest = offsetOutline(s.mate, s.goes === 'over' ? -s.ridge.rise : s.ridge.rise);
    levels.push(
      { outline: s.mate, z: from },
      { outline: crest, z: from + s.ridge.rise },
      { outline: crest, z: to - s.ridge.rise },
      { outline: s.mate, z: to },
    );
  }
  if (s.leadIn > 0) levels.push({ outline: s.mate, z: top - s.leadIn }, { outline: mouthOf(s), z: top });
  else levels.push({ outline: s.mate, z: top });
  return levels;
}

/** Ridges rise and fall at 45°. */
export function ridgeRange(s: Sizes): { from: number; to: number } | null {
  if (!s.ridge) return null;
  const half = RIDGE_WIDTH / 2 + s.ridge.rise;
  return { from: s.end + s.ridge.at - half, to: s.end + s.ridge.at + half };
}

export function places(p: P): Places<`${Goes}${Measure}`> {
  const s = sizesOf(p);
  const [x0, y0, x1, y1] = boxOf(s.mate);
  const [low, high] = [s.end, s.end + s.depth - s.leadIn];
  const ridge = ridgeRange(s);
  // A ridge divides the wall in two: the longer stretch is measured.
  const [from, to] = !ridge
    ? [low, high]
    : ridge.from - low > high - ridge.to
      ? [low, ridge.from]
      : [ridge.to, high];
  const common: Omit<SurfacePlace, 'kind'> = {
    at: [(x0 + x1) / 2, (y0 + y1) / 2, (from + to) / 2],
    axis: [0, 0, 1],
    from,
    to,
  };
  const place: Record<Measure, SurfacePlace> = {
    Width: { ...common, kind: 'span', across: [1, 0, 0] },
    Depth: { ...common, kind: 'span', across: [0, 1, 0] },
    Around: { ...common, kind: 'girth' },
  };
  return keyed(
    GOES.flatMap(goes =>
      MEASURES.map(
        measure => [`${goes}${measure}`, active(goes, measure)(p) ? place[measure] : null] as const,
      ),
    ),
  );
}
