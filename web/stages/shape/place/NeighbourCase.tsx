import { Scissors } from 'lucide-react';
import type { Neighbour } from '../../../../core/job/document';
import type { Finding } from '../../../../core/shape/findings/finding';
import { SIDES_DOWN, type SideDown } from '../../../../core/shape/model';
import { clearOfNeighbour } from '../../../../core/work/keep-clear';
import { useBench } from '../../../job/bench-context';
import { Button, Select } from '../../../ui/controls';
import { Notice } from '../../../ui/layout';
import { SizeField } from '../../../ui/SizeField';
import { Case, Fields } from '../asked';
import { CaseName, RemoveCase, withText } from '../CaseFields';
import { ModelSelect } from '../models/ModelSelect';
import { useKeepClear } from './use-keep-clear';

type Size = 'width' | 'depth' | 'height' | 'x' | 'y' | 'z' | 'room';

/** One neighbour: what it is, its size and its place. */
export function NeighbourCase({
  neighbour: n,
  findings,
  onChange,
  onRemove,
}: {
  neighbour: Neighbour;
  findings: readonly Finding[];
  onChange(change: Partial<Neighbour>): void;
  onRemove(): void;
}) {
  const { resolved } = useBench('resolved');
  const keepClear = useKeepClear();
  const field = (label: string, key: Size, least: number, most: number) => (
    <SizeField
      label={label}
      value={n[key]}
      text={n.texts?.[key]}
      lookup={resolved.numberNamed}
      least={least}
      most={most}
      onCommit={(value, text) => {
        const both = n.form === 'round' && key === 'width' ? { depth: value } : {};
        onChange({ [key]: value, ...both, texts: withText(n.texts, key, text) });
      }}
    />
  );
  const size = (label: string, key: 'width' | 'depth' | 'height') => field(label, key, 0.1, 2000);
  const at = (label: string, key: 'x' | 'y' | 'z') => field(label, key, -2000, 2000);
  return (
    <Case data-about={n.id}>
      <Fields>
        <CaseName
          label="What it is"
          value={n.name}
          empty="Give it a name."
          onCommit={name => onChange({ name })}
        />
        <Select
          label="Form"
          value={n.form}
          options={[
            { value: 'box', label: 'a box' },
            { value: 'round', label: 'round, upright' },
            { value: 'model', label: 'a body from a file' },
          ]}
          onChange={form => onChange(form === 'round' ? { form, depth: n.width } : { form })}
        />
        {n.form === 'model' ? (
          <FromFile neighbour={n} onChange={onChange} />
        ) : (
          <>
            {n.form === 'box' ? size('To the right', 'width') : size('Diameter', 'width')}
            {n.form === 'box' ? size('To the back', 'depth') : null}
            {size('High', 'height')}
          </>
        )}
        {at('Middle, to the right', 'x')}
        {at('Middle, to the back', 'y')}
        {at('Underside, up', 'z')}
        {field('Room, each side', 'room', 0, 200)}
        <RemoveCase name={n.name} onPress={onRemove} />
      </Fields>
      {findings.map((f, i) => (
        <Notice key={i} level={f.level}>
          {f.message}
        </Notice>
      ))}
      {n.form !== 'model' || n.model ? (
        <div>
          <Button
            $small
            $look="quiet"
            onPress={() => void keepClear(`Room for ${n.name}`, clearOfNeighbour(n))}
          >
            <Scissors size={15} /> Cut its room out of the part
          </Button>
        </div>
      ) : null}
    </Case>
  );
}

/** A body from a file and its orientation. */
function FromFile({
  neighbour: n,
  onChange,
}: {
  neighbour: Neighbour;
  onChange(change: Partial<Neighbour>): void;
}) {
  return (
    <>
      <ModelSelect label="Body" value={n.model ?? ''} onChange={model => onChange({ model })} />
      <Select
        label="It lies"
        value={n.lies ?? 'drawn'}
        options={Object.entries(SIDES_DOWN).map(([value, label]) => ({ value: value as SideDown, label }))}
        onChange={lies => onChange({ lies })}
      />
      <SizeField
        label="Turned, from above"
        angle
        value={n.turn ?? 0}
        least={-360}
        most={360}
        onCommit={turn => onChange({ turn })}
      />
    </>
  );
}
