import { Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { type Link, stack } from '../../core/fit/chain';
import { formatPercent, formatPlain } from '../../core/quantity/format';
import { parseQuantity } from '../../core/quantity/parse';
import { Button, IconButton, Select, TextField } from '../ui/controls';
import { Notice, Panel, Row, Stack } from '../ui/layout';
import { FONTS } from '../ui/theme';
import { TwoColumns } from './calculator';

interface Line {
  id: number;
  name: string;
  value: string;
  tolerance: string;
  sign: '+' | '-';
}

const FIRST: Line[] = [
  { id: 1, name: 'box, inside', value: '50', tolerance: '0.2', sign: '+' },
  { id: 2, name: 'first spacer', value: '20', tolerance: '0.1', sign: '-' },
  { id: 3, name: 'second spacer', value: '29.5', tolerance: '0.1', sign: '-' },
];
const MOST = 20;

/** Sizes that stack: the remaining gap, at worst and statistically. */
export function StackCalculator() {
  const [lines, setLines] = useState(FIRST);
  const change = (id: number, to: Partial<Line>) =>
    setLines(all => all.map(l => (l.id === id ? { ...l, ...to } : l)));
  const read = lines.map(readLine);
  const bad = read.find(r => 'problem' in r);
  const links = read.flatMap(r => ('link' in r ? [r.link] : []));
  const chain = bad || links.length === 0 ? null : stack(links);
  return (
    <TwoColumns $left="1.4fr">
      <Stack $gap={8}>
        <p className="soft">
          What stacks in one direction: plus what makes the gap larger, minus what fills it. An example stands
          here; type your own.
        </p>
        {lines.map((line, i) => {
          const problem = 'problem' in read[i]! ? read[i].problem : undefined;
          return (
            <Item key={line.id}>
              <Tail>
                <Select
                  label={`Sign of ${line.name || `line ${i + 1}`}`}
                  hideLabel
                  value={line.sign}
                  options={[
                    { value: '+', label: '+' },
                    { value: '-', label: '−' },
                  ]}
                  onChange={sign => change(line.id, { sign })}
                />
              </Tail>
              <TextField
                label="Name"
                value={line.name}
                onChange={name => change(line.id, { name })}
                maxLength={60}
              />
              <TextField
                label="Size, mm"
                value={line.value}
                onChange={value => change(line.id, { value })}
                problem={problem}
              />
              <TextField
                label="give or take"
                value={line.tolerance}
                onChange={tolerance => change(line.id, { tolerance })}
              />
              <Tail>
                <IconButton
                  aria-label={`Remove ${line.name || `line ${i + 1}`}`}
                  isDisabled={lines.length === 1}
                  onPress={() => setLines(all => all.filter(l => l.id !== line.id))}
                >
                  <Trash2 size={16} />
                </IconButton>
              </Tail>
            </Item>
          );
        })}
        <Row>
          <Button
            $small
            isDisabled={lines.length >= MOST}
            onPress={() =>
              setLines(all => [
                ...all,
                { id: 1 + Math.max(...all.map(l => l.id)), name: '', value: '', tolerance: '0.1', sign: '-' },
              ])
            }
          >
            <Plus size={15} /> Another
          </Button>
        </Row>
      </Stack>
      <Panel aria-live="polite">
        {chain ? (
          <>
            <p className="soft">What is left</p>
            <Result data-testid="stacked">{formatPlain(chain.value, 3)} mm</Result>
            <p>
              at worst {formatPlain(chain.value - chain.worst, 3)} to{' '}
              {formatPlain(chain.value + chain.worst, 3)} mm
            </p>
            <p>
              as chance has it {formatPlain(chain.value - 2 * chain.u, 3)} to{' '}
              {formatPlain(chain.value + 2 * chain.u, 3)} mm (95 %)
            </p>
            {chain.value - chain.worst < 0 ? (
              <div style={{ marginTop: 8 }}>
                <Notice level="warn">
                  At worst nothing is left: it will not go together every time. Take the one with the largest
                  share first.
                </Notice>
              </div>
            ) : null}
            <h2 style={{ marginTop: 14 }}>Whose doubt it is</h2>
            {links.map((link, i) => (
              <Share key={lines[i]!.id}>
                <span>{link.name}</span>
                <i style={{ width: `${100 * chain.shares[i]!}%` }} />
                <b>{formatPercent(chain.shares[i]!)}</b>
              </Share>
            ))}
          </>
        ) : (
          <p className="soft">Fill in every size: what is left appears here.</p>
        )}
      </Panel>
    </TwoColumns>
  );
}

function readLine(line: Line): { link: Link } | { problem: string } {
  const value = parseQuantity(line.value, 'length');
  const tolerance = parseQuantity(line.tolerance || '0', 'length');
  if (!value.ok) return { problem: value.message };
  if (!tolerance.ok) return { problem: `give or take: ${tolerance.message}` };
  if (tolerance.quantity.value < 0) return { problem: 'give or take is 0 or more' };
  return {
    link: {
      name: line.name || 'without a name',
      value: value.quantity.value,
      tolerance: tolerance.quantity.value,
      // “Give or take” is a rectangular distribution, like an instrument's error.
      u: tolerance.quantity.value / Math.sqrt(3),
      sign: line.sign === '+' ? 1 : -1,
    },
  };
}

const Item = styled.div`
  display: grid; grid-template-columns: 70px minmax(0, 1.6fr) minmax(0, 1fr) minmax(0, 1fr) 34px; gap: 8px; align-items: start; padding-top: 6px; border-top: 1px solid var(--rule);
`;
const Tail = styled.div`padding-top: 25px;`;
const Result = styled.p`font: 600 26px ${FONTS.number}; margin: 2px 0 6px;`;
const Share = styled.div`
  display: grid; grid-template-columns: minmax(0, 1fr) 110px 56px; gap: 8px; align-items: center; font-size: 14px; padding: 3px 0;
  span { overflow-wrap: anywhere; } i { height: 10px; background: var(--blue-2); border-radius: 2px; min-width: 2px; } b { font: 13px ${FONTS.number}; text-align: right; }
`;
