import type { Point2 } from '../shape/vector';
import { type Camera, eyeOf, ray } from './camera/camera';
import type { EdgePoint } from './find/edge-points';

/**
 * Where an edge that is seen truly lies. A thing as thick as h stands up from the sheet: a wall that looks towards the
 * camera is seen down to its foot, and the edge is the foot, at 0; one that looks away is hidden, and the edge is the
 * upper one, at h less what it is broken by. Which it is, the way out of the material says, at every point of its own.
 */
export interface Thickness {
  /** mm */
  height: number;
  /** How much the upper edges are broken, mm. */
  broken: number;
}

/** A wall seen end on, within this cosine, shows its upright corner: no edge of the outline. */
const END_ON = 0.14;
/** Longer runs end on are walls, whose upper edge and foot lie on one line: as spurs long, and mm. */
const [SPURS, AND] = [1.7, 1];
/** Where the outline turns by more than this sine meanwhile, it is round there: the spur lies in the middle. */
const ROUNDING = 0.1;
/** So far either side of it, in spurs. */
const ROUND_SPURS = 0.6;

export type Contact =
  | 'foot'
  | 'top'
  | 'corner'
  /** How high somebody said that the edge stands, mm. */
  | number;

/** How high an edge stands, mm. */
export function standsAt(contact: Contact, { height, broken }: Thickness): number {
  if (typeof contact === 'number') return contact;
  return contact === 'top' ? Math.max(0, height - broken) : 0;
}

/** What each point of a closed line is; null stays null. @param step between points, mm */
export function contactsOf(
  points: readonly (EdgePoint | null)[],
  camera: Camera,
  { height, broken }: Thickness,
  step: number,
): (Contact | null)[] {
  const eye = eyeOf(camera);
  const cosines = points.map(p => {
    if (!p) return null;
    const [x, y] = [eye.at[0] - p.at[0], eye.at[1] - p.at[1]];
    const far = Math.hypot(x, y) || 1;
    return {
      cos: (p.out[0] * x + p.out[1] * y) / far,
      spur: (far * height) / Math.max(1, eye.height - height),
    };
  });
  const contacts = cosines.map((c): Contact | null => (c ? (c.cos > 0 ? 'foot' : 'top') : null));
  const top = Math.max(0, height - broken);
  if (top === 0) return contacts.map(c => c && 'foot');
  const n = points.length;
  const isEndOn = (i: number) => {
    const c = cosines[i % n];
    return c ? Math.abs(c.cos) < END_ON : false;
  };
  // Runs of points end on, once round from a place where none is.
  const first = cosines.findIndex((_, i) => !isEndOn(i));
  if (first < 0) return contacts;
  for (let i = first; i < first + n; ) {
    if (!isEndOn(i)) {
      i++;
      continue;
    }
    let end = i;
    while (isEndOn(end) && end < first + n) end++;
    const spur = cosines[i % n]!.spur;
    const long = (end - i) * step;
    const [a, b] = [points[i % n]!.out, points[(end - 1) % n]!.out];
    const rounds = Math.abs(a[0] * b[1] - a[1] * b[0]) > ROUNDING;
    const middle = middleOf(cosines, i, end);
    // A spur shorter than the picture tells leaves no corner to drop.
    if (spur > step / 2)
      for (let k = i; k < end; k++) {
        const away = Math.abs(k - middle) * step;
        if (rounds ? away < ROUND_SPURS * spur + step : long < SPURS * spur + AND) contacts[k % n] = 'corner';
      }
    i = end;
  }
  return contacts;
}

/** Of a run of points end on, the one that is most so. */
function middleOf(cosines: readonly ({ cos: number } | null)[], from: number, end: number): number {
  let best = from;
  const at = (k: number) => Math.abs(cosines[k % cosines.length]?.cos ?? 1);
  for (let k = from; k < end; k++) if (at(k) < at(best)) best = k;
  return best;
}

/** Places of the outline; corners are dropped. */
export function placesOf(
  points: readonly (EdgePoint | null)[],
  contacts: readonly (Contact | null)[],
  camera: Camera,
  thickness: Thickness,
): (Point2 | null)[] {
  const back = ray(camera);
  return points.map((p, i) => {
    const contact = contacts[i] ?? 'corner';
    return p && contact !== 'corner' ? back(p.seen[0], p.seen[1], standsAt(contact, thickness)) : null;
  });
}
