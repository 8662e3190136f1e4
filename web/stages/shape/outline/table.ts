import styled from 'styled-components';
import { fieldBox } from '../../../ui/controls';
import { FONTS } from '../../../ui/theme';

/** What the tables of corners and of holes share. */
export const Field = styled.section`display: flex; flex-direction: column; gap: 8px; grid-column: 1 / -1; min-width: 0;`;
export const Grid = styled.div<{ $columns: string }>`
  display: grid; grid-template-columns: ${p => p.$columns}; gap: 5px 6px; min-width: min-content; align-items: start;
`;
export const Head = styled.span`font: 600 12.5px ${FONTS.label}; color: var(--soft);`;
export const Cell = styled.input`
  ${fieldBox} min-height: 34px; padding: 3px 8px; min-width: 58px; font-family: ${FONTS.number}; font-size: 14px;
  &:focus { outline: 2px solid var(--blue); border-color: var(--blue); }
`;
export const Problem = styled.p`color: var(--danger); font-size: 13.5px;`;
