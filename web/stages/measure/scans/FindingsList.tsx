import styled from 'styled-components';
import { ulid } from 'ulid';
import type { Scan } from '../../../../core/job/scans';
import { formatPlain } from '../../../../core/quantity/format';
import { standing } from '../../../../core/scan/align/upright';
import { takesFor } from '../../../../core/scan/find/become';
import type { FoundSize } from '../../../../core/scan/find/findings';
import { relationsOf } from '../../../../core/scan/find/relations';
import { scaled } from '../../../../core/shape/vector';
import { UNCHECKED_SCALE } from '../../../../core/work/dimension';
import { useBench } from '../../../job/bench-context';
import { scanReading } from '../../../scan/scan-reading';
import { Button } from '../../../ui/controls';
import { Notice, Panel } from '../../../ui/layout';
import type { ShownFinding } from '../../../workers/scan-protocol';

interface Props {
  scan: Scan;
  findings: readonly ShownFinding[];
  lit: ShownFinding | null;
  onLit(finding: ShownFinding): void;
  onTake(finding: ShownFinding): void;
}

/** Flats matter for standing it up; sizes come first. */
const MOST_AT_ONCE = 60;

/** What was found, each with its sizes and their uncertainty. */
export function FindingsList({ scan, findings, lit, onLit, onTake }: Props) {
  const { edit } = useBench('edit');
  const upright = (f: ShownFinding, down: boolean) => {
    if (!f.axis) return;
    const { turn, shift } = standing(down ? scaled(f.axis, -1) : f.axis, f.near);
    void edit({
      kind: 'scan',
      scanId: scan.id,
      change: {
        steps: [...scan.steps, { id: ulid(), kind: 'put', turn: [...turn], shift: [...shift] }],
      },
    });
  };
  const shown = findings.slice(0, MOST_AT_ONCE);
  return (
    <Panel>
      <h2>
        {findings.length} {findings.length === 1 ? 'thing' : 'things'} found on it
      </h2>
      <Asked scan={scan} findings={findings} />
      <List>
        {shown.map((f, i) => (
          <li key={i} data-lit={f === lit ? '' : undefined}>
            <button type="button" className="what" aria-pressed={f === lit} onClick={() => onLit(f)}>
              <b>{f.title}</b>
              {f.sizes.map(s => (
                <span key={s.of} className="number">
                  {sizeWords(s, scan)}
                </span>
              ))}
              {f.coverage !== null && f.coverage < 330 ? (
                <span className="soft">seen {Math.round(f.coverage)}° round</span>
              ) : null}
              {f.kind === 'plane' ? (
                <span className="soft number">{formatPlain(f.area / 100, 1)} cm²</span>
              ) : null}
            </button>
            {f === lit ? <Relations findings={findings} index={i} onTake={onTake} /> : null}
            {f === lit ? (
              <span className="do">
                {f.sizes.length > 0 ? (
                  <Button $small $look="main" onPress={() => onTake(f)}>
                    Take as a reading
                  </Button>
                ) : null}
                {f.kind === 'plane' ? (
                  <>
                    <Button $small onPress={() => upright(f, true)}>
                      Stand it on this face
                    </Button>
                    <Button $small onPress={() => upright(f, false)}>
                      Turn this face up
                    </Button>
                  </>
                ) : f.axis && f.kind !== 'across' && f.kind !== 'pitch' ? (
                  <Button $small onPress={() => upright(f, false)}>
                    Stand it along this axis
                  </Button>
                ) : null}
              </span>
            ) : null}
          </li>
        ))}
      </List>
      {findings.length > MOST_AT_ONCE ? (
        <p className="soft">
          {findings.length - MOST_AT_ONCE} smaller ones are not listed: press on what you need.
        </p>
      ) : null}
    </Panel>
  );
}

/** Possible relations, within the error; nothing is corrected automatically. */
function Relations({ findings, index, onTake }: Pick<Props, 'findings' | 'onTake'> & { index: number }) {
  const relations = relationsOf(findings, index);
  if (relations.length === 0) return null;
  // Several flat faces have the same words: they are said once, with how many.
  const said = relations.filter((r, k) => relations.findIndex(other => other.words === r.words) === k);
  return (
    <ul className="meant">
      {said.slice(0, MOST_RELATIONS).map(r => (
        <li key={r.words}>
          {r.words}
          {manyWords(relations.filter(other => other.words === r.words).length)}
          {r.kind === 'one-size' ? (
            <Button $small $look="quiet" onPress={() => onTake({ ...findings[index]!, sizes: [r.size] })}>
              Take that
            </Button>
          ) : null}
        </li>
      ))}
    </ul>
  );
}

const manyWords = (n: number) => (n > 1 ? `, ${n} of them` : '');

/** A plate's face is square to every hole in it. */
const MOST_RELATIONS = 6;

/** The findings that answer the steps of the recipe, in one press. */
function Asked({ scan, findings }: { scan: Scan; findings: readonly ShownFinding[] }) {
  const { document, resolved, edit, say } = useBench('document', 'resolved', 'edit', 'say');
  const wanted = new Set(resolved.needed.map(n => n.dimension.id));
  const takes = takesFor(resolved.recipe.id, findings).flatMap(t => {
    const dimension = document.dimensions.find(d => d.guide === t.step && wanted.has(d.id));
    const has = dimension?.readings.some(r => r.scanned?.scan === scan.id && r.struck === null);
    return dimension && !has
      ? [{ dimension, finding: findings[t.finding]!, size: findings[t.finding]!.sizes[t.size]! }]
      : [];
  });
  if (takes.length === 0) return null;
  const take = async () => {
    const readings = takes.map(({ dimension, finding, size }) => ({
      dimensionId: dimension.id,
      reading: scanReading(scan.id, finding, size),
    }));
    if (await edit({ kind: 'add-readings', readings }))
      say(`${takes.map(t => t.dimension.label).join(', ')}: read off the scan.`);
  };
  return (
    <div style={{ marginBottom: 8 }}>
      <Notice level="note">
        The recipe asks for{' '}
        {takes.map(({ dimension, size }, i) => (
          <span key={dimension.id}>
            {i > 0 ? ', ' : ''}
            {dimension.label} <b className="number">{formatPlain(size.value, 2)}</b>
          </span>
        ))}
        : found here. Look whether they are what it means.
        <div style={{ marginTop: 6 }}>
          <Button $small onPress={() => void take()}>
            {takes.length === 1 ? 'Take this one' : `Take all ${takes.length}`}
          </Button>
        </div>
      </Notice>
    </div>
  );
}

/** With the scan's own scale, as far as that is settled. */
export function sizeWords(size: FoundSize, scan: Pick<Scan, 'trust'>): string {
  if (size.kind === 'angle')
    return `${size.of} ${formatPlain(size.value, 2)} ± ${formatPlain(2 * size.u, 2)}°`;
  const value = size.value * (scan.trust?.factor ?? 1);
  const u = Math.hypot(size.u, value * (scan.trust?.u ?? UNCHECKED_SCALE));
  return `${size.of} ${formatPlain(value, 2)} ± ${formatPlain(2 * u, 2)} mm`;
}

const List = styled.ul`
  list-style: none; margin: 0; padding: 0; max-height: 380px; overflow-y: auto;
  li { border-top: 1px solid var(--rule); } li:first-child { border-top: 0; }
  li[data-lit] { background: var(--tint); }
  .what {
    display: flex; flex-wrap: wrap; gap: 1px 10px; width: 100%; text-align: left; border: 0; background: none; color: inherit;
    font: inherit; font-size: 14px; padding: 6px 8px; cursor: pointer;
  }
  .what b { flex-basis: 100%; }
  .meant { margin: 0; padding: 0 8px 6px 24px; font-size: 13.5px; color: var(--soft); list-style: disc; }
  .meant li { border: 0; padding: 1px 0; }
  .do { display: flex; flex-wrap: wrap; gap: 6px; padding: 0 8px 8px; }
`;
