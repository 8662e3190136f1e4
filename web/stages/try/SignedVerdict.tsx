import { ToggleButton } from 'react-aria-components';
import type { SignedMate } from '../../../core/job/document';
import { JUDGED_WORDS, type JudgedBy, unitOfKind } from '../../../core/learn/signed';
import { Select, TextField } from '../../ui/controls';
import { MarkShape, Panel, Row } from '../../ui/layout';
import { Extra, Verdicts } from './FitVerdict';
import { type MateDraft, WAYS, type Way } from './try-draft';

const BY: Record<'mm' | 'deg', JudgedBy[]> = {
  mm: ['eye', 'paper', 'feeler', 'caliper'],
  deg: ['eye', 'protractor', 'caliper'],
};

interface Props {
  mate: Pick<SignedMate, 'id' | 'name' | 'kind' | 'sense' | 'tolerance'>;
  model: number;
  draft: MateDraft;
  problem?: string;
  onChange(change: Partial<MateDraft>): void;
}

/**
 * How far off a length, a position, an angle or an edge is: in which direction, by how much, and how that was judged.
 */
export function SignedVerdict({ mate, model, draft, problem, onChange }: Props) {
  const unit = unitOfKind(mate.kind);
  const suffix = unit === 'deg' ? '°' : ' mm';
  const { min, max } = mate.tolerance;
  const words: Record<Way, string> = { less: mate.sense.less, right: 'just right', more: mate.sense.more };
  const off = draft.way !== undefined && draft.way !== 'right';
  return (
    <Panel data-mate={mate.id}>
      <Row $between>
        <h3 id={`verdict-${mate.id}`}>{mate.name}</h3>
        <span className="soft" style={{ fontSize: 14 }}>
          right from {min} to {max}
          {suffix}, drawn <span className="number">{model.toFixed(2)}</span>
          {suffix}
        </span>
      </Row>
      <Verdicts
        $columns={3}
        aria-labelledby={`verdict-${mate.id}`}
        selectionMode="single"
        selectedKeys={draft.way ? [draft.way] : []}
        onSelectionChange={keys => onChange({ way: [...keys][0] as Way | undefined })}
      >
        {WAYS.map(way => (
          <ToggleButton
            key={way}
            id={way}
            data-next
            data-mark={way === 'right' ? 'right' : way === 'more' ? 'tight' : 'loose'}
          >
            {way === 'right' ? (
              <svg width="26" height="15" viewBox="0 0 24 14" aria-hidden>
                <MarkShape mark="right" />
              </svg>
            ) : (
              <Arrow more={way === 'more'} />
            )}
            {words[way]}
          </ToggleButton>
        ))}
      </Verdicts>
      {draft.way ? (
        <Extra>
          {off ? (
            <TextField
              label={`By about,${suffix}`}
              placeholder={unit === 'deg' ? '3' : '0.4'}
              value={draft.amount}
              onChange={amount => onChange({ amount })}
              problem={problem}
            />
          ) : null}
          <Select
            label="Judged"
            value={draft.amountBy}
            options={BY[unit].map(value => ({ value, label: JUDGED_WORDS[value] }))}
            onChange={amountBy => onChange({ amountBy })}
          />
        </Extra>
      ) : null}
    </Panel>
  );
}

/** A mark above a line, or below it: more than wanted, less than wanted. */
const Arrow = ({ more }: { more: boolean }) => (
  <svg width="26" height="15" viewBox="0 0 24 14" aria-hidden>
    <path d="M1 7h22" stroke="var(--soft)" strokeDasharray="3 2" />
    <rect x="7" y={more ? 1 : 7} width="10" height="6" fill={more ? 'var(--tight)' : 'var(--loose)'} />
  </svg>
);
