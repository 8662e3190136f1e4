import type { Models } from '../../kernels/kernel';
import { laidObject } from '../../laid-object';
import { holesOfText } from '../../outline-text';
import { Refusals } from '../fields';
import { isPosts, type P } from './parameters';
import { halvesOf, postsOf, sizesOf } from './sizes';

/** Minimum plastic between the surface and what the foot stands on, mm. Common practice, no source. */
const LEAST_HIGH = 0.8;
/** A larger distance is not a gap but another place, mm. Common practice, no source. */
const MOST_GAP = 8;
/** A share of the outline this small may miss the surface: its edge is ragged. */
const MOST_BARE = 0.02;

export function refuse(p: P, models?: Models) {
  const gap = p.surface - p.height;
  const posts = isPosts(p) ? postsOf(p) : [];
  const [x, y] = isPosts(p) && posts.length === 0 ? [0, 0] : halvesOf(p);
  const out = holesOfText(p.holes).some(
    h => Math.abs(h.x) + h.diameter / 2 > x + p.beyond || Math.abs(h.y) + h.diameter / 2 > y + p.beyond,
  );
  const found = new Refusals<P>()
    .when(
      gap < 0.02,
      'height',
      'The foot is as high as the surface over it: it would have to go into it. Check the reading.',
      p.surface - 0.2,
    )
    .when(
      gap > MOST_GAP,
      'height',
      'The foot ends far below the surface. Check the reading.',
      p.surface - 0.2,
    )
    .when(
      isPosts(p) && posts.length === 0,
      'posts',
      'Say where the posts stand: to the right, to the back, diameter.',
    )
    .when(
      isPosts(p) && posts.some(h => h.diameter < 2),
      'posts',
      'A post thinner than 2 mm breaks in the print: make it thicker.',
    )
    .when(isPosts(p) && p.plate < 0.8, 'plate', 'Posts need a plate to stand on.', 3)
    .when(out, 'holes', 'A hole cuts the foot’s edge: move it inwards, or let the plate reach farther.')
    .when(
      p.plate > p.height - LEAST_HIGH,
      'plate',
      'The plate is as high as the foot: make it thinner.',
      Math.max(0, Math.min(3, p.height - 1.5)),
    );
  if (p.object === '') return found.when(true, 'object', 'Choose the scan of the surface, or its file.').list;
  if (!models || found.list.length > 0) return found.list;
  if (!laidObject(p, models))
    return found.when(true, 'object', 'The surface’s file is not at hand: take it in again.').list;
  const s = sizesOf(p, models);
  return found
    .when(
      s === null,
      'right',
      'No surface is over that place: move the foot, or lay the surface the other way.',
    )
    .when(
      s !== null && s.bare > MOST_BARE,
      p.form === 'posts' ? 'posts' : 'long',
      `${Math.round(100 * (s?.bare ?? 0))} % of the foot’s outline reaches beyond the scanned surface: make it smaller, or move it.`,
    )
    .when(
      s !== null && s.lowest < LEAST_HIGH,
      'height',
      `The surface comes down to ${(s?.lowest ?? 0).toFixed(1)} mm over what the foot stands on: there is no plastic left between them. Make the foot smaller, or move it.`,
    ).list;
}
