import { type Curve, flattenedPoints, outlineOfCurves } from '../shape/curve';
import { frameOf } from '../shape/drawing/drawing';
import { writeDrawingDxf } from './drawing-dxf';
import { writeDrawingSvg } from './drawing-svg';

/** Arcs are divided into lines that stay this near, mm. */
const SAGITTA = 0.005;

/** Measured lines and arcs as a drawing file, mm. */
export function writeOutline(
  kind: 'svg' | 'dxf',
  title: string,
  loops: readonly { curves: readonly Curve[]; closed: boolean }[],
): string {
  const shapes = loops.map(({ curves, closed }) => ({
    ink: 'cut' as const,
    points: curves.length > 0 ? flattenedPoints(outlineOfCurves(curves), SAGITTA) : [],
    closed,
  }));
  const drawing = { title, shapes, dimensions: [], frame: frameOf(shapes, [], 2) };
  return kind === 'svg' ? writeDrawingSvg(drawing, title, () => null) : writeDrawingDxf(drawing, () => null);
}
