import styled from 'styled-components';
import type { Version } from '../../../core/job/history';
import { formatLength, formatPlain } from '../../../core/quantity/format';
import { changedNumbers, type NumberChange } from '../../../core/shape/compare';
import { type Parameters, unitOf } from '../../../core/shape/recipes/parameters';
import type { Recipe } from '../../../core/shape/recipes/recipe';
import { Select } from '../../ui/controls';
import { Notice, Panel, Row } from '../../ui/layout';
import type { useCompare } from './use-compare';

interface Props {
  versions: readonly Version[];
  chosen: Version | null;
  onChoose(id: string | null): void;
  recipe: Recipe;
  parameters: Parameters;
  compared: ReturnType<typeof useCompare>;
}

const NONE = 'none';

/** Differences to an earlier version: on the solid, and number by number. */
export function ComparePanel({ versions, chosen, onChoose, recipe, parameters, compared }: Props) {
  const changes = chosen ? changedNumbers(recipe, parameters, chosen.parameters) : [];
  const { change, failed, busy } = compared;
  return (
    <Panel style={{ marginTop: 12 }}>
      <Row $gap={12} $wrap>
        <strong>Compare with</strong>
        <div style={{ width: 210 }}>
          <Select
            label="Compare with a version"
            hideLabel
            value={chosen?.id ?? NONE}
            options={[
              { value: NONE, label: 'no version' },
              ...versions.toReversed().map(v => ({ value: v.id, label: `version ${v.number}` })),
            ]}
            onChange={id => onChoose(id === NONE ? null : id)}
          />
        </div>
        {busy ? <span className="soft">Comparing…</span> : null}
        {change ? (
          <span data-testid="compared">
            <Dot $colour="right" /> grown {formatPlain((change.grown?.volume ?? 0) / 1000, 3)} cm³{'  '}
            <Dot $colour="loose" /> shrunk {formatPlain((change.shrunk?.volume ?? 0) / 1000, 3)} cm³
          </span>
        ) : null}
      </Row>
      {failed ? (
        <div style={{ marginTop: 8 }}>
          <Notice level="warn">That version’s solid cannot be made any more: {failed[0]?.message}</Notice>
        </div>
      ) : null}
      {chosen ? (
        changes.length === 0 ? (
          <p className="soft" style={{ marginTop: 8 }}>
            Every number is as it was in version {chosen.number}.
          </p>
        ) : (
          <Table>
            <tbody>
              {changes.map(c => (
                <tr key={c.spec.name}>
                  <th scope="row">{c.spec.label}</th>
                  <td className="number">{shown(c, c.before)}</td>
                  <td className="number">{shown(c, c.now)}</td>
                  <td className="number">{difference(c)}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )
      ) : null}
    </Panel>
  );
}

function shown({ spec }: NumberChange, value: NumberChange['now']): string {
  if (spec.kind === 'length')
    return `${spec.measure ? formatPlain(value as number, 2) : formatLength(value as number)}${unitOf(spec)}`;
  if (spec.kind === 'choice') return spec.options.find(o => o.value === value)?.label ?? String(value);
  if (spec.kind === 'flag') return value === true ? 'yes' : 'no';
  return spec.kind === 'outline' ? 'another outline' : String(value) || 'none';
}

function difference({ spec, before, now }: NumberChange): string {
  if (spec.kind !== 'length') return '';
  const by = (now as number) - (before as number);
  return `${by > 0 ? '+' : '−'}${spec.measure ? formatPlain(Math.abs(by), 2) : formatLength(Math.abs(by))}${unitOf(spec)}`;
}

const Dot = styled.span<{ $colour: string }>`
  display: inline-block; width: 11px; height: 11px; border-radius: 2px; margin: 0 5px -1px 10px; background: var(--${p => p.$colour});
`;
const Table = styled.table`
  margin-top: 10px; border-collapse: collapse; width: 100%; max-width: 640px; font-size: 14px;
  th { text-align: left; font-weight: 400; } td { text-align: right; padding-left: 18px; white-space: nowrap; }
  tr { border-top: 1px solid var(--rule); } th, td { padding-top: 4px; padding-bottom: 4px; }
  td:nth-child(2) { color: var(--soft); }
`;
