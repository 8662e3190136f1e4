import { useQuery } from '@tanstack/react-query';
import { format } from 'date-fns';
import { lazy, Suspense } from 'react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { Rack } from '../../../contract/rack';
import { WorkshopAnswer } from '../../../contract/workshop';
import { WorthAnswer } from '../../../contract/worth';
import { formatHours, formatPlain } from '../../../core/quantity/format';
import { energyOf, type Month, printsUntilRight } from '../../../core/work/months';
import { get } from '../../api/client';
import { Empty, Failure, Lead, Loading, Panel, Row, Stack } from '../../ui/layout';
import { TopBar } from '../../ui/TopBar';
import type { Bars } from './MonthsChart';

const MonthsChart = lazy(() => import('./MonthsChart'));

const PRINTS: Bars[] = [
  { name: 'came out', colour: 'blue', of: m => m.pieces },
  { name: 'failed', colour: 'loose', of: m => m.failed },
];
const HOURS: Bars[] = [
  { name: 'the printers’', colour: 'blue', of: m => m.printHours },
  { name: 'yours', colour: 'right', of: m => m.ownHours },
];
const MONEY: Bars[] = [
  { name: 'plastic', colour: 'blue', of: m => m.cost },
  { name: 'bought, what went into service', colour: 'strong', of: m => m.bought },
];

/** What the workshop made in a year, its cost, and the price of buying it instead. */
export default function WorthPage() {
  const shop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const worth = useQuery({ queryKey: ['worth'], queryFn: () => get('/worth', WorthAnswer), staleTime: 0 });
  const rack = useQuery({ queryKey: ['rack'], queryFn: () => get('/jobs', Rack) });
  const failed = shop.error ?? worth.error ?? rack.error;
  return (
    <>
      <TopBar />
      <Page>
        <Row $between $wrap>
          <h1>What the workshop made</h1>
          <Link to="/workshop">Back to the workshop</Link>
        </Row>
        {failed ? (
          <Failure
            error={failed}
            retry={() => void Promise.all([shop.refetch(), worth.refetch(), rack.refetch()])}
          />
        ) : shop.data && worth.data && rack.data ? (
          <Year
            months={worth.data.months}
            currency={shop.data.workshop.currency}
            untilRight={printsUntilRight(
              rack.data.jobs.map(j =>
                // A slice that sits right is not the part yet.
                j.marks.map(m => (m.slice ? null : m.verdict)),
              ),
            )}
          />
        ) : (
          <Loading what="Adding it up" />
        )}
      </Page>
    </>
  );
}

interface YearProps {
  months: readonly Month[];
  currency: string;
  untilRight: readonly number[];
}

function Year({ months, currency, untilRight }: YearProps) {
  const sum = (of: (m: Month) => number) => months.reduce((all, m) => all + of(m), 0);
  const pieces = sum(m => m.pieces);
  const failures = sum(m => m.failed);
  if (pieces + failures === 0 && sum(m => m.ownHours) === 0)
    return (
      <Empty title="Nothing made in the last twelve months">
        Prints that are recorded, hours at the bench and what goes into service add up here, month by month.
      </Empty>
    );
  const hours = sum(m => m.printHours);
  const bought = sum(m => m.bought);
  return (
    <Stack $gap={14}>
      <Lead>
        In twelve months {pieces} {pieces === 1 ? 'piece' : 'pieces'} came out
        {failures > 0 ? ` and ${failures} ${failures === 1 ? 'print' : 'prints'} failed` : ''}:{' '}
        {formatHours(hours)} of the printers, {formatPlain(sum(m => m.grams) / 1000, 2)} kg of plastic for{' '}
        {sum(m => m.cost).toFixed(2)} {currency}, about {formatPlain(energyOf(hours), 1)} kWh, and{' '}
        {formatHours(sum(m => m.ownHours))} of yours.
        {bought > 0
          ? ` What went into service would have cost ${bought.toFixed(2)} ${currency}, as far as prices are known.`
          : ''}
      </Lead>
      <Grid>
        <Panel>
          <h2>Prints</h2>
          <Charted
            says="Pieces that came out and prints that failed, by month"
            unit="pieces"
            bars={PRINTS}
            months={months}
          />
        </Panel>
        <Panel>
          <h2>Hours</h2>
          <Charted
            says="Hours of the printers and of the makers, by month"
            unit="h"
            bars={HOURS}
            months={months}
            beside
          />
        </Panel>
        <Panel>
          <h2>Money</h2>
          <Charted
            says="Plastic, and what the parts would have cost, by month"
            unit={currency}
            bars={MONEY}
            months={months}
            beside
          />
        </Panel>
        <Panel>
          <h2>Prints until it sat right</h2>
          {untilRight.length === 0 ? (
            <p className="soft">No job has a part that sits right yet.</p>
          ) : (
            <Counts>
              {untilRight.map((jobs, i) => (
                <li key={i}>
                  <span>{ordinal(i + 1)} print</span>
                  <i style={{ width: `${(100 * jobs) / Math.max(...untilRight)}%` }} />
                  <b className="number">
                    {jobs} {jobs === 1 ? 'job' : 'jobs'}
                  </b>
                </li>
              ))}
            </Counts>
          )}
        </Panel>
      </Grid>
      <Panel>
        <details>
          <summary>The same as a table</summary>
          <MonthTable months={months} currency={currency} />
        </details>
      </Panel>
    </Stack>
  );
}

function Charted(props: React.ComponentProps<typeof MonthsChart>) {
  return (
    <Suspense fallback={<Loading what="Drawing" />}>
      <MonthsChart {...props} />
    </Suspense>
  );
}

function MonthTable({ months, currency }: Pick<YearProps, 'months' | 'currency'>) {
  const made = months.filter(m => m.pieces + m.failed + m.jobs + m.ownHours > 0).toReversed();
  return (
    <Scroll>
      <table>
        <thead>
          <tr>
            <th scope="col">Month</th>
            <th scope="col">Pieces</th>
            <th scope="col">Failed</th>
            <th scope="col">Printers, h</th>
            <th scope="col">Yours, h</th>
            <th scope="col">Plastic, g</th>
            <th scope="col">Plastic, {currency}</th>
            <th scope="col">Into service</th>
            <th scope="col">Bought, {currency}</th>
          </tr>
        </thead>
        <tbody>
          {made.map(m => (
            <tr key={m.month}>
              <th scope="row">{format(new Date(`${m.month}-02`), 'MMMM yyyy')}</th>
              {[m.pieces, m.failed].map((n, i) => (
                <td key={i}>{n}</td>
              ))}
              <td>{formatPlain(m.printHours, 1)}</td>
              <td>{formatPlain(m.ownHours, 1)}</td>
              <td>{formatPlain(m.grams, 0)}</td>
              <td>{m.cost.toFixed(2)}</td>
              <td>{m.jobs}</td>
              <td>{m.bought.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </Scroll>
  );
}

const ordinal = (n: number): string =>
  ['First', 'Second', 'Third', 'Fourth', 'Fifth', 'Sixth'][n - 1] ?? `${n}th`;

const Page = styled.main`padding: 22px 28px 60px; max-width: 1200px; margin: 0 auto;`;
const Grid = styled.div`
  display: grid; grid-template-columns: repeat(2, minmax(0, 1fr)); gap: 14px;
  h2 { font-size: 16px; margin-bottom: 4px; }
  @media (max-width: 900px) { grid-template-columns: minmax(0, 1fr); }
`;
const Counts = styled.ul`
  list-style: none; margin: 8px 0 0; padding: 0; font-size: 14.5px;
  li { display: grid; grid-template-columns: 110px minmax(0, 1fr) 70px; gap: 10px; align-items: center; padding: 3px 0; }
  i { display: block; height: 10px; border-radius: 2px; background: var(--right); min-width: 2px; }
  b { text-align: right; }
`;
const Scroll = styled.div`
  overflow-x: auto; margin-top: 8px;
  table { border-collapse: collapse; width: 100%; font-size: 14px; }
  th, td { text-align: right; padding: 4px 8px; border-top: 1px solid var(--rule); white-space: nowrap; }
  th:first-child { text-align: left; } th { font-weight: 500; } td { font-variant-numeric: tabular-nums; }
`;
