import styled from 'styled-components';
import { FONTS } from './theme';

/** A file to take away, as a button. */
export const FileLink = styled.a`
  display: inline-flex; align-items: center; gap: 6px; min-height: 32px; padding: 0 11px; border: 1px solid var(--blue); border-radius: 4px; text-decoration: none;
  font: 600 14px ${FONTS.text}; background: var(--sheet);
  &:hover { background: var(--tint); }
`;
