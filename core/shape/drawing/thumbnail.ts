import type { Drawing, DrawShape } from './drawing';

/** A drawing as SVG paths without text: for a tag on the rack and for choosing a recipe. */
export interface Thumbnail {
  viewBox: string;
  cut: string[];
  edge: string[];
  mate: string[];
}

/** Margin around the part, as a share of its size. */
const MARGIN = 0.06;

export function thumbnailOf({ shapes }: Drawing): Thumbnail {
  const points = shapes.filter(s => s.ink === 'cut' || s.ink === 'edge').flatMap(s => s.points);
  const [xs, ys] = [points.map(p => p[0]), points.map(p => p[1])];
  const [minX, minY, maxX, maxY] = [Math.min(...xs), Math.min(...ys), Math.max(...xs), Math.max(...ys)];
  const margin = MARGIN * Math.max(maxX - minX, maxY - minY);
  // A thousandth of its size is finer than any tag shows.
  const digits = Math.max(maxX - minX, maxY - minY) > 80 ? 1 : 2;
  const paths = (ink: DrawShape['ink']) => shapes.filter(s => s.ink === ink).map(s => pathOf(s, digits));
  return {
    // SVG's y runs down.
    viewBox: [minX - margin, -maxY - margin, maxX - minX + 2 * margin, maxY - minY + 2 * margin]
      .map(x => x.toFixed(2))
      .join(' '),
    cut: paths('cut'),
    edge: paths('edge'),
    mate: paths('mate'),
  };
}

function pathOf({ points, closed }: DrawShape, digits: number): string {
  const written = points.map(([x, y]) => `${Number(x.toFixed(digits))} ${Number((-y).toFixed(digits))}`);
  return `M${written.filter((p, i) => p !== written[i - 1]).join('L')}${closed ? 'Z' : ''}`;
}
