import type { MateSurface } from '../../shape/mates';
import { dot, moved, type Point2, type Point3 } from '../../shape/vector';
import { toSegment } from '../../shape/within';
import type { GcodeFile } from './file';
import type { Layer } from './mate-lines';

/**
 * Flats that lie one above the other are printed in whole layers: the distance at which the file prints them. Lengths
 * mm.
 */

/** A place counts as covered where a line passes this near to it, as a share of the line's width. */
const COVERS = 0.6;
/** Places along the surface, at these shares of its length. */
const PLACES = [0.3, 0.5, 0.7];
/** Each flat moves by a layer at most: where it comes to more, something else was found. */
const MOST_LAYERS = 2.05;
/** A flat is searched this far from where it is drawn. */
const BEYOND = 1.2;

/**
 * From the top of the lower flat to the underside of the upper one, or through the plastic between them; null where the
 * places do not agree, or no flat is found.
 * @param layers of the thing, from below @param up in the drawing
 * @param place where a drawn point is in the file @param heightAt its height there
 */
export function heightOf(
  file: GcodeFile,
  layers: readonly Layer[],
  surface: MateSurface,
  lineWidth: number,
  place: (p: Point3) => Point2,
  heightAt: (p: Point3) => number,
): number | null {
  const { at, axis, from, to, size, side } = surface;
  const middle = dot(at, axis);
  const found = PLACES.map(share => {
    const p = moved(at, axis, from + share * (to - from) - middle);
    const z = heightAt(p);
    return apart(file, layers, place(p), z, size, side === 'inside', COVERS * lineWidth);
  });
  const [first] = found;
  if (first == null || found.some(f => f === null || Math.abs(f - first) > 1e-6)) return null;
  const layer = Math.max(...layers.map(({ z }, k) => z - (layers[k - 1]?.z ?? 0)));
  return Math.abs(first - size) < MOST_LAYERS * layer ? first : null;
}

function apart(
  file: GcodeFile,
  layers: readonly Layer[],
  at: Point2,
  z: number,
  size: number,
  isGap: boolean,
  near: number,
): number | null {
  const bottomOf = (k: number) => layers[k - 1]?.z ?? 0;
  const most = size / 2 + BEYOND;
  const covered = layers.flatMap((layer, k) =>
    layer.z > z - most - 1e-6 && bottomOf(k) < z + most + 1e-6 && covers(file, layer, at, near) ? [k] : [],
  );
  if (isGap) {
    const below = covered.findLast(k => layers[k]!.z <= z);
    const above = covered.find(k => bottomOf(k) >= z);
    return below === undefined || above === undefined ? null : bottomOf(above) - layers[below]!.z;
  }
  const [lowest, highest] = [covered[0], covered.at(-1)];
  if (lowest === undefined || highest === undefined) return null;
  // It must end within the range that was searched.
  if (layers[highest]!.z > z + most - 0.01 || bottomOf(lowest) < z - most + 0.01) return null;
  return layers[highest]!.z - bottomOf(lowest);
}

/** Whether a line of the layer passes over a place. */
function covers(file: GcodeFile, { pieces }: Layer, at: Point2, near: number): boolean {
  return pieces.some(i => toSegment(at, [file.x0[i]!, file.y0[i]!], [file.x1[i]!, file.y1[i]!]) < near);
}
