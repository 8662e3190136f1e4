import { DIRECTIONS } from '../shape/additions/place';
import { negated } from '../shape/vector';
import { AS_DRAWN, isSameDirection, type Pose } from './pose';

/** A pose in the maker's words: by what lies on the bed. */
export function poseInWords({ down, turn }: Pose): string {
  const turned = turn % 90 === 0 ? '' : `, turned by ${Math.round(turn)}°`;
  if (isSameDirection(down, AS_DRAWN.down)) return `as drawn${turned}`;
  if (isSameDirection(down, negated(AS_DRAWN.down))) return `turned over${turned}`;
  const side = Object.keys(DIRECTIONS).find(k => isSameDirection(DIRECTIONS[k]!, down));
  return `${side ? `on its ${side}` : 'on a slanting face'}${turned}`;
}
