import styled from 'styled-components';
import { parseQuantity } from '../../core/quantity/parse';
import type { QuantityKind } from '../../core/quantity/units';
import { FONTS } from '../ui/theme';

/** Shared by the shelf's calculators: a typed number, and answers as labelled lines. */
export function numberOf(
  text: string,
  kind: QuantityKind,
): { value: number; problem?: undefined } | { value: null; problem: string } {
  const typed = parseQuantity(text, kind);
  return typed.ok ? { value: typed.quantity.value } : { value: null, problem: typed.message };
}

export function Facts({ rows }: { rows: readonly { label: string; value: string; id?: string }[] }) {
  return (
    <Lines>
      {rows.map(row => (
        <div key={row.label}>
          <dt>{row.label}</dt>
          <dd data-testid={row.id}>{row.value}</dd>
        </div>
      ))}
    </Lines>
  );
}

/** Inputs on the left, results on the right. */
export const TwoColumns = styled.div<{ $left?: string }>`
  display: grid; grid-template-columns: minmax(0, ${p => p.$left ?? '1.2fr'}) minmax(0, 1fr); gap: 22px; align-items: start;
  @media (max-width: 760px) { grid-template-columns: minmax(0, 1fr); }
`;
/** Number fields side by side. */
export const FieldGrid = styled.div`display: grid; grid-template-columns: repeat(auto-fit, minmax(190px, 1fr)); gap: 10px; align-items: start;`;
const Lines = styled.dl`
  margin: 0 0 10px; max-width: 560px;
  > div { display: flex; gap: 12px; justify-content: space-between; border-top: 1px solid var(--rule); padding: 6px 0; align-items: baseline; }
  > div:first-child { border-top: 0; }
  dd { margin: 0; font: 600 16px ${FONTS.number}; text-align: right; }
`;
