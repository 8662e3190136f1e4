import styled from 'styled-components';
import { FONTS } from '../ui/theme';

/** Styles of the ledger's rows, for every kind of mate. */

export const Line = styled.button`
  width: 100%; display: flex; justify-content: space-between; align-items: baseline; gap: 10px; padding: 9px 18px; border: 0;
  border-top: 1px solid var(--rule); background: transparent; color: var(--ink); text-align: left; cursor: pointer; font-size: 15px;
  &:hover { background: var(--tint); }
  &[data-on] { background: var(--tint); }
  &[data-mate] { border-top-style: dotted; padding-left: 30px; }
  &:focus-visible { outline-offset: -2px; }
  > :first-child { min-width: 0; overflow-wrap: anywhere; }
  > :last-child { white-space: nowrap; }
  [data-shaky] { color: var(--loose); }
`;

export const MateBox = styled.div`
  &[data-open] { background: var(--raised); border-top: 2px solid var(--blue); border-bottom: 2px solid var(--blue); }
  &[data-open] > button { border-top: 0; font-weight: 600; padding-left: 18px; }
`;

export const Total = styled.div`
  border-top: 1px solid var(--ink); margin-top: 4px; padding-top: 6px; display: flex; justify-content: space-between; align-items: baseline;
  strong { font: 600 24px ${FONTS.number}; color: var(--blue); }
`;
