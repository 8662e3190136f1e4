import type { Finding } from '../../findings/finding';
import { Refusals } from '../fields';
import type { P } from './parameters';
import { type Sizes, sizesOf } from './sizes';

/** A knuckle narrower than this does not hold a pin, mm. Common practice, no source. */
const LEAST_KNUCKLE = 2;

export function refuse(p: P): Finding[] {
  const s = sizesOf(p);
  const r = new Refusals<P>();
  if (s.base) lug(r, p, s);
  else leaf(r, s);
  return r.list;
}

function leaf(r: Refusals<P>, s: Sizes): void {
  r.when(s.reach < s.barrel + 2, 'reach', 'The plate does not reach beyond the barrel.', s.barrel + 12)
    .when(
      s.holes > 0 && s.reach - s.barrel < 2 * s.screw + 2,
      'reach',
      'The screw holes do not fit on the plate: a longer plate.',
      s.barrel + 2 * s.screw + 4,
    )
    .when(
      s.holes > 0 && s.long / s.holes < 2 * s.screw + 1.5,
      'holes',
      'So many holes do not fit along the leaf: fewer, or a longer leaf.',
    )
    .when(
      s.axis < s.plate,
      'plate',
      'The plate is thicker than the pin is high: the barrel would sink into it.',
      s.axis - 0.2,
    );
  if (s.second)
    r.when(
      s.second.reach < s.barrel + 2 + (s.holes > 0 ? 2 * s.screw : 0),
      'reachB',
      'The second plate does not reach beyond the barrel, or has no room for its holes.',
      s.barrel + 2 * s.screw + 10,
    );
  if (s.knuckles) {
    const [from, to] = s.knuckles.at[0]!;
    const count = s.knuckles.at.length;
    const most = (s.long - count * LEAST_KNUCKLE) / (count - 1);
    r.when(
      to - from < LEAST_KNUCKLE,
      'gap',
      `Between so wide gaps the knuckles would be thinner than ${LEAST_KNUCKLE} mm: fewer knuckles, or a longer barrel.`,
      Math.floor(100 * most) / 100,
    );
  }
}

function lug(r: Refusals<P>, p: P, s: Sizes): void {
  const { long, wide, root } = s.base!;
  const beside = long / 2 - s.barrel - root;
  r.when(
    s.axis < s.plate + root + s.pin + 0.8,
    'pinHeight',
    'The pin lies so low that its bore cuts into the base or its fillets.',
    Math.ceil(100 * (s.plate + root + s.pin + 0.8)) / 100,
  )
    .when(
      beside < (s.holes > 0 ? 2 * s.screw + 2 : 1),
      'baseLong',
      'The base has no room beside the lug for its holes.',
      2 * (s.barrel + root + 2 * s.screw + 4),
    )
    .when(wide < s.long - 1e-6, 'baseWide', 'The base is narrower than the lug that stands on it.', s.long)
    .when(
      s.holes > 0 && wide / Math.ceil(s.holes / 2) < 2 * s.screw + 1.5,
      'baseWide',
      'So many holes do not fit across the base: a wider base, or fewer holes.',
      Math.ceil(s.holes / 2) * (p.screwHole + 3),
    );
}
