import { useEffect } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import { useSearchParams } from 'react-router';
import styled from 'styled-components';
import { Lead } from '../ui/layout';
import { TopBar } from '../ui/TopBar';
import { FONTS } from '../ui/theme';
import { ClickCalculator } from './ClickCalculator';
import { DeriveCalculator } from './DeriveCalculator';
import { FitCalculator } from './FitCalculator';
import { GrooveCalculator } from './GrooveCalculator';
import { PairCalculator } from './PairCalculator';
import { RingCalculator } from './RingCalculator';
import { ScrewCalculator } from './ScrewCalculator';
import { ShelfSearch } from './ShelfSearch';
import { StackCalculator } from './StackCalculator';
import { TaperCalculator } from './TaperCalculator';

const TABS = [
  { id: 'find', title: 'Find' },
  { id: 'work-out', title: 'Work it out' },
  { id: 'fits', title: 'ISO fits' },
  { id: 'stack', title: 'Stack' },
  { id: 'pair', title: 'Two prints' },
  { id: 'ring', title: 'Soft ring' },
  { id: 'screw', title: 'Screw' },
  { id: 'click', title: 'Click' },
  { id: 'taper', title: 'Taper' },
  { id: 'groove', title: 'O-ring groove' },
] as const;

/** Standard things and small calculations, without a job. */
export default function ShelfPage() {
  const [query, setQuery] = useSearchParams();
  const at = TABS.find(t => t.id === query.get('at'))?.id ?? 'find';
  useEffect(() => {
    document.title = 'Shelf – Sagoma';
  }, []);
  return (
    <>
      <TopBar />
      <Page>
        <h1>Shelf</h1>
        <Lead>
          What standard thing is behind an odd number, and the sizes to leave for it. Each entry says its
          source.
        </Lead>
        <Tabs
          selectedKey={at}
          onSelectionChange={key => setQuery(key === 'find' ? {} : { at: String(key) }, { replace: true })}
        >
          <Strip aria-label="Parts of the shelf">
            {TABS.map(t => (
              <Tab key={t.id} id={t.id}>
                {t.title}
              </Tab>
            ))}
          </Strip>
          <TabPanel id="find">
            <ShelfSearch question={query.get('ask') ?? ''} autoFocus />
          </TabPanel>
          <TabPanel id="work-out">
            <DeriveCalculator />
          </TabPanel>
          <TabPanel id="fits">
            <FitCalculator />
          </TabPanel>
          <TabPanel id="stack">
            <StackCalculator />
          </TabPanel>
          <TabPanel id="pair">
            <PairCalculator />
          </TabPanel>
          <TabPanel id="ring">
            <RingCalculator />
          </TabPanel>
          <TabPanel id="screw">
            <ScrewCalculator />
          </TabPanel>
          <TabPanel id="click">
            <ClickCalculator />
          </TabPanel>
          <TabPanel id="taper">
            <TaperCalculator />
          </TabPanel>
          <TabPanel id="groove">
            <GrooveCalculator />
          </TabPanel>
        </Tabs>
      </Page>
    </>
  );
}

const Page = styled.main`padding: 22px 28px 60px; max-width: 1220px; margin: 0 auto; @media (max-width: 620px) { padding: 16px 14px 60px; }`;
const Strip = styled(TabList)`
  display: flex; gap: 4px; border-bottom: 1px solid var(--rule); margin-bottom: 16px; overflow-x: auto;
  [role='tab'] {
    padding: 8px 14px; cursor: pointer; color: var(--soft); border-bottom: 3px solid transparent; font: 500 15.5px ${FONTS.label}; white-space: nowrap; outline-offset: -2px;
  }
  [role='tab'][data-selected] { color: var(--blue); border-bottom-color: var(--blue); font-weight: 600; }
`;
