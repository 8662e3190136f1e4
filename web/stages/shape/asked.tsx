import styled from 'styled-components';
import { FONTS } from '../../ui/theme';

/** What is asked about a part, case by case: its loads, its neighbours. */
export const Head = styled.div`
  display: flex; align-items: center; gap: 12px;
  h2 { font: 600 17px ${FONTS.label}; margin: 0; } p { flex: 1; color: var(--soft); font-size: 14px; margin: 0; } button { margin-left: auto; }
`;
export const Case = styled.div`
  border-top: 1px solid var(--rule); margin-top: 8px; padding-top: 10px; display: flex; flex-direction: column; gap: 8px;
`;
export const Fields = styled.div`display: grid; grid-template-columns: repeat(auto-fill, minmax(170px, 1fr)); gap: 10px 14px;`;
