import { boxOf, curvesOf } from '../../curve';
import type { Body, Level, Outline, PartKernel } from '../../kernels/kernel';
import { offsetOutline } from '../../offset';
import type { Point2 } from '../../vector';
import type { Places } from '../define-recipe';
import type { P } from './parameters';
import { type Fitting, fittingOf, type Sizes, sizesOf } from './sizes';

/** Lies on the bed; the end that goes in first is down, pockets and lip are up. */
export function solid(p: P, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const height = s.thickness + (s.lip?.height ?? 0);
  let body = kernel.stack(levelsOf(s, height));
  if (s.lip) body = kernel.cut(body, kernel.extrude(s.lip.inner, s.thickness, s.lip.height + 1));
  if (s.pocket) {
    const { outline, depth, top } = s.pocket;
    // A pocket as deep as the part goes through.
    const from = depth >= s.thickness - 1e-9 ? -1 : s.thickness - depth;
    const tool = top
      ? kernel.stack(shellLevels(s, { outline, top }, from, height + 1))
      : kernel.extrude(outline, from, height + 1 - from);
    body = kernel.cut(body, tool);
  }
  const through = s.holes.filter(h => goesThrough(h.hole, s));
  if (through.length > 0)
    body = kernel.cut(
      body,
      kernel.extrudeAll(
        through.map(h => h.outline),
        -1,
        height + 2,
      ),
    );
  for (const { hole, outline } of s.holes.filter(h => !goesThrough(h.hole, s)))
    body = kernel.cut(body, kernel.extrude(outline, s.thickness - hole.deep!, height + 1));
  return body;
}

export const goesThrough = (hole: Sizes['holes'][number]['hole'], s: Pick<Sizes, 'thickness'>) =>
  hole.deep === undefined || hole.deep >= s.thickness - 1e-9;

export function levelsOf(s: Sizes, height: number): Level[] {
  const levels: Level[] = [];
  if (s.leadIn > 0) levels.push({ outline: entryOf(s), z: 0 }, { outline: s.outer, z: s.leadIn });
  else levels.push({ outline: s.outer, z: 0 });
  if (s.top) {
    if (s.straight > s.leadIn + 1e-6) levels.push({ outline: s.outer, z: s.straight });
    levels.push({ outline: s.top, z: s.thickness });
    if (height > s.thickness) levels.push({ outline: s.top, z: height });
  } else levels.push({ outline: s.outer, z: height });
  return levels;
}

/** The inside of a tapering part: at every height the same distance from its wall. */
function shellLevels(
  s: Pick<Sizes, 'straight' | 'thickness'>,
  { outline, top }: { outline: Outline; top: Outline },
  from: number,
  to: number,
): Level[] {
  const at = (z: number): Level => ({
    outline: between(outline, top, (z - s.straight) / (s.thickness - s.straight)),
    z,
  });
  return [
    from < s.straight - 1e-6 ? { outline, z: from } : at(from),
    ...(from < s.straight - 1e-6 ? [{ outline, z: s.straight }] : []),
    { outline: top, z: s.thickness },
    { outline: top, z: to },
  ];
}

/** An intermediate outline between two with the same number of edges. */
function between(a: Outline, b: Outline, share: number): Outline {
  const mix = (p: Point2, q: Point2): Point2 => [p[0] + share * (q[0] - p[0]), p[1] + share * (q[1] - p[1])];
  return {
    start: mix(a.start, b.start),
    edges: a.edges.map((edge, i) => {
      const other = b.edges[i]!;
      return {
        to: mix(edge.to, other.to),
        ...(edge.via && other.via ? { via: mix(edge.via, other.via) } : {}),
      };
    }),
  };
}

/** The outline a chamfer makes smaller. */
export const entryOf = (s: Pick<Sizes, 'outer' | 'leadIn'>) => offsetOutline(s.outer, -s.leadIn);

export const edgesOf = (outline: Sizes['outer']) => curvesOf(outline).length;

export function places(p: P): Places<Fitting> {
  const s = sizesOf(p);
  const [x0, y0, x1, y1] = boxOf(s.outer);
  const by = fittingOf(p);
  const common = {
    at: [(x0 + x1) / 2, (y0 + y1) / 2, (s.leadIn + s.straight) / 2],
    axis: [0, 0, 1],
    from: s.leadIn,
    to: s.straight,
  } as const;
  return {
    width: by === 'width' ? { ...common, kind: 'span', across: [1, 0, 0] } : null,
    height: by === 'height' ? { ...common, kind: 'span', across: [0, 1, 0] } : null,
    around: by === 'around' ? { ...common, kind: 'girth' } : null,
  };
}
