import { Refusals } from '../fields';
import type { P } from './parameters';
import { leastBetween, reachOf, sizesOf, veeDepth, wholeRing } from './sizes';

/** Minimum plastic between two places, mm. Common practice, no source. */
const LEAST_BETWEEN = 1.2;
/** Minimum plastic below a groove, mm. Common practice, no source. */
const LEAST_BELOW = 1;

export function refuse(p: P) {
  const s = sizesOf(p);
  const found = new Refusals<P>();
  if (s.vee) {
    const deepest = Math.max(...s.places.map(veeDepth));
    const widest = Math.max(...s.places.map(q => 2 * (veeDepth(q) - q.radius)));
    return found
      .when(
        s.height < deepest + LEAST_BELOW,
        'height',
        'The grooves cut through the block: make it higher.',
        deepest + 4,
      )
      .when(
        s.places.length > 1 && s.between < widest + LEAST_BETWEEN,
        'pitch',
        'The grooves run into each other: set them farther apart.',
        p.hole + widest + 3,
      )
      .when(
        s.edge < Math.max(...s.places.map(q => veeDepth(q) - q.radius)) + 0.4,
        'edge',
        'The last groove has no wall beside it: more around the holes.',
        Math.max(...s.places.map(q => veeDepth(q) - q.radius)) + 2,
      ).list;
  }
  const slants = s.places.map(q => q.radius * Math.hypot(q.right, q.back));
  const slant = Math.max(...slants);
  const [first] = s.places;
  const { step: to, floor } = reachOf(s, first!);
  return found
    .when(
      s.places.length > 1 && leastBetween(s) < LEAST_BETWEEN,
      'pitch',
      'The holes run into each other: set them farther apart.',
      p.pitch + LEAST_BETWEEN + 4 - leastBetween(s),
    )
    .when(
      s.blade > 0 && s.blade >= first!.radius - 0.1,
      'blade',
      'The lower hole must be narrower than the upper one; 0 leaves it out.',
      1.2 * first!.radius,
    )
    .when(
      s.blade > 0 && (to > floor - 1 || to < 2 * slant + 2),
      'step',
      'The step lies outside the block: between a few millimetres and the floor.',
      Math.max(2 * slant + 3, 0.6 * s.height),
    )
    .when(s.floor > s.height - 3, 'floor', 'The floor fills the block: make it thinner.', 3)
    .when(
      s.places.some(q => wholeRing(s, q)[1] - wholeRing(s, q)[0] < 1),
      'height',
      'The block is too low for a hole that leans so far.',
      s.height + 2 * slant + 6,
    ).list;
}
