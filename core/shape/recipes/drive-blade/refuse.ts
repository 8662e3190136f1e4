import type { Finding } from '../../findings/finding';
import { Refusals } from '../fields';
import type { P } from './parameters';
import { type Prism, sizesOf } from './sizes';

/** A maximum, rounded down to a hundredth: rounded up it would be refused again. */
const floored = (x: number) => Math.floor(100 * x) / 100;

/** From the axis to the farthest corner. */
const reachOf = ({ sides, thick, wide }: Prism) =>
  sides === 6 ? thick / Math.sqrt(3) : Math.hypot(wide, thick) / 2;

/** The widest prism of its kind in a round section, by the number that sets it. */
function mostIn({ sides, thick }: Prism, r: number): number {
  if (sides === 6) return floored(r * Math.sqrt(3));
  return sides === 4 ? floored(r * Math.SQRT2) : floored(Math.sqrt(Math.max(0, 4 * r ** 2 - thick ** 2)));
}

export function refuse(p: P): Finding[] {
  const s = sizesOf(p);
  const r = new Refusals<P>();
  const last = s.step ?? s.shank;
  const prism = (tip: Prism, under: number, suffix: '' | 'B', what: string) => {
    const blade = tip.sides === 2;
    r.when(
      blade && tip.wide < tip.thick,
      `bladeWidth${suffix}`,
      'The blade is thicker than wide: were the two readings swapped?',
      2 * tip.thick,
    ).when(
      reachOf(tip) > under + 1e-9,
      blade ? `bladeWidth${suffix}` : `thickness${suffix}`,
      `The tip’s corners stand out beyond ${what} and would not pass its bore.`,
      mostIn(tip, under),
    );
  };
  if (s.tip) prism(s.tip, last.r, '', s.step ? 'the second section' : 'the shank');
  if (s.other) prism(s.other, s.shank.r, 'B', 'the shank');
  if (s.head)
    r.when(
      s.head.across / 2 < s.shank.r + 0.6,
      'head',
      'The head must be wider than the shank.',
      2 * s.shank.r + 6,
    );
  if (s.fork)
    r.when(
      s.fork.slot > 2 * last.r - 2.4,
      'forkSlot',
      'The slot leaves no prongs: a thicker end, or was the wrong way measured?',
      2 * last.r - 2.4,
    );
  if (s.rib) {
    const most = s.shank.to - s.shank.from - s.shank.cone - 1;
    r.when(
      p.ribLength > most,
      'ribLength',
      'The rib is longer than the straight of the shank: at least 1 mm of it must stay round.',
      floored(most),
    )
      .when(
        s.rib.wide > 1.6 * s.shank.r,
        'ribWidth',
        'The rib is as wide as the shank: was a radius typed?',
        floored(s.shank.r),
      )
      .when(
        s.step !== null && s.step.r > s.shank.r + s.rib.out,
        'stepAcross',
        'The second section hides the rib: nothing could slide over it.',
        2 * s.shank.r,
      );
  }
  if (s.socket && s.head) {
    const { sides, across, long, deep } = s.socket;
    const corner =
      sides === 6
        ? across / Math.sqrt(3)
        : sides === 4
          ? across * Math.SQRT1_2
          : Math.hypot(across, long) / 2;
    r.when(
      sides === 2 && long < across,
      'socketLong',
      'The slot is shorter than wide: were the two readings swapped?',
      2 * across,
    )
      .when(
        corner > s.head.across / 2 - 1.2,
        sides === 2 ? 'socketLong' : 'socketSize',
        'The socket comes out of the head’s sides: a wider head.',
      )
      .when(
        deep > s.head.to + s.shank.cone / 2 - 1.2 && corner > s.shank.r - 1.2,
        'socketDepth',
        'The socket comes through the head beside the shank: less deep, or a higher head.',
        floored(Math.max(0.5, s.head.to - 1.2)),
      )
      .when(deep > s.top - 2, 'socketDepth', 'The socket goes through the whole key.', floored(s.head.to));
  }
  return r.list;
}
