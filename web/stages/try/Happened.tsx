import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import type { Happening } from '../../../core/job/history/try';
import { HAPPENING_WORDS, HAPPENINGS, type HappeningKind } from '../../../core/learn/happened';
import { isBreak } from '../../../core/work/after-happening';
import { TextField } from '../../ui/controls';
import { Panel, Row, Stack } from '../../ui/layout';
import { FONTS } from '../../ui/theme';
import { Words } from './choices';

interface Props {
  happened: readonly Happening[];
  onChange(happened: Happening[]): void;
}

const YES_NO = [
  { id: 'yes', word: 'yes' },
  { id: 'no', word: 'no' },
] as const;

/** What went wrong besides how the surfaces feel; none of it is a matter of size. */
export function Happened({ happened, onChange }: Props) {
  const set = (what: HappeningKind, change: Partial<Happening>) =>
    onChange(happened.map(h => (h.what === what ? { ...h, ...change } : h)));
  return (
    <Panel>
      <h3 id="happened">Did anything else happen?</h3>
      <Chips
        aria-labelledby="happened"
        selectionMode="multiple"
        selectedKeys={happened.map(h => h.what)}
        onSelectionChange={keys => {
          const chosen = HAPPENINGS.filter(what => keys.has(what));
          onChange(
            chosen.map(what => happened.find(h => h.what === what) ?? { what, where: '', originalToo: null }),
          );
        }}
      >
        {HAPPENINGS.map(what => (
          <ToggleButton key={what} id={what}>
            {HAPPENING_WORDS[what]}
          </ToggleButton>
        ))}
      </Chips>
      <Stack $gap={10}>
        {happened
          .filter(h => isBreak(h.what))
          .map(h => (
            <Row key={h.what} $wrap $gap={16} style={{ alignItems: 'flex-end' }}>
              <div style={{ flex: '1 1 260px' }}>
                <TextField
                  label={`Where, when ${HAPPENING_WORDS[h.what]}?`}
                  placeholder="at the root of the left lug, on pushing it home"
                  value={h.where}
                  onChange={where => set(h.what, { where: where.slice(0, 200) })}
                />
              </div>
              <Words
                says="Did the original break there too?"
                label="the original too?"
                value={h.originalToo === null ? undefined : h.originalToo ? 'yes' : 'no'}
                options={YES_NO}
                onChange={answer =>
                  set(h.what, { originalToo: answer === undefined ? null : answer === 'yes' })
                }
              />
            </Row>
          ))}
      </Stack>
    </Panel>
  );
}

const Chips = styled(ToggleButtonGroup)`
  display: flex; flex-wrap: wrap; gap: 6px; margin: 8px 0;
  button {
    min-height: 34px; padding: 4px 12px; border: 1px solid var(--rule); border-radius: 17px; background: var(--raised);
    color: var(--ink); cursor: pointer; font: 14px ${FONTS.text};
  }
  button[data-selected] { border-color: var(--danger); background: var(--danger-tint); font-weight: 600; }
`;
