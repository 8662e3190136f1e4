import styled from 'styled-components';
import type { Version } from '../../../core/job/history';
import { remarkOf } from '../../../core/job/history/remark-of';
import { capital } from '../../../core/quantity/format';
import { countedPrints } from '../../../core/work/outcome';
import { versionWords } from '../../../core/work/show';
import { type Grown, grown } from '../../../core/work/version-tree';
import { useBench } from '../../job/bench-context';
import { Panel, VerdictMark } from '../../ui/layout';

const [ROW, LANE, DOT] = [34, 18, 5];

/** The ancestry of versions, where one of them was continued from an earlier one. */
export function VersionTree({ versions }: { versions: readonly Version[] }) {
  const { job, document, workshop, resolved } = useBench('job', 'document', 'workshop', 'resolved');
  const tree = grown(versions);
  const lanes = Math.max(...tree.map(g => g.lane)) + 1;
  if (lanes < 2) return null;
  const tried = countedPrints(resolved.history);
  // The newest on top, like the cards below.
  const rows = tree.toReversed();
  return (
    <Panel aria-label="How the versions came out of each other">
      <Tree style={{ gridTemplateColumns: `${lanes * LANE}px minmax(0, 1fr)` }}>
        <svg width={lanes * LANE} height={rows.length * ROW} aria-hidden>
          <Lines rows={rows} />
        </svg>
        <ol>
          {rows.map(({ version, from }) => {
            const outcome = tried.findLast(t => t.version.id === version.id)?.outcome;
            const plastic = workshop.materials.find(m => m.id === version.materialId)?.name;
            const note = remarkOf(job.history, version.id);
            return (
              <li key={version.id}>
                <b>{capital(versionWords(version.number, version.partId, document))}</b>
                <span className="soft">
                  {[
                    plastic,
                    from && from.number !== version.number - 1 && `from version ${from.number}`,
                    note,
                  ]
                    .filter(Boolean)
                    .join(', ')}
                </span>
                {outcome
                  ? outcome.marks.map((mark, i) => <VerdictMark key={i} mark={mark} label={mark} />)
                  : null}
              </li>
            );
          })}
        </ol>
      </Tree>
    </Panel>
  );
}

function Lines({ rows }: { rows: readonly Grown[] }) {
  const at = (g: Grown, i: number) => ({ x: (g.lane + 0.5) * LANE, y: (i + 0.5) * ROW });
  return (
    <>
      {rows.map((g, i) => {
        const under = rows.findIndex(r => r.version.id === g.from?.id);
        if (under < 0) return null;
        const [to, from] = [at(g, i), at(rows[under]!, under)];
        // Up its own lane, and over to the parent's just above it.
        const bend = from.y - ROW * 0.7;
        const path =
          to.x === from.x ? `M${from.x} ${from.y}V${to.y}` : `M${from.x} ${from.y}L${to.x} ${bend}V${to.y}`;
        return <path key={g.version.id} d={path} fill="none" stroke="var(--strong)" strokeWidth={2} />;
      })}
      {rows.map((g, i) => {
        const { x, y } = at(g, i);
        return <circle key={g.version.id} cx={x} cy={y} r={DOT} fill="var(--blue)" />;
      })}
    </>
  );
}

const Tree = styled.div`
  display: grid; gap: 8px; font-size: 14.5px;
  ol { list-style: none; margin: 0; padding: 0; }
  li { display: flex; gap: 8px; align-items: center; height: ${ROW}px; min-width: 0; }
  li b { flex: none; } li span.soft { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
`;
