import { Download } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { parseQuantity } from '../../../core/quantity/parse';
import { fileFrom, ServerSaid, Unreachable } from '../../api/client';
import { useBench } from '../../job/bench-context';
import { Button, Select, TextField } from '../../ui/controls';
import { Notice } from '../../ui/layout';
import { saveFile } from '../../ui/save-file';

/** The part in several sizes at once: spacers between two stock sizes, a set of plugs. */
export function FamilyPanel() {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={event => setOpen(event.currentTarget.open)}>
      <summary>A family of sizes</summary>
      {open ? <Family /> : null}
    </details>
  );
}

function Family() {
  const { job, resolved } = useBench('job', 'resolved');
  const { recipe, parameters, part } = resolved;
  const lengths = recipe.parameters.filter(p => p.kind === 'length' && (p.shown?.(parameters) ?? true));
  const [name, setName] = useState(lengths[0]?.name ?? '');
  const [fields, setFields] = useState({ from: '', to: '', step: '' });
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const spec = lengths.find(p => p.name === name) ?? lengths[0];
  if (!spec) return null;
  const kind = spec.kind === 'length' ? (spec.measure ?? 'length') : 'length';
  const value = (key: keyof typeof fields) => {
    const typed = parseQuantity(
      fields[key],
      kind,
      kind === 'angle' ? 'deg' : kind === 'count' ? 'none' : 'mm',
    );
    return typed.ok ? typed.quantity.value : Number.NaN;
  };
  const [from, to, step] = [value('from'), value('to'), value('step')];
  const count = step > 0 && to >= from ? Math.floor((to - from) / step + 1e-6) + 1 : null;
  const take = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const query = new URLSearchParams({
        parameter: spec.name,
        from: String(from),
        to: String(to),
        step: String(step),
      });
      await download(`/jobs/${job.id}/parts/${part.id}/family.3mf?${query}`);
    } catch (error) {
      if (!(error instanceof ServerSaid) && !(error instanceof Unreachable)) throw error;
      setProblem(error.message);
    }
    setBusy(false);
  };
  const unit = kind === 'length' ? ', mm' : kind === 'angle' ? ', °' : '';
  const field = (key: keyof typeof fields, label: string) => (
    <TextField
      label={`${label}${unit}`}
      value={fields[key]}
      onChange={text => setFields(now => ({ ...now, [key]: text }))}
      problem={
        fields[key] !== '' && Number.isNaN(value(key)) ? 'Give a number, such as 22 or 22.5.' : undefined
      }
    />
  );
  return (
    <>
      <Line>
        <Select
          label="They differ in"
          value={spec.name}
          options={lengths.map(p => ({ value: p.name, label: p.label }))}
          onChange={setName}
        />
        {field('from', 'Smallest')}
        {field('to', 'Largest')}
        {field('step', 'Step')}
      </Line>
      <Line>
        <Button isDisabled={count === null || busy} onPress={() => void take()}>
          <Download size={16} aria-hidden />
          {busy ? 'Building them…' : count === null ? 'As one 3MF' : `${count} parts as one 3MF`}
        </Button>
      </Line>
      {problem ? <Notice level="stop">{problem}</Notice> : null}
    </>
  );
}

/** A refusal comes as words, not as a file. */
async function download(path: string): Promise<void> {
  const { content, name } = await fileFrom('GET', path);
  saveFile(name ?? 'family.3mf', content);
}

const Line = styled.div`
  display: grid; grid-template-columns: repeat(auto-fill, minmax(178px, 1fr)); gap: 12px 16px; margin-top: 12px; align-items: start;
  button { justify-self: start; }
`;
