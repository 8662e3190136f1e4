import { useState } from 'react';
import styled from 'styled-components';
import { formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { type Gland, glandFor, type SealUse } from '../../core/shelf/o-rings';
import { Select, TextField } from '../ui/controls';
import { Notice, Panel, Stack } from '../ui/layout';
import { Facts, TwoColumns } from './calculator';

const USES: { value: SealUse; label: string }[] = [
  { value: 'static', label: 'round a plug or in a bore, at rest' },
  { value: 'face', label: 'pressed flat under a lid' },
  { value: 'moving', label: 'turned or pushed now and then' },
];

/** The groove for an O-ring's cord, drawn to scale. */
export function GrooveCalculator() {
  const [cord, setCord] = useState('2.62');
  const [use, setUse] = useState<SealUse>('static');
  const read = parseQuantity(cord, 'length');
  const answer = read.ok ? look(read.quantity.value, use) : null;
  return (
    <TwoColumns $left="320px">
      <Stack $gap={12}>
        <TextField
          label="Thickness of the cord, mm"
          value={cord}
          onChange={setCord}
          problem={!read.ok ? read.message : answer && 'problem' in answer ? answer.problem : undefined}
          autoComplete="off"
        />
        <Select label="How it seals" value={use} options={USES} onChange={u => setUse(u)} />
        <Notice level="note">
          Common practice, no source. A printed groove is rough and weeps: print it upright, sand or lacquer
          it, and test it under water before anything depends on it.
        </Notice>
      </Stack>
      <Panel aria-live="polite">
        {read.ok && answer && 'depth' in answer ? (
          <>
            <Picture cord={read.quantity.value} gland={answer} />
            <Facts
              rows={[
                {
                  label: 'depth, floor to facing wall',
                  value: `${formatPlain(answer.depth.min)} to ${formatPlain(answer.depth.max)} mm`,
                  id: 'groove-depth',
                },
                { label: 'width', value: `${formatPlain(answer.width)} mm` },
                {
                  label: 'cord pressed by',
                  value: `${formatPlain(100 * answer.squeeze.least)} to ${formatPlain(100 * answer.squeeze.most)} %`,
                },
              ]}
            />
          </>
        ) : (
          <p className="soft">Type the cord’s thickness: the groove appears here.</p>
        )}
      </Panel>
    </TwoColumns>
  );
}

function look(cord: number, use: SealUse): Gland | { problem: string } {
  try {
    return glandFor(cord, use);
  } catch (error) {
    return { problem: (error as Error).message };
  }
}

function Picture({ cord, gland }: { cord: number; gland: Gland }) {
  const depth = (gland.depth.min + gland.depth.max) / 2;
  const scale = 150 / Math.max(cord * 1.2, gland.width);
  const [w, d] = [gland.width * scale, depth * scale];
  const squeezed = { rx: ((cord / 2) ** 2 / (depth / 2)) * scale, ry: d / 2 };
  return (
    <Svg viewBox="0 0 420 210" role="img" aria-label="The groove with its cord, to scale">
      <path d={`M20 30h380v-22h-380z`} className="wall" />
      <path d={`M20 30h${190 - w / 2}v${d}h${w}v${-d}h${190 - w / 2}v150h-380z`} className="wall" />
      <ellipse cx="210" cy={30 + d / 2} {...squeezed} className="cord" />
    </Svg>
  );
}

const Svg = styled.svg`
  width: 100%; max-width: 520px; display: block;
  .wall { fill: var(--clay); stroke: var(--ink); } .cord { fill: var(--blue-2); stroke: var(--ink); }
`;
