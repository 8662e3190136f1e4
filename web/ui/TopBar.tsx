import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { ThemeKey } from './ThemeKey';
import { FONTS } from './theme';

/** Over the pages that are not a job. */
export function TopBar({ children }: { children?: ReactNode }) {
  return (
    <Bar>
      <NavLink to="/" className="name">
        Sagoma
      </NavLink>
      <nav>
        <NavLink to="/" end>
          Rack
        </NavLink>
        <NavLink to="/queue">Printers</NavLink>
        <NavLink to="/shelf">Shelf</NavLink>
        <NavLink to="/workshop">Workshop</NavLink>
      </nav>
      <span className="tools">
        <ThemeKey />
        {children}
      </span>
    </Bar>
  );
}

const Bar = styled.header`
  background: var(--blue); color: var(--on-blue); height: 56px; display: flex; align-items: center; padding: 0 22px; gap: 30px;
  a { color: inherit; text-decoration: none; opacity: 0.86; font-size: 15.5px; }
  a.active { opacity: 1; font-weight: 600; }
  .name { font: 600 22px ${FONTS.label}; opacity: 1; }
  nav { display: flex; gap: 26px; align-self: stretch; }
  nav a { display: flex; align-items: center; border-bottom: 3px solid transparent; border-top: 3px solid transparent; }
  nav a.active { border-bottom-color: currentColor; }
  .tools { margin-left: auto; display: flex; align-items: center; gap: 14px; }
  .tools button { color: inherit; }
  .tools button[data-hovered]:has(svg) { background: transparent; }
  .tools > button:not(:has(svg)) { background: var(--sheet); color: var(--blue); border-color: var(--sheet); }
  a:focus-visible, button:focus-visible { outline-color: currentColor; }
  @media (max-width: 700px) { gap: 14px; padding: 0 12px; .tools { gap: 4px; } input { width: 110px; } }
`;
