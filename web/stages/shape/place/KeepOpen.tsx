import { Plus, Scissors } from 'lucide-react';
import { ulid } from 'ulid';
import type { OpenZone } from '../../../../core/job/document';
import type { Finding } from '../../../../core/shape/findings/finding';
import type { Bounds } from '../../../../core/shape/mesh/mesh';
import { AXIS_OF, SIDES, type Side } from '../../../../core/shape/sides';
import { clearOfZone } from '../../../../core/work/keep-clear';
import { useBench } from '../../../job/bench-context';
import { Button, Select } from '../../../ui/controls';
import { Notice } from '../../../ui/layout';
import { SizeField } from '../../../ui/SizeField';
import { useLatestList } from '../../../ui/use-latest-list';
import { Case, Fields, Head } from '../asked';
import { CaseName, RemoveCase, withText } from '../CaseFields';
import { useKeepClear } from './use-keep-clear';

/** Stretches of an edge that must stay open: buttons, a plug, a screw that must be reached. */
export function KeepOpen({ findings, bounds }: { findings: readonly Finding[]; bounds: Bounds | null }) {
  const { resolved, edit } = useBench('resolved', 'edit');
  const { part } = resolved;
  const list = useLatestList(
    part.keepOpen,
    keepOpen => void edit({ kind: 'part-keep-open', partId: part.id, keepOpen }),
  );
  const add = () =>
    list.add({ id: ulid(), name: 'buttons', edge: 'right', end: 'front', from: 10, to: 25, deep: 5 });
  return (
    <>
      <Head style={{ marginTop: 14 }}>
        <h3>What stays open along its edges</h3>
        {part.keepOpen.length === 0 ? (
          <p>Buttons, a plug, a screw: a stretch of an edge, counted from one end.</p>
        ) : null}
        <Button $small onPress={add} isDisabled={part.keepOpen.length >= 20}>
          <Plus size={15} /> Keep a stretch open
        </Button>
      </Head>
      {part.keepOpen.map(zone => (
        <Zone
          key={zone.id}
          zone={zone}
          findings={findings.filter(f => f.neighbour === zone.id)}
          bounds={bounds}
          onChange={change => list.change(zone.id, change)}
          onRemove={() => list.remove(zone.id)}
        />
      ))}
    </>
  );
}

function Zone({
  zone,
  findings,
  bounds,
  onChange,
  onRemove,
}: {
  zone: OpenZone;
  findings: readonly Finding[];
  bounds: Bounds | null;
  onChange(change: Partial<OpenZone>): void;
  onRemove(): void;
}) {
  const { resolved } = useBench('resolved');
  const keepClear = useKeepClear();
  const endsOf = (edge: Side) => SIDES.filter(side => AXIS_OF[side] !== AXIS_OF[edge]);
  const field = (label: string, key: 'from' | 'to' | 'deep') => (
    <SizeField
      label={label}
      value={zone[key]}
      text={zone.texts?.[key]}
      lookup={resolved.numberNamed}
      least={key === 'deep' ? 0.1 : 0}
      most={2000}
      onCommit={(value, text) => {
        onChange({ [key]: value, texts: withText(zone.texts, key, text) });
      }}
    />
  );
  return (
    <Case data-about={zone.id}>
      <Fields>
        <CaseName
          label="What is there"
          value={zone.name}
          empty="Give it a name."
          onCommit={name => onChange({ name })}
        />
        <Select
          label="Along the edge"
          value={zone.edge}
          options={SIDES.map(value => ({ value, label: value }))}
          onChange={edge =>
            onChange({ edge, ...(AXIS_OF[edge] === AXIS_OF[zone.end] ? { end: endsOf(edge)[0]! } : {}) })
          }
        />
        <Select
          label="Counted from the end"
          value={zone.end}
          options={endsOf(zone.edge).map(value => ({ value, label: value }))}
          onChange={end => onChange({ end })}
        />
        {field('From', 'from')}
        {field('To', 'to')}
        {field('How far in', 'deep')}
        <RemoveCase name={zone.name} onPress={onRemove} />
      </Fields>
      {findings.map((f, i) => (
        <Notice
          key={i}
          level={f.level}
          action={
            f.code === 'zone-closed' && bounds ? (
              <Button
                $small
                onPress={() => void keepClear(`Open for ${zone.name}`, clearOfZone(zone, bounds))}
              >
                <Scissors size={15} /> Open it
              </Button>
            ) : undefined
          }
        >
          {f.message}
        </Notice>
      ))}
    </Case>
  );
}
