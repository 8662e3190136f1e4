import { useState } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { fitOf, ISO_286, limitsOf } from '../../core/shelf/iso286/limits';
import { sourceLine } from '../../core/shelf/table';
import { TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { Facts, TwoColumns } from './calculator';

interface Band {
  name: string;
  upper: number;
  lower: number;
}

/** Limits of ISO 286 at a size, drawn to scale, compared with filament prints. */
export function FitCalculator() {
  const [size, setSize] = useState('25');
  const [spelled, setSpelled] = useState('H7/g6');
  const read = parseQuantity(size, 'length');
  const answer = read.ok ? look(read.quantity.value, spelled) : null;
  return (
    <TwoColumns $left="320px">
      <Stack $gap={12}>
        <TextField
          label="Size, mm"
          value={size}
          onChange={setSize}
          problem={read.ok ? undefined : read.message}
          autoComplete="off"
        />
        <TextField
          label="Class or fit"
          value={spelled}
          onChange={setSpelled}
          hint="H7 for a hole, g6 for a shaft, H7/g6 for both"
          problem={answer && 'problem' in answer ? answer.problem : undefined}
          autoComplete="off"
          spellCheck="false"
        />
        <Notice level="note">
          Filament prints do not hold these: a tenth or two is what they scatter. Use a class to read a bought
          part’s limits, and a want on Fit for what you print.
        </Notice>
      </Stack>
      <Panel aria-live="polite">
        {answer && 'bands' in answer ? (
          <>
            <Picture bands={answer.bands} />
            <Facts
              rows={[
                ...answer.bands.map(b => ({
                  label: b.name,
                  value: `${signed(b.upper)} / ${signed(b.lower)} mm`,
                  id: `limits-${b.name}`,
                })),
                ...(answer.clearance
                  ? [
                      {
                        label: 'clearance, whole diameter',
                        value: `${signed(answer.clearance.min)} to ${signed(answer.clearance.max)} mm`,
                        id: 'clearance',
                      },
                    ]
                  : []),
              ]}
            />
            <p className="soft" style={{ fontSize: 12.5 }}>
              {sourceLine(ISO_286)}
            </p>
          </>
        ) : (
          <p className="soft">Type a size and a class: its limits appear here.</p>
        )}
      </Panel>
    </TwoColumns>
  );
}

function look(
  size: number,
  spelled: string,
): { bands: Band[]; clearance?: { min: number; max: number } } | { problem: string } {
  try {
    if (!spelled.includes('/')) return { bands: [{ name: spelled.trim(), ...limitsOf(size, spelled) }] };
    const { hole, shaft, clearance } = fitOf(size, spelled);
    const [h, s] = spelled.split('/').map(part => part.trim());
    return {
      bands: [
        { name: h!, ...hole },
        { name: s!, ...shaft },
      ],
      clearance,
    };
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

const signed = (value: number) => (value > 0 ? '+' : value < 0 ? '−' : '') + formatPlain(Math.abs(value), 4);

/** The bands about the nominal line, to scale. */
function Picture({ bands }: { bands: readonly Band[] }) {
  const reach = 1.2 * Math.max(...bands.flatMap(b => [Math.abs(b.upper), Math.abs(b.lower)]), 0.001);
  const y = (value: number) => 100 - (value / reach) * 80;
  return (
    <Svg viewBox="0 0 420 200" role="img" aria-label="The limits about the nominal size">
      <line x1="20" x2="400" y1="100" y2="100" className="nominal" />
      <text x="24" y="95">
        nominal
      </text>
      {bands.map((b, i) => (
        <g key={b.name}>
          <rect
            x={130 + 130 * i}
            width="80"
            y={y(b.upper)}
            height={Math.max(2, y(b.lower) - y(b.upper))}
            className={i === 0 ? 'first' : 'second'}
          />
          <text x={170 + 130 * i} y={Math.min(y(b.upper) - 7, 192)} textAnchor="middle">
            {b.name}
          </text>
        </g>
      ))}
    </Svg>
  );
}

const Svg = styled.svg`
  width: 100%; max-width: 520px; display: block;
  .nominal { stroke: var(--ink); stroke-dasharray: 12 3 3 3; } .first { fill: var(--blue-2); } .second { fill: var(--clay); stroke: var(--ink); }
  text { font: 500 14px ${FONTS.label}; fill: var(--ink); }
`;
