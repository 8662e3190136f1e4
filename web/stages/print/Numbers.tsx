import styled from 'styled-components';

/** A version's numbers: each surface's name, its size, and how likely it is right. */
export const Numbers = styled.ul`
  list-style: none; margin: 10px 0; padding: 0;
  li { display: grid; grid-template-columns: 1fr auto 92px; gap: 12px; padding: 5px 0; border-top: 1px solid var(--rule); align-items: baseline; }
  li > :last-child { text-align: right; font-size: 14px; }
`;
