import { distance2, type Point2 } from '../shape/vector';
import { type Camera, projection, ray } from './camera/camera';
import { contactsOf, type Thickness } from './contact';
import { ALONG } from './find/edge-points';
import type { Thing } from './find/silhouette';
import { type Placing, placingBy, shownBy, upwards } from './outline';
import type { Picture } from './picture';
import type { Middle } from './sheet/layout';
import { type DrawnStroke, strokesOn } from './strokes';
import {
  type Shown,
  type TraceAnswer,
  type TracedPlane,
  type TraceProgress,
  tracePlane,
} from './trace-plane';

/** An object on a bare table, without the sheet: the settings, however its scale is known. */
export interface OnTable {
  thickness: Thickness;
  /** A pixel of the object, where several things lie there. */
  inside: Point2 | null;
  tolerance: number;
  strokes?: readonly DrawnStroke[];
}

interface Looked {
  /** Radius of the area around the middle, mm. */
  far: number;
  /** Left out, from the camera alone. */
  place?: Placing;
  shown?: Shown;
  isNot?(thing: Thing): boolean;
}

/** The largest area that is examined, mm. */
const FARTHEST = 250;

/** @param camera over the table */
export function tracedOnTable(
  picture: Picture,
  camera: Camera,
  { thickness, inside, tolerance, strokes }: OnTable,
  { far, place, shown, isNot }: Looked,
  progress: TraceProgress,
): TraceAnswer<TracedPlane> {
  const project = projection(camera);
  const back = ray(camera);
  const most = Math.min(FARTHEST, far);
  const edge = [
    [0, 0],
    [picture.width - 1, 0],
    [picture.width - 1, picture.height - 1],
    [0, picture.height - 1],
  ].map(([u, v]) => back(u!, v!, 0));
  const within = (k: 0 | 1, side: 'least' | 'most') => {
    const all = edge.map(p => p[k]).sort((p, q) => p - q);
    return side === 'least' ? Math.max(-most, all[0]!) : Math.min(most, all[3]!);
  };
  const asIf = (middle: Middle) =>
    tracePlane(
      picture,
      {
        seen: (x, y) => project(x, y, 0),
        box: [within(0, 'least'), within(1, 'least'), within(0, 'most'), within(1, 'most')],
        middle,
        contacts: points => contactsOf(points, camera, thickness, ALONG),
        place: place ?? placingBy(camera, thickness),
        turned: upwards,
        shown: shown ?? shownBy(project, thickness),
        height: thickness.height,
      },
      {
        inside: inside && back(...inside, 0),
        tolerance,
        drawn: strokesOn(strokes ?? [], (u, v) => back(u, v, 0)),
        // Table outside the picture is not part of the object.
        isNot: thing => thing.cut || (isNot?.(thing) ?? false),
      },
      progress,
    );
  // A light thing may lie on a dark table as well.
  const light = asIf('white');
  if (light.ok) return light;
  const dark = asIf('dark');
  return dark.ok ? dark : light;
}

/** The size of a pixel in the middle of the area, mm. */
export function pixelOf(camera: Camera): number {
  const project = projection(camera);
  return 10 / distance2(project(-5, 0, 0), project(5, 0, 0));
}
