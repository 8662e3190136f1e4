import { MousePointerClick, Plus } from 'lucide-react';
import styled from 'styled-components';
import { ulid } from 'ulid';
import type { PartLoad } from '../../../../core/job/document';
import { formatPlain } from '../../../../core/quantity/format';
import { FORCES, readLoad } from '../../../../core/quantity/load';
import { parseQuantity } from '../../../../core/quantity/parse';
import { sectionInWords } from '../../../../core/shape/checks/loads';
import type { Finding } from '../../../../core/shape/findings/finding';
import type { LoadResult } from '../../../../core/shape/strength/loads';
import { type Bench, useBench } from '../../../job/bench-context';
import { CommittedField } from '../../../ui/CommittedField';
import { Button, Hinted, IconButton, Select } from '../../../ui/controls';
import { Notice, Panel } from '../../../ui/layout';
import { useLatestList } from '../../../ui/use-latest-list';
import { usePicking } from '../additions/picking';
import { Case, Fields, Head } from '../asked';
import { CaseName, RemoveCase } from '../CaseFields';
import { FACES, TOWARDS } from '../directions';

const TURNS = [
  { amount: 0.5, words: 'two fingers turn' },
  { amount: 2, words: 'a hand turns' },
  { amount: 8, words: 'a hand with a key' },
];

/** A pull may be given in kilograms or in words; a torque is a number of N·m. */
function readAmount(text: string, turn: boolean): { amount: number } | { problem: string } {
  if (turn) {
    const typed = parseQuantity(text, 'count');
    if (!typed.ok) return { problem: typed.message };
    const amount = typed.quantity.value;
    return amount >= 0 && amount <= 100_000 ? { amount } : { problem: 'From 0 to 100 000 N·m.' };
  }
  const load = readLoad(text);
  return load.ok ? { amount: load.newtons } : { problem: load.message };
}

/** The loads of the part, asked in words; the section that fails first, and what helps. */
export function LoadsPanel({
  results,
  findings,
}: {
  results: readonly LoadResult[] | null;
  findings: readonly Finding[];
}) {
  const { resolved, edit, document } = useBench('resolved', 'edit', 'document');
  const { part, demands } = resolved;
  const list = useLatestList(part.loads, loads => void edit({ kind: 'part-loads', partId: part.id, loads }));
  const said = document.brief.loads.find(l => !part.loads.some(own => own.words === l.words));
  const add = () =>
    list.add({
      id: ulid(),
      words: said?.words ?? 'a hand pulls on it',
      kind: 'force',
      amount: said?.forceN ?? 60,
      towards: 'underside',
      at: 'top',
      held: surfacesOf(resolved)[0]?.value ?? 'underside',
    });
  return (
    <Panel style={{ marginTop: 12 }} aria-label="What it must bear">
      <Head>
        <h2>What it must bear</h2>
        {part.loads.length === 0 ? (
          <p>
            {said
              ? `The brief says “${said.words}”: say where it acts, and the weakest section is found.`
              : 'A hand, a bag, a wave: say where it acts, and the weakest section is found.'}
          </p>
        ) : null}
        <Button $small onPress={add} isDisabled={part.loads.length >= 10}>
          <Plus size={15} /> Add a load
        </Button>
      </Head>
      {part.loads.map(load => (
        <Load
          key={load.id}
          load={load}
          result={results?.find(r => r.id === load.id) ?? null}
          times={demands.margin.times}
          findings={findings.filter(f => f.load === load.id)}
          onChange={change => list.change(load.id, change)}
          onRemove={() => list.remove(load.id)}
        />
      ))}
    </Panel>
  );
}

function Load({
  load,
  result,
  times,
  findings,
  onChange,
  onRemove,
}: {
  load: PartLoad;
  result: LoadResult | null;
  times: number;
  findings: readonly Finding[];
  onChange(change: Partial<PartLoad>): void;
  onRemove(): void;
}) {
  const turn = load.kind === 'turn';
  const unit = turn ? 'N·m' : 'N';
  const usual = turn ? TURNS : FORCES;
  const known = usual.find(u => u.amount === load.amount);
  return (
    <Case data-about={load.id}>
      <Fields>
        <CaseName
          label="In words"
          value={load.words}
          empty="Say what it is."
          onCommit={words => onChange({ words })}
        />
        <Select
          label="It"
          value={load.kind}
          options={[
            { value: 'force', label: 'pulls or pushes' },
            { value: 'turn', label: 'turns' },
          ]}
          onChange={kind => onChange(kind === load.kind ? {} : { kind, amount: kind === 'turn' ? 2 : 60 })}
        />
        <Select
          label="About as much as"
          value={known ? String(known.amount) : 'own'}
          options={[
            ...usual.map(u => ({
              value: String(u.amount),
              label: `${u.words}, ${formatPlain(u.amount)} ${unit}`,
            })),
            { value: 'own', label: 'a number of my own' },
          ]}
          onChange={value =>
            onChange({ amount: value === 'own' ? load.amount + (known ? 1 : 0) : Number(value) })
          }
        />
        <CommittedField
          label={`Number, ${unit}`}
          value={formatPlain(load.amount, 3)}
          check={text => {
            const read = readAmount(text, turn);
            return 'problem' in read ? read.problem : undefined;
          }}
          onCommit={text => {
            const read = readAmount(text, turn);
            if ('amount' in read) onChange({ amount: read.amount });
          }}
        />
        <Select
          label={turn ? 'About the way' : 'Towards'}
          value={load.towards}
          options={[...TOWARDS]}
          onChange={towards => onChange({ towards })}
        />
        <Where
          label="It acts in the middle of"
          name={`at-${load.id}`}
          value={load.at}
          onChange={at => onChange({ at })}
        />
        <Where
          label="The part is held at"
          name={`held-${load.id}`}
          value={load.held}
          onChange={held => onChange({ held })}
        />
        <RemoveCase name={load.words} onPress={onRemove} />
      </Fields>
      {result?.weakest && findings.every(f => f.code !== 'too-weak') ? (
        <Notice level="note">
          Strong enough: {sectionInWords(result.weakest)} bears {formatPlain(1 / result.weakest.use, 1)} times
          this load; {formatPlain(times, 1)} times is wanted.
        </Notice>
      ) : null}
      {findings.map((f, i) => (
        <Notice key={i} level={f.level}>
          {f.message}
        </Notice>
      ))}
      {result?.weakest && result.remedies.length > 1 && findings.some(f => f.code === 'too-weak') ? (
        <Helps>
          Or:{' '}
          {result.remedies
            .slice(1)
            .map(r => `${r.words} (${formatPlain(r.gain, 1)} times)`)
            .join('; ')}
          .
        </Helps>
      ) : null}
    </Case>
  );
}

/** A face in words, a mate, or a press on the part. */
/** The part's current mating surfaces: a load may act on them, or be held there. */
const surfacesOf = ({ recipe, parameters }: Bench['resolved']) =>
  recipe.mates
    .filter(m => m.active(parameters))
    .map(m => ({ value: `mate ${m.id}`, label: m.name.toLowerCase() }));

/** A place that is not in the list: a face pressed on the solid, or a surface that a choice removed. */
function elsewhere({ recipe }: Bench['resolved'], place: string): string {
  const mate = recipe.mates.find(m => place === `mate ${m.id}`);
  return mate ? `${mate.name.toLowerCase()}, not on the part now` : place;
}

function Where({
  label,
  name,
  value,
  onChange,
}: {
  label: string;
  name: string;
  value: string;
  onChange(value: string): void;
}) {
  const { resolved } = useBench('resolved');
  const { asking, ask } = usePicking();
  const waiting = asking === name;
  const options = [...FACES, ...surfacesOf(resolved)];
  return (
    <Pick>
      <Select
        label={label}
        value={value}
        options={
          options.some(o => o.value === value)
            ? options
            : [...options, { value, label: elsewhere(resolved, value) }]
        }
        onChange={onChange}
      />
      <Hinted hint={waiting ? 'Leave it as it is' : 'Press on the part instead'}>
        <IconButton
          aria-label={`${label}: press on the part`}
          aria-pressed={waiting}
          onPress={() => (waiting ? ask(null) : ask(name, onChange))}
        >
          <MousePointerClick size={17} />
        </IconButton>
      </Hinted>
    </Pick>
  );
}

const Helps = styled.p`font-size: 14px; color: var(--soft); margin: 0;`;
const Pick = styled.div`
  position: relative; min-width: 0;
  > button:last-child { position: absolute; right: 0; top: -6px; }
  > button[aria-pressed='true'] { color: var(--blue); background: var(--tint); }
`;
