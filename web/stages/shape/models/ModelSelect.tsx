import { FileUp } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { z } from 'zod';
import { Model } from '../../../../core/job/document';
import { formatPlain } from '../../../../core/quantity/format';
import { preparedAs } from '../../../../core/work/scan-trust';
import { call } from '../../../api/client';
import { useBench } from '../../../job/bench-context';
import { useFollow } from '../../../scan/use-follow';
import { Button, Select } from '../../../ui/controls';
import { Notice } from '../../../ui/layout';

const NONE = 'none';
const UNITS: readonly { factor: Model['factor']; words: string }[] = [
  { factor: 1, words: 'millimetres' },
  { factor: 25.4, words: 'inches' },
  { factor: 10, words: 'centimetres' },
  { factor: 1000, words: 'metres' },
];
/** A neighbour outside these sizes in mm was more likely drawn in another unit. */
const USUAL = { least: 3, most: 1500 };

/** A scan of the job without a body is offered by its id after this prefix. */
const SCAN = 'scan ';

/** Which body from a file: those of the job, or a new one from STEP, STL, OBJ or 3MF. */
export function ModelSelect({
  label,
  value,
  onChange,
  follows = false,
}: {
  label: string;
  value: string;
  onChange(id: string): void;
  /** The part follows it: a scan is accepted. */
  follows?: boolean;
}) {
  const { document, edit } = useBench('document', 'edit');
  const following = useFollow();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const chosen = document.models.find(m => m.id === value);
  const scans = follows
    ? document.scans.filter(
        s => !document.models.some(m => m.from?.scan === s.id && m.from.prepared === preparedAs(s)),
      )
    : [];
  const old = scans.find(s => s.id === chosen?.from?.scan);
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    setProblem(null);
    try {
      const name = file.name.replace(/\.\w{1,5}$/, '').slice(0, 100);
      const path = `/models?label=${encodeURIComponent(name)}`;
      const { model } = await call('POST', path, z.object({ model: Model }), file as Blob);
      if (await edit({ kind: 'add-model', model })) onChange(model.id);
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <Whole>
      <Line>
        <Select
          label={label}
          value={chosen ? chosen.id : NONE}
          options={[
            { value: NONE, label: follows ? 'an example' : 'none yet' },
            ...document.models.map(m => ({ value: m.id, label: m.label })),
            ...scans.map(s => ({ value: SCAN + s.id, label: `scan: ${s.label}` })),
          ]}
          onChange={id => {
            const scan = scans.find(s => SCAN + s.id === id);
            if (scan) void following.follow(scan);
            else onChange(id === NONE ? '' : id);
          }}
        />
        <FileTrigger
          acceptedFileTypes={['.step', '.stp', '.stl', '.obj', '.3mf']}
          onSelect={files => void take(files?.[0])}
        >
          <Button $small isDisabled={busy || following.busy || document.models.length >= 20}>
            <FileUp size={15} />{' '}
            {busy ? 'Reading the file…' : following.busy ? 'Reading the scan…' : 'From a file'}
          </Button>
        </FileTrigger>
      </Line>
      {(problem ?? following.problem) ? <Notice level="stop">{problem ?? following.problem}</Notice> : null}
      {follows && scans.length === 0 && !chosen ? (
        <p className="soft">Take in a scan of it on Measure, under Scans, or its file here.</p>
      ) : null}
      {old ? (
        <Notice level="warn">
          The scan was prepared otherwise since this was taken from it.{' '}
          <Button $small isDisabled={following.busy} onPress={() => void following.follow(old)}>
            {following.busy ? 'Reading the scan…' : 'Take it again'}
          </Button>
        </Notice>
      ) : null}
      {chosen ? (
        <Facts
          model={chosen}
          onUnit={factor => void edit({ kind: 'model', modelId: chosen.id, change: { factor } })}
        />
      ) : null}
    </Whole>
  );
}

function Facts({ model, onUnit }: { model: Model; onUnit(factor: Model['factor']): void }) {
  const size = model.size.map(x => x * model.factor);
  const longest = Math.max(...size);
  const odd = longest < USUAL.least || longest > USUAL.most;
  return (
    <>
      <Line>
        <p>
          {size.map(x => formatPlain(x, 1)).join(' × ')} mm, {model.triangles.toLocaleString('en')} triangles
        </p>
        {model.from ? null : (
          <Select
            label="Its file is in"
            value={String(model.factor)}
            options={UNITS.map(u => ({ value: String(u.factor), label: u.words }))}
            onChange={text => onUnit(UNITS.find(u => String(u.factor) === text)!.factor)}
          />
        )}
      </Line>
      {odd ? (
        <Notice level="warn">
          Its longest side would be {formatPlain(longest, 1)} mm. Files do not say their unit: measure one
          side of the real thing and choose the unit that gives it.
        </Notice>
      ) : null}
      {model.hull ? (
        <Notice level="warn">
          Its surface has holes, so the hull around it stands in: hollows in it count as full.
        </Notice>
      ) : null}
    </>
  );
}

const Whole = styled.div`grid-column: 1 / -1; display: flex; flex-direction: column; gap: 6px;`;
const Line = styled.div`
  display: flex; gap: 12px; align-items: end; flex-wrap: wrap;
  > div { min-width: 200px; } p { font-size: 14px; color: var(--soft); margin: 0; padding-bottom: 8px; }
`;
