import { formatLength, formatPlain } from '../../../core/quantity/format';
import { adviceOn } from '../../../core/shape/recipes/advice';
import { type ParameterSpec, usualText } from '../../../core/shape/recipes/parameters';
import { wordOf } from '../../../core/work/parameters';
import { useBench } from '../../job/bench-context';
import { CommittedField } from '../../ui/CommittedField';
import { Checkbox, Select } from '../../ui/controls';
import { QuantityField } from '../../ui/QuantityField';
import { PlaceField } from './additions/PlaceField';
import { ModelSelect } from './models/ModelSelect';
import { HolesField } from './outline/HolesField';
import { OutlineField } from './outline/OutlineField';

/** One number or choice of the part, or of an addition; identified by its name. */
export function ParameterField({ spec }: { spec: ParameterSpec }) {
  return (
    <div data-about={spec.name} style={{ display: 'contents' }}>
      <FieldOf spec={spec} />
    </div>
  );
}

function FieldOf({ spec }: { spec: ParameterSpec }) {
  const { resolved, edit, draft, selected } = useBench('resolved', 'edit', 'draft', 'selected');
  const { part, parameters, expressions, problems, provisional, recipe } = resolved;
  const set = (text: string | null) =>
    void edit({
      kind: 'parameter',
      partId: part.id,
      name: spec.name,
      expression: text === null ? null : { text, unit: 'none' },
    });
  const value = parameters[spec.name]!;
  if (spec.kind === 'choice')
    return (
      <Select
        label={spec.label}
        value={spec.ask && !part.parameters[spec.name] ? '' : String(value)}
        placeholder="not said yet"
        options={[...spec.options]}
        onChange={set}
      />
    );
  if (spec.kind === 'flag') {
    return (
      <div style={{ paddingTop: 24 }}>
        <Checkbox isSelected={value === true} onChange={on => set(wordOf(on))}>
          {spec.label}
        </Checkbox>
      </div>
    );
  }
  if (spec.kind === 'outline') return <OutlineField spec={spec} />;
  if (spec.kind === 'holes') return <HolesField spec={spec} />;
  if (spec.kind === 'place') return <PlaceField spec={spec} />;
  if (spec.kind === 'words')
    return (
      <CommittedField
        label={spec.label}
        value={String(value)}
        check={text => (text.length > spec.most ? `At most ${spec.most} letters.` : undefined)}
        onCommit={set}
      />
    );
  if (spec.kind === 'model')
    return (
      <ModelSelect
        label={spec.label}
        value={expressions[spec.name]?.text ?? ''}
        onChange={text => set(text === '' ? null : text)}
        follows={spec.surface ?? false}
      />
    );
  if (spec.kind === 'surface')
    return (
      <Select
        label={spec.label}
        value={String(value)}
        options={[
          { value: '', label: 'the first round one' },
          ...recipe.mates
            .filter(m => m.form !== 'flats' && m.active(parameters))
            .map(m => ({ value: m.id, label: m.name })),
        ]}
        onChange={set}
      />
    );
  const mate = recipe.mates.find(m => m.parameter === spec.name);
  return (
    <QuantityField
      label={spec.label}
      kind={spec.measure ?? 'length'}
      expression={expressions[spec.name] ?? { text: usualText(spec, parameters), unit: 'mm' }}
      understood={spec.measure ? formatPlain(value as number, 2) : formatLength(value as number, 'mm', 2)}
      problem={problems[spec.name]}
      provisional={provisional.has(spec.name)}
      advice={adviceOn(spec, value)}
      lit={selected !== null && (selected === spec.name || mate?.id === selected)}
      onDraft={expression => draft(spec.name, expression)}
      onCommit={expression => void edit({ kind: 'parameter', partId: part.id, name: spec.name, expression })}
      onReset={part.parameters[spec.name] ? () => set(null) : undefined}
    />
  );
}
