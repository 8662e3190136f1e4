import { Download } from 'lucide-react';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { counting } from '../../../../core/job/history';
import { formatPlain } from '../../../../core/quantity/format';
import type { Finding } from '../../../../core/shape/findings/finding';
import { useBench } from '../../../job/bench-context';
import { brokenKernel, kernelLine } from '../../../solid/kernel-worker';
import { Notice, Panel } from '../../../ui/layout';
import { FONTS } from '../../../ui/theme';
import type { ShownAssembly } from '../../../workers/solid-protocol';

const AssemblyView = lazy(() => import('../../../solid/AssemblyView'));

export const VIEWS = ['together', 'exploded', 'apart'] as const;
export type View = (typeof VIEWS)[number];

/** All parts of the job: in their places, pulled apart, and side by side. */
export function TogetherPanel() {
  const { document } = useBench('document');
  const [open, setOpen] = useState(false);
  if (document.parts.length < 2) return null;
  return (
    <Panel style={{ marginTop: 12 }} aria-label="All parts">
      <details onToggle={event => setOpen(event.currentTarget.open)}>
        <Summary>
          {document.parts.length === 2 ? 'Both parts' : `All ${document.parts.length} parts`}, together and
          apart
        </Summary>
        {open ? <Together /> : null}
      </details>
    </Panel>
  );
}

function Together() {
  const { document, work, job } = useBench('document', 'work', 'job');
  const [view, setView] = useState<View>('together');
  const asked = useMemo(() => {
    const parts = work.parts.map(({ part, parameters }) => ({
      id: part.id,
      recipe: part.recipe,
      additions: part.additions,
      parameters,
    }));
    const joints = document.mates.flatMap(m =>
      m.other.of === 'part'
        ? [{ part: m.ours.part, surface: m.ours.surface, other: m.other.part, otherSurface: m.other.surface }]
        : [],
    );
    return { parts, joints };
  }, [work, document.mates]);
  const key = JSON.stringify([asked.parts, asked.joints]);
  const [shown, setShown] = useState<{
    key: string;
    assembly: ShownAssembly | null;
    failed: Finding[];
  } | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key says all that it depends on
  useEffect(() => {
    let current = true;
    void kernelLine('together')
      .ask(api => api.together(asked.parts, asked.joints))
      .catch((error: Error) => ({ ok: false as const, findings: brokenKernel(error) }))
      .then(answer => {
        if (!current || !answer) return;
        if (answer.ok) setShown({ key, assembly: answer.assembly, failed: [] });
        else setShown({ key, assembly: null, failed: answer.findings });
      });
    return () => {
      current = false;
    };
  }, [key]);
  const name = (id: string) => document.parts.find(p => p.id === id)?.name ?? 'a part';
  const versions = counting(work.history).versions;
  const unmade = document.parts.filter(p => !versions.some(v => v.partId === p.id));
  const assembly = shown?.assembly;
  return (
    <Body>
      <Tools>
        <Tabs
          aria-label="How they are shown"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[view]}
          onSelectionChange={keys => setView([...keys][0] as View)}
        >
          {VIEWS.map(v => (
            <ToggleButton key={v} id={v}>
              {v}
            </ToggleButton>
          ))}
        </Tabs>
        {unmade.length === 0 ? (
          <a href={`/api/jobs/${job.id}/together.3mf`} download>
            <Download size={15} /> All newest versions as one 3MF
          </a>
        ) : (
          <small>
            One file for all comes when each part has a version; {unmade.map(p => p.name).join(', ')} has none
            yet.
          </small>
        )}
      </Tools>
      {assembly ? (
        <>
          <Stage data-testid="together" data-view={view}>
            <Suspense fallback={<p>Setting up the view…</p>}>
              <AssemblyView assembly={assembly} view={view} />
            </Suspense>
          </Stage>
          {assembly.shared.map(s => (
            <Notice key={`${s.a}${s.b}`} level="warn">
              {name(s.a)} and {name(s.b)} share {formatPlain(s.volume / 1000, 2)} cm³ where they sit. A press
              or a thread shares a little; more means that one is in the other’s way.
            </Notice>
          ))}
          {document.mates.every(m => m.other.of === 'object') ? (
            <Notice level="note">
              Nothing joins them yet: they stand side by side. On Fit, say which surface goes with which part.
            </Notice>
          ) : null}
        </>
      ) : (
        <p role="status">
          {shown?.failed.length ? 'They are shown when each of them can be built:' : 'Building all parts…'}
        </p>
      )}
      {shown?.failed.map((f, i) => (
        <Notice key={i} level={f.level}>
          {f.message}
        </Notice>
      ))}
    </Body>
  );
}

const Summary = styled.summary`font: 600 17px ${FONTS.label}; cursor: pointer;`;
const Body = styled.div`display: flex; flex-direction: column; gap: 8px; margin-top: 10px;`;
const Tools = styled.div`
  display: flex; align-items: center; justify-content: space-between; gap: 12px; flex-wrap: wrap; font-size: 14px;
  a { display: inline-flex; gap: 6px; align-items: center; } small { color: var(--soft); font-size: 13.5px; }
`;
const Tabs = styled(ToggleButtonGroup)`
  display: flex; gap: 6px;
  button { font: 600 14px ${FONTS.label}; padding: 4px 12px; border: 1px solid var(--rule); border-radius: 4px; background: var(--raised); color: var(--ink); cursor: pointer; }
  button[data-selected] { background: var(--tint); border-color: var(--blue); color: var(--blue); }
`;
const Stage = styled.div`height: 360px; border: 1px solid var(--rule); border-radius: 6px; overflow: hidden; background: var(--sheet);`;
