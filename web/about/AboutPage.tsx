import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import type { Brought } from '../../scripts/licences';
import { TextField } from '../ui/controls';
import { Failure, Lead, Loading, Panel, Stack } from '../ui/layout';
import { TopBar } from '../ui/TopBar';

/** Packages that anybody who distributes Sagoma must know about. */
const NOTED: Record<string, string> = {
  'replicad-opencascadejs':
    'The kernel of exact solids, Open CASCADE Technology, in a file of its own that may be exchanged.',
  replicad: 'Builds on the kernel of exact solids.',
  'manifold-3d': 'The kernel of triangles.',
};

/** The packages that Sagoma consists of, and their licences. */
export default function AboutPage() {
  const query = useQuery({
    queryKey: ['licences'],
    queryFn: async () => (await import('virtual:licences')).default,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const [wanted, setWanted] = useState('');
  useEffect(() => {
    document.title = 'About – Sagoma';
  }, []);
  const words = wanted.trim().toLowerCase();
  const shown = (query.data ?? [])
    .filter(b => `${b.name} ${b.licence}`.toLowerCase().includes(words))
    .sort((a, b) => Number(b.name in NOTED) - Number(a.name in NOTED));
  return (
    <>
      <TopBar />
      <Page>
        <h1>About Sagoma</h1>
        <Lead>
          Sagoma stands on the work of others. Each package keeps its own licence, and its text is here; where
          it has no text of its own, its author names the licence only.
        </Lead>
        {query.error ? <Failure error={query.error} retry={() => void query.refetch()} /> : null}
        {query.isPending ? <Loading what="Opening the licences" /> : null}
        {query.data ? (
          <Stack $gap={12}>
            <Finder>
              <TextField label="Find a package or a licence" value={wanted} onChange={setWanted} />
              <p className="soft" role="status">
                {shown.length} of {query.data.length} packages
              </p>
            </Finder>
            <Panel aria-label="Packages">
              {shown.length === 0 ? (
                <p className="soft">Nothing is called that. Try a shorter word.</p>
              ) : null}
              {shown.map(b => (
                <Package key={`${b.name} ${b.version}`} brought={b} />
              ))}
            </Panel>
          </Stack>
        ) : null}
      </Page>
    </>
  );
}

function Package({ brought: { name, version, licence, source, text } }: { brought: Brought }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={event => setOpen(event.currentTarget.open)}>
      <summary>
        <b>{name}</b> <span className="soft">{version}</span>
        <span className="licence">{licence}</span>
      </summary>
      {open ? (
        <div>
          {NOTED[name] ? <p>{NOTED[name]}</p> : null}
          <p className="soft">Source: {source}</p>
          <pre>{text ?? `The package brings no licence text; it says “${licence}”.`}</pre>
        </div>
      ) : null}
    </details>
  );
}

const Page = styled.main`
  padding: 22px 28px 60px; max-width: 1180px; margin: 0 auto;
  details { border-top: 1px solid var(--rule); }
  details:first-of-type { border-top: none; }
  summary { display: flex; gap: 8px; align-items: baseline; padding: 7px 0; cursor: pointer; }
  summary .licence { margin-left: auto; color: var(--soft); font-size: 14px; }
  summary::before { content: '▸'; color: var(--soft); width: 12px; }
  details[open] summary::before { content: '▾'; }
  details p { margin: 4px 0; overflow-wrap: anywhere; }
  pre { white-space: pre-wrap; overflow-wrap: anywhere; font-size: 12.5px; max-height: 420px; overflow: auto; margin: 8px 0 12px; }
`;
const Finder = styled.div`display: grid; grid-template-columns: minmax(220px, 420px) auto; gap: 14px; align-items: end; p { padding-bottom: 9px; }`;
