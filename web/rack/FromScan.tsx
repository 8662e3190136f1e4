import { ScanLine } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { becomes, wordsFor } from '../../core/scan/find/become';
import { MOST_BYTES } from '../../core/scan/scan-file';
import type { ScanUnit } from '../../core/scan/unit';
import { RECIPES, recipeById } from '../../core/shape/recipes';
import { followedBy } from '../scan/take-surface';
import { UNIT_NAMES } from '../scan/units';
import { useScan } from '../scan/use-scan';
import { Button, Select } from '../ui/controls';
import { Notice } from '../ui/layout';
import type { ShownFinding } from '../workers/scan-protocol';

/** These accept any surface. */
const FOLLOW = RECIPES.filter(followedBy);

/** The chosen scan, for the new job. */
export interface ScanForJob {
  file: File;
  unit: ScanUnit;
  findings: ShownFinding[];
}

interface Props {
  onScan(scan: ScanForJob | null): void;
  recipe: string;
  onRecipe(id: string): void;
}

/** A job may begin with a scan: what is found on it suggests recipes. */
export function FromScan({ onScan, recipe, onRecipe }: Props) {
  const [file, setFile] = useState<File | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  return (
    <Box>
      <Head>
        <b>Begin with a scan of it</b>
        <input
          ref={input}
          type="file"
          accept=".stl,.obj,.ply,.off,.3mf"
          aria-label="Scan to begin with"
          tabIndex={-1}
          onChange={event => {
            const chosen = event.target.files?.[0] ?? null;
            onScan(null);
            const isLarge = chosen !== null && chosen.size > MOST_BYTES;
            setProblem(isLarge ? `It is larger than ${MOST_BYTES / 1e6} MB: export it coarser.` : null);
            setFile(isLarge ? null : chosen);
          }}
        />
        <Button $small onPress={() => input.current?.click()}>
          <ScanLine size={16} /> {file ? 'Another scan' : 'Choose its file'}
        </Button>
        {file ? (
          <>
            <span className="name">{file.name}</span>
            <Button
              $small
              $look="quiet"
              onPress={() => {
                setFile(null);
                onScan(null);
                if (input.current) input.current.value = '';
              }}
            >
              Without it
            </Button>
          </>
        ) : (
          <span className="soft">or choose a recipe and measure with calipers</span>
        )}
      </Head>
      {problem ? <Notice level="stop">{problem}</Notice> : null}
      {file ? (
        <Chosen
          key={`${file.name} ${file.size}`}
          file={file}
          onScan={onScan}
          recipe={recipe}
          onRecipe={onRecipe}
        />
      ) : null}
    </Box>
  );
}

function Chosen({ file, onScan, recipe, onRecipe }: Props & { file: File }) {
  const from = useMemo(() => ({ file }), [file]);
  const [unit, setUnit] = useState<ScanUnit>('mm');
  const { shown, problem, busy, ask } = useScan({ from, unit, steps: [] });
  const [findings, setFindings] = useState<ShownFinding[] | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  // The worker belongs to the scan that is shown: it is asked once for each scan.
  const [searched, setSearched] = useState<unknown>(null);
  useEffect(() => {
    if (!shown || searched === shown) return;
    setSearched(shown);
    setFindings(null);
    if (!shown.hasSurface) {
      setFindings([]);
      onScan({ file, unit, findings: [] });
      return;
    }
    void ask((api, progress) => api.find(progress)).then(reply => {
      if (!reply) return;
      if (!reply.ok) return setFailed(reply.message);
      setFindings(reply.findings);
      onScan({ file, unit, findings: reply.findings });
      const [first] = becomes(reply.findings);
      if (first) onRecipe(first.recipe);
    });
  }, [shown, searched, ask, onScan, onRecipe, file, unit]);
  if (problem ?? failed) return <Notice level="stop">{problem ?? failed}</Notice>;
  const side = (i: 0 | 1 | 2) => (shown ? (shown.bounds.max[i] - shown.bounds.min[i]).toFixed(1) : '');
  const suspicion = shown?.before.unitSuspicion;
  const could = findings ? becomes(findings).slice(0, 6) : [];
  return (
    <div>
      <p role="status">
        {shown ? (
          <>
            <span className="number">
              {side(0)} × {side(1)} × {side(2)} mm
            </span>
            {findings && wordsFor(findings) ? `: ${wordsFor(findings)}.` : ''}
          </>
        ) : null}{' '}
        {busy ? `${busy.what}… ${busy.share > 0 ? `${Math.round(100 * busy.share)} %` : ''}` : null}
      </p>
      {suspicion && suspicion.unit !== 'mm' && unit === 'mm' ? (
        <Notice level="warn">{suspicion.reason}</Notice>
      ) : null}
      <Choices>
        <div style={{ width: 150 }}>
          <Select<ScanUnit>
            label="Unit of its numbers"
            value={unit}
            options={UNIT_NAMES}
            onChange={setUnit}
          />
        </div>
        {could.length > 0 || findings ? (
          <div>
            <b>It could become</b>
            <span>
              {could.map(b => (
                <Button
                  key={b.recipe}
                  $small
                  $look={b.recipe === recipe ? 'main' : undefined}
                  aria-pressed={b.recipe === recipe}
                  onPress={() => onRecipe(b.recipe)}
                >
                  {recipeById(b.recipe)?.title}, {b.takes.length} {b.takes.length === 1 ? 'size' : 'sizes'}
                </Button>
              ))}
              {shown?.hasSurface
                ? FOLLOW.map(r => (
                    <Button
                      key={r.id}
                      $small
                      $look={r.id === recipe ? 'main' : undefined}
                      aria-pressed={r.id === recipe}
                      onPress={() => onRecipe(r.id)}
                    >
                      {r.title}
                    </Button>
                  ))
                : null}
            </span>
          </div>
        ) : null}
        {findings && could.length === 0 ? (
          <p className="soft">
            Nothing found on it points to another recipe: choose one below, or cut a section later.
          </p>
        ) : null}
      </Choices>
    </div>
  );
}

const Box = styled.div`
  border: 1px dashed var(--rule); border-radius: 6px; padding: 10px 12px; font-size: 14.5px;
  p { margin: 6px 0; min-height: 1.4em; }
`;
const Head = styled.div`
  display: flex; gap: 4px 12px; align-items: center; flex-wrap: wrap;
  input { display: none; } .name { min-width: 0; overflow-wrap: anywhere; }
`;
const Choices = styled.div`
  display: flex; gap: 16px; flex-wrap: wrap; align-items: flex-end;
  > div > span { display: flex; flex-wrap: wrap; gap: 6px; margin-top: 4px; }
`;
