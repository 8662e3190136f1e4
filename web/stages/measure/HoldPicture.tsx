import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { Dimension } from '../../../core/job/document';
import type { Hold } from '../../../core/shape/recipes/recipe';

const PICTURES: Record<Hold, { name: string; drawn: ReactNode }> = {
  'outside-jaws': {
    name: 'Outside jaws closed on the object',
    drawn: (
      <>
        <circle cx="56" cy="56" r="19" className="object" />
        <path className="tool" d="M16 10h80v11h-15v52l-6-8v-44h-38v44l-6 8V21H16z" />
      </>
    ),
  },
  'jaw-tips': {
    name: 'Tips of the outside jaws in a groove',
    drawn: (
      <>
        <path className="object" d="M34 34h44v12h-7v12h7v20H34V58h7V46h-7z" />
        <path className="tool" d="M12 8h88v10H86v38l-15-3v-4h10V18H31v31h10v4l-15 3V18H12z" />
      </>
    ),
  },
  'inside-jaws': {
    name: 'Inside jaws opened in a bore',
    drawn: (
      <>
        <path className="object" d="M14 34h18v44H14zM80 34h18v44H80z" />
        <path className="tool" d="M20 10h72v11H78l2 34h-5l-6-34H43l-6 34h-5l2-34H20z" />
      </>
    ),
  },
  'depth-rod': {
    name: 'Depth rod let down from the edge',
    drawn: (
      <>
        <path className="object" d="M10 34h34v34h24V34h34v46H10z" />
        <path className="tool" d="M30 8h40v26H30zM54 34h5v34h-5z" />
      </>
    ),
  },
  step: {
    name: 'Beam across the edge, measuring a step',
    drawn: (
      <>
        <path className="object" d="M10 66h26V32h40v34h26v14H10z" />
        <path className="tool" d="M30 14h62v18H30zM84 32h5v34h-5z" />
      </>
    ),
  },
  span: {
    name: 'Jaw tips over several turns of a thread, ridge to ridge',
    drawn: (
      <>
        <path className="object" d="M8 78V50l8-8 8 8 8-8 8 8 8-8 8 8 8-8 8 8 8-8 8 8 8-8 8 8v28z" />
        <path className="tool" d="M14 6h84v10H86l-5 27-3-27H34l-3 27-5-27H14z" />
      </>
    ),
  },
  protractor: {
    name: 'Protractor laid on both edges',
    drawn: (
      <>
        <path className="object" d="M10 76h92v6H10zM12 74 82 24l4 5L20 76z" />
        <path className="tool" d="M14 74a44 44 0 0 1 80-2h-9a35 35 0 0 0-62 2z" />
      </>
    ),
  },
  tape: {
    name: 'Tape once round the outside',
    drawn: (
      <>
        <circle cx="56" cy="44" r="24" className="object" />
        <path className="tool" d="M56 14a30 30 0 1 0 30 30h-4a26 26 0 1 1-26-26zM56 14h34v8H56z" />
      </>
    ),
  },
};

/** How to hold the instrument, drawn plainly. */
export function HoldPicture({ hold }: { hold: Hold }) {
  const { name, drawn } = PICTURES[hold];
  return (
    <Picture viewBox="0 0 112 84" role="img" aria-label={name}>
      {drawn}
    </Picture>
  );
}

const BY_KIND: Record<Dimension['kind'], { hold: Hold; how: string }> = {
  outside: { hold: 'outside-jaws', how: 'Outside jaws square to it; close until they just drag.' },
  inside: {
    hold: 'inside-jaws',
    how: 'Inside jaws opened until they just touch; rock them and keep the largest.',
  },
  depth: { hold: 'depth-rod', how: 'Beam flat on the edge, let the rod down to the bottom.' },
  step: { hold: 'step', how: 'Beam flat on the upper face, let the rod down to the lower one.' },
  length: { hold: 'outside-jaws', how: 'Jaws on both ends, the beam along what is measured.' },
  angle: { hold: 'protractor', how: 'Both legs flat on their edges; read before lifting it off.' },
};

/** For a dimension of the maker's own: by its kind and its name. */
export function holdFor({ kind, name }: Pick<Dimension, 'kind' | 'name'>): { hold: Hold; how: string } {
  if (/_span$/.test(name)) {
    return {
      hold: 'span',
      how: 'From a ridge to the same place on another, over as many turns as the jaws reach; count the turns between.',
    };
  }
  if (/_around$/.test(name)) {
    return {
      hold: 'tape',
      how: 'Tape once round, square to the axis, pulled snug; read where it meets itself.',
    };
  }
  return BY_KIND[kind];
}

const Picture = styled.svg`
  width: 112px; height: 84px; flex: none;
  .object { fill: var(--clay); stroke: var(--ink); stroke-width: 1.3; }
  .tool { fill: var(--soft); fill-rule: evenodd; }
`;
