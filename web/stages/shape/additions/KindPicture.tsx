import type { ReactNode } from 'react';
import styled from 'styled-components';
import type { AdditionKindName } from '../../../../core/shape/additions/addition';

/** The effect of each addition, as a small section: the part in grey, what is added or removed in the working blue. */
const PICTURES: Record<AdditionKindName, ReactNode> = {
  shape: (
    <>
      <path className="part" d="M6 26h52v12H6z" />
      <path className="new" d="M24 12h16v14H24z" />
    </>
  ),
  hole: (
    <>
      <path className="part" d="M6 14h52v24H6z" />
      <path className="new" d="M24 14h16l-5 6v18h-6V20z" />
    </>
  ),
  slot: (
    <>
      <path className="part" d="M6 8h52v30H6z" />
      <path className="new" d="M20 19h24a4 4 0 0 1 0 8H20a4 4 0 0 1 0-8z" />
    </>
  ),
  band: (
    <>
      <path className="part" d="M18 6h28v34H18z" />
      <path className="new" d="M18 19h5v8h-5zM41 19h5v8h-5z" />
    </>
  ),
  thread: (
    <>
      <path className="part" d="M22 4h20v38H22z" />
      <path className="new" d="M22 6l-6 3 6 3v4l-6 3 6 3v4l-6 3 6 3M42 9l6 3-6 3v4l6 3-6 3v4l6 3-6 3" />
    </>
  ),
  draft: (
    <>
      <path className="part" d="M10 8h34v32H10z" />
      <path className="new" d="M44 8l10 0-10 32z" />
    </>
  ),
  tie: (
    <>
      <path className="part" d="M6 14h52v24H6z" />
      <path className="line" d="M20 10v10a4 4 0 0 0 4 4h16a4 4 0 0 0 4-4V10" />
    </>
  ),
  edges: (
    <>
      <path className="part" d="M8 38V22A14 14 0 0 1 22 8h34v30z" />
      <path className="line" d="M8 22A14 14 0 0 1 22 8" />
    </>
  ),
  flutes: (
    <>
      <circle className="part" cx="32" cy="23" r="16" />
      {Array.from({ length: 10 }, (_, i) => {
        const a = (i * Math.PI) / 5;
        return (
          <circle key={i} className="new" cx={32 + 16 * Math.cos(a)} cy={23 + 16 * Math.sin(a)} r="2.6" />
        );
      })}
    </>
  ),
  rib: (
    <>
      <path className="part" d="M8 6h8v24h40v8H8z" />
      <path className="new" d="M16 12l22 18H16z" />
    </>
  ),
  words: (
    <>
      <path className="part" d="M6 10h52v28H6z" />
      <path className="line" d="M19 31l5-14 5 14M21 26h6M36 17v14h4a4 4 0 0 0 0-7.5 3.3 3.3 0 0 0 0-6.5z" />
    </>
  ),
  'lead-in': (
    <>
      <path className="part" d="M8 8h14v30H8zM42 8h14v30H42z" />
      <path className="new" d="M22 8v10l-6-10zM42 8v10l6-10z" />
    </>
  ),
  'keep-clear': (
    <>
      <path className="part" d="M6 8h52v30H6z" />
      <path className="hatch" d="M28 8h22v16H28z" />
      <path className="line" d="M28 24L44 8M34 24L50 8M40 24l10-10" />
    </>
  ),
  'other-hand': (
    <>
      <path className="part" d="M8 10h8v18h10v10H8z" />
      <path className="new" d="M56 10h-8v18H38v10h18z" />
      <path className="dash" d="M32 5v36" />
    </>
  ),
  split: (
    <>
      <path className="part" d="M6 14h21v24H6zM37 14h21v24H37z" />
      <path className="new" d="M22 22h20v7H22z" />
      <path className="dash" d="M32 5v7M32 40v4" />
    </>
  ),
};

export const KindPicture = ({ kind }: { kind: AdditionKindName }) => (
  <Picture viewBox="0 0 64 46" aria-hidden>
    {PICTURES[kind]}
  </Picture>
);

const Picture = styled.svg`
  .part { fill: var(--rule); stroke: var(--soft); stroke-width: 1; }
  .new { fill: var(--blue); stroke: none; }
  .line { fill: none; stroke: var(--blue); stroke-width: 2.4; stroke-linecap: round; stroke-linejoin: round; }
  .hatch { fill: var(--sheet); stroke: var(--blue); stroke-width: 1.5; }
  .dash { fill: none; stroke: var(--ink); stroke-width: 1.2; stroke-dasharray: 3 2.5; }
`;
