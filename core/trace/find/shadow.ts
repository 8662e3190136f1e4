import type { Contact } from '../contact';
import type { EdgePoint } from './edge-points';
import type { Flattened } from './flattened';
import type { SheetLight } from './sheet-light';

/** The object is sampled this far inside the line, mm: beyond its blur and its chamfer. */
const WITHIN = 0.9;
/**
 * A tone differs where a colour differs by more than this, in logarithms, and as a share of the sheet's light: less is
 * noise on black.
 */
const [OTHER, OTHER_SHARE] = [0.3, 0.05];
/** Ground in shadow is equally darker in each colour, to this, in logarithms. */
const GREY = 0.2;

/**
 * The share of a line that has ground in shadow on its inner side instead of the object: a hard shadow that was taken
 * for a part of it. Recognised by its tone: different from the object's, with the sheet's own colour.
 * @param tone of the object, as shares of the sheet's light
 */
export function shadowWithin(
  points: readonly (EdgePoint | null)[],
  contacts: readonly (Contact | null)[],
  { from, step, wide, tall, light }: Flattened,
  sheet: SheetLight,
  tone: readonly [number, number, number],
): number {
  const bare = new Float64Array(3);
  const isOther = ({ at, out }: EdgePoint, contact: Contact | null): boolean => {
    const [x, y] = [at[0] - WITHIN * out[0], at[1] - WITHIN * out[1]];
    const [i, j] = [Math.round((x - from[0]) / step), Math.round((y - from[1]) / step)];
    const place = 3 * (j * wide + i);
    if (i < 0 || j < 0 || i >= wide || j >= tall || light[place]! < 0) return false;
    sheet(x, y, bare);
    const shares = [0, 1, 2].map(k => Math.log(Math.max(0.004, light[place + k]!) / bare[k]!));
    if (Math.max(...shares) - Math.min(...shares) > GREY) return false;
    const off = shares.map((s, k) => s - Math.log(Math.max(0.004, tone[k]!)));
    const most = Math.max(...shares.map((s, k) => Math.abs(Math.exp(s) - tone[k]!)));
    if (most < OTHER_SHARE) return false;
    // The object's own wall is darker too, where it faces the camera.
    return Math.max(...off.map(Math.abs)) > OTHER && (Math.max(...off) > 0 || contact === 'top');
  };
  let [seen, other] = [0, 0];
  points.forEach((point, n) => {
    if (!point) return;
    seen++;
    if (isOther(point, contacts[n] ?? null)) other++;
  });
  return other / Math.max(1, seen);
}
