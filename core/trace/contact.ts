import type { Point2 } from '../shape/vector';
import { type Camera, eyeOf, ray } from './camera/camera';
import type { EdgePoint } from './find/edge-points';

/**
 * The true place of a visible edge. A thing of thickness h stands up from the sheet: a wall that faces the camera is
 * visible down to its foot, so the edge is the foot, at 0; a wall that faces away is hidden, so the edge is the upper
 * one, at h less its chamfer. The outward normal decides which it is, at every point.
 */
export interface Thickness {
  /** mm */
  height: number;
  /** Size of the chamfer on the upper edges, mm. */
  broken: number;
}

/** A wall seen end on, within this cosine, shows its upright corner: not an edge of the outline. */
const END_ON = 0.14;
/** Longer runs seen end on are walls, whose upper edge and foot are on one line: as long as a spur, and mm. */
const [SPURS, AND] = [1.7, 1];
/** Where the outline turns by more than this sine over that distance, it is round there: the spur is in the middle. */
const ROUNDING = 0.1;
/** This far on either side of it, in spurs. */
const ROUND_SPURS = 0.6;

export type Contact =
  | 'foot'
  | 'top'
  | 'corner'
  /** The stated height of the edge, mm. */
  | number;

/** The height of an edge, mm. */
export function standsAt(contact: Contact, { height, broken }: Thickness): number {
  if (typeof contact === 'number') return contact;
  return contact === 'top' ? Math.max(0, height - broken) : 0;
}

/** The true place of each point of a closed line; null stays null. @param step between points, mm */
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
  // Runs of points seen end on, once round from a place where none is.
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
    // A spur shorter than the picture resolves leaves no corner to drop.
    if (spur > step / 2)
      for (let k = i; k < end; k++) {
        const away = Math.abs(k - middle) * step;
        if (rounds ? away < ROUND_SPURS * spur + step : long < SPURS * spur + AND) contacts[k % n] = 'corner';
      }
    i = end;
  }
  return contacts;
}

/** In a run of points seen end on, the most extreme one. */
function middleOf(cosines: readonly ({ cos: number } | null)[], from: number, end: number): number {
  let best = from;
  const at = (k: number) => Math.abs(cosines[k % cosines.length]?.cos ?? 1);
  for (let k = from; k < end; k++) if (at(k) < at(best)) best = k;
  return best;
}

/** The places of the outline; corners are dropped. */
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
