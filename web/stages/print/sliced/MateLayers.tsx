import { useState } from 'react';
import styled from 'styled-components';
import { ROLES, type Role } from '../../../../core/print/gcode/file';
import type { MateInFile } from '../../../../core/print/gcode/mates-in-file';
import { formatPlain } from '../../../../core/quantity/format';

/** How each line is drawn, by its purpose; others are thin. */
const DRAWN: Partial<Record<Role, { colour: string; words: string }>> = {
  outer: { colour: 'var(--blue)', words: 'outermost pass' },
  inner: { colour: 'var(--blue-2)', words: 'further passes' },
  support: { colour: 'var(--danger)', words: 'support' },
};

/** Layers around one surface, as they will be printed. */
export function MateLayers({ mate, name, width }: { mate: MateInFile; name: string; width: number }) {
  const [k, setK] = useState(Math.floor(mate.layers.length / 2));
  const layer = mate.layers[k];
  if (!layer) return null;
  const reach = Math.max(...layer.lines.map(Math.abs), 1) + width;
  const known = new Set(Array.from(layer.roles, r => ROLES[r]!));
  return (
    <Box>
      <svg
        viewBox={`${-reach} ${-reach} ${2 * reach} ${2 * reach}`}
        role="img"
        aria-label={`Layer at ${formatPlain(layer.z, 2)} mm about “${name}”`}
      >
        {/* The bed's y runs upwards. */}
        <g transform="scale(1 -1)" strokeLinecap="round">
          {Array.from(layer.roles, (role, i) => {
            const drawn = DRAWN[ROLES[role]!];
            const [x1, y1, x2, y2] = layer.lines.slice(4 * i, 4 * i + 4);
            return (
              <line
                key={i}
                x1={x1}
                y1={y1}
                x2={x2}
                y2={y2}
                stroke={drawn?.colour ?? 'var(--soft)'}
                strokeWidth={drawn ? 0.8 * width : 0.3 * width}
              />
            );
          })}
        </g>
      </svg>
      <label>
        <span>
          {formatPlain(layer.z, 2)} mm above the bed, {k + 1} of {mate.layers.length}
        </span>
        <input
          type="range"
          min={0}
          max={mate.layers.length - 1}
          value={k}
          aria-label={`Layer about ${name}`}
          onChange={event => setK(Number(event.target.value))}
        />
      </label>
      <ul>
        {Object.entries(DRAWN).map(([role, { colour, words }]) =>
          known.has(role as Role) ? (
            <li key={role}>
              <i style={{ background: colour }} /> {words}
            </li>
          ) : null,
        )}
      </ul>
    </Box>
  );
}

const Box = styled.div`
  display: grid; grid-template-columns: minmax(0, 240px) minmax(0, 1fr); gap: 6px 14px; align-items: center; padding: 6px 0; font-size: 14px;
  svg { grid-row: span 2; width: 100%; aspect-ratio: 1; background: var(--raised); border: 1px solid var(--rule); border-radius: 4px; }
  label { display: flex; flex-direction: column; gap: 4px; } input { width: 100%; accent-color: var(--blue); }
  ul { list-style: none; margin: 0; padding: 0; color: var(--soft); } li { display: flex; gap: 7px; align-items: center; }
  i { width: 16px; height: 4px; border-radius: 2px; }
`;
