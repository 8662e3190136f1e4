import styled from 'styled-components';
import type { Thumbnail } from '../../core/shape/drawing/thumbnail';

/** The part in small: cut faces in clay, mating surfaces in the working blue. Without a label it is decoration. */
export function PartThumbnail({ of, label }: { of: Thumbnail; label?: string }) {
  return (
    <Picture
      viewBox={of.viewBox}
      {...(label ? { role: 'img', 'aria-label': label } : { 'aria-hidden': true })}
    >
      {(['edge', 'cut', 'mate'] as const).flatMap(ink =>
        of[ink].map((d, i) => <path key={`${ink}${i}`} d={d} className={ink} />),
      )}
    </Picture>
  );
}

const Picture = styled.svg`
  path { vector-effect: non-scaling-stroke; stroke-linejoin: round; }
  .cut { fill: var(--clay); stroke: var(--ink); stroke-width: 1.4; }
  .edge { fill: var(--clay); stroke: var(--ink); stroke-width: 1.2; }
  .mate { fill: none; stroke: var(--blue); stroke-width: 3; }
`;
