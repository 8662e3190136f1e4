import type { CheckContext } from '../../checks/context';
import { type Finding, finding } from '../../findings/finding';
import { centroidOf, volumeOf } from '../../mesh/mesh';
import type { BuiltSolid } from '../recipe';
import type { P } from './parameters';
import { footEdges, placeOf, sizesOf } from './sizes';

/** With a smaller angle a knock tips it over, degrees. Common practice, no source. */
const EASILY = 12;

export interface Tipping {
  forwards: number;
  backwards: number;
  sideways: number;
}

/**
 * How far it may be tilted before it falls, degrees: the angle at which the common centre of mass of part and slab is
 * above an edge of the foot, atan(distance to the edge / height). The part's own centre comes from its triangles.
 */
export function tippingOf(p: P, { mesh }: BuiltSolid, density: number): Tipping | null {
  const s = sizesOf(p);
  if (!s.foot) return null;
  const { at, up, out } = placeOf(s);
  const [along, off] = [p.slabHigh / 2, s.back + s.thick / 2];
  const slab = [0, 1, 2].map(i => at[i]! + along * up[i]! + off * out[i]!);
  const own = centroidOf(mesh);
  const [mass, weight] = [(volumeOf(mesh) / 1000) * density, p.slabWeight];
  const centre = own.map((x, i) => (mass * x + weight * slab[i]!) / (mass + weight));
  const { front, back } = footEdges(s);
  const angle = (away: number) => (Math.atan2(away, centre[2]!) * 180) / Math.PI;
  return {
    forwards: angle(centre[1]! - front),
    backwards: angle(back - centre[1]!),
    sideways: angle(s.width / 2 + s.wall - Math.abs(centre[0]!)),
  };
}

const LONGER = { forwards: 'footFront', backwards: 'footBehind', sideways: 'wall' } as const;

export function checkTipping(p: P, solid: BuiltSolid, context: CheckContext): Finding[] {
  const angles = tippingOf(p, solid, context.density);
  if (!angles) return [];
  const [way, least] = Object.entries(angles).sort((a, b) => a[1] - b[1])[0] as [keyof Tipping, number];
  const weight = p.slabWeight;
  const about = { parameter: LONGER[way] };
  const easily = least < EASILY;
  const level = least <= 0 ? 'stop' : easily ? 'warn' : 'note';
  return [finding('tips', level, { weight, towards: way, at: Math.max(0, least), easily }, about)];
}
