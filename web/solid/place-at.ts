import type { ThreeEvent } from '@react-three/fiber';
import { DIRECTIONS } from '../../core/shape/additions/place';
import type { Bounds } from '../../core/shape/mesh/mesh';

/** A face that looks this near to one of the six ways looks that way: cosine. */
const THAT_WAY = 0.9998;
/** A round wall is named by the side it is on: cosine. */
const ABOUT_THAT_WAY = 0.9;

/** The face that was pressed, in the words in which an addition keeps it. */
export function placeAt(event: ThreeEvent<MouseEvent>, { min, max }: Bounds): string {
  const { normal } = event.face!;
  const { point } = event;
  const n = [normal.x, normal.y, normal.z];
  const along = (way: readonly number[]) => way.reduce((sum, x, i) => sum + x * n[i]!, 0);
  const [word, way] = Object.entries(DIRECTIONS).sort((a, b) => along(b[1]) - along(a[1]))[0]!;
  const axis = way.findIndex(x => x !== 0);
  const at = [point.x, point.y, point.z][axis]!;
  const outermost = Math.abs(at - (way[axis]! > 0 ? max[axis]! : min[axis]!)) < 0.1;
  if (along(way) > THAT_WAY) return outermost ? word : `${word} at ${Number(at.toFixed(2))}`;
  if (along(way) > ABOUT_THAT_WAY) return word;
  const offset = n[0]! * point.x + n[1]! * point.y + n[2]! * point.z;
  return `${n.map(x => Number(x.toFixed(4))).join(', ')} at ${Number(offset.toFixed(2))}`;
}
