import styled from 'styled-components';
import { formatPlain } from '../../../core/quantity/format';
import { deviationColour } from '../../../core/scan/against-part';

/** The end of the scale: a round number that all but the worst places stay within, mm. */
const SCALES = [0.1, 0.2, 0.5, 1, 2, 5];
/** @param p95 95 % of the places are nearer than this, mm */
export const scaleOf = (p95: number): number => SCALES.find(s => s >= p95) ?? SCALES.at(-1)!;

/** The colours' legend, beside the view that shows them. @param most the end of the scale, mm */
export function AgainstScale({ most }: { most: number }) {
  return (
    <div>
      <Scale aria-label={`Colours from ${most} mm inside to ${most} mm outside`}>
        {[-1, -0.5, 0, 0.5, 1].map(share => (
          <span key={share} style={{ background: cssColour(share, 1) }}>
            {share === 0 ? '0' : `${share < 0 ? '−' : '+'}${formatPlain(Math.abs(share) * most, 2)}`}
          </span>
        ))}
      </Scale>
      <p className="soft">mm; orange lies outside of the part, purple inside of it, grey was not compared.</p>
    </div>
  );
}

export const cssColour = (off: number, most: number): string =>
  `rgb(${deviationColour(off, most)
    .map(c => Math.round(255 * c))
    .join(' ')})`;

export const signed = (x: number, places = 3): string =>
  `${x < 0 ? '−' : '+'}${formatPlain(Math.abs(x), places)}`;

const Scale = styled.div`
  display: grid; grid-template-columns: repeat(5, 1fr); margin-top: 8px; border: 1px solid var(--rule); border-radius: 4px; overflow: hidden;
  span { padding: 4px 2px; text-align: center; font-size: 12.5px; color: #20262b; }
  span:first-child { color: #fff; }
`;
