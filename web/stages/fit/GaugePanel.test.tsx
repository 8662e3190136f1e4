// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { readEdit } from '../../../testing/read-edit';
import { aPrint, aVersion } from '../../../testing/rows';
import { TryStage } from '../try/TryStage';
import { GaugePanel } from './GaugePanel';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const at = '2026-01-01T00:00:00.000Z';
const READ = [readEdit('rim', 31.7), readEdit('rim_height', 14)];
const GAUGE = {
  id: 'g1',
  at,
  voided: null,
  mateId: 'skirt',
  partId: 'part-1',
  printerId: null,
  materialId: null,
  side: 'outside',
  form: 'round',
  drawn: 31.7,
} as const;
const skirtOf = (bench: PageBench) => bench.part.ledger.mates.find(m => m.mate.id === 'skirt')!;
const shown = (bench: PageBench) =>
  bench.show(
    <QueryClientProvider client={new QueryClient()}>
      <GaugePanel ledger={skirtOf(bench)} />
    </QueryClientProvider>,
  );

test('a gauge is offered, and made of the surface that is shown', async () => {
  const bench = new PageBench(READ);
  shown(bench);
  await userEvent.click(screen.getByRole('button', { name: 'Make a gauge of it' }));
  expect(bench.appended).toEqual([{ list: 'gauges', body: { mateId: 'skirt', partId: 'part-1' } }]);
});

test('what it measures is asked before it is tried on; rubbish is refused where it was typed', async () => {
  const bench = new PageBench(READ).happen({ kind: 'gauge', row: GAUGE });
  shown(bench);
  expect(screen.getByText(/Measure the print before/)).toBeTruthy();
  const field = screen.getByLabelText('The gauge measures, mm');
  await userEvent.type(field, 'about 31');
  await userEvent.click(screen.getByRole('button', { name: 'Note its size' }));
  await vi.waitFor(() => expect(field.getAttribute('aria-invalid')).toBe('true'));
  expect(bench.appended).toEqual([]);
  await userEvent.clear(field);
  await userEvent.type(field, '31,5');
  await userEvent.click(screen.getByRole('button', { name: 'Note its size' }));
  await vi.waitFor(() => expect(bench.appended).toHaveLength(1));
  expect(bench.appended[0]).toMatchObject({ list: 'gauge-sizes', body: { gaugeId: 'g1', value: 31.5 } });
  expect((bench.appended[0]!.body as { u: number }).u).toBeGreaterThan(0);
});

test('a try says that it was on the gauge: the part is not right yet, and its number goes by the gauge', async () => {
  const tried = (gauge: boolean) => {
    const bench = new PageBench(READ);
    const { mate, model, reading, prior } = skirtOf(bench);
    const { part } = bench.part;
    const drawn = { mateId: mate.id, surface: 'skirt', want: mate.want, reading, model, prior };
    bench
      .happen({
        kind: 'version',
        row: aVersion({
          id: 'v1',
          at,
          printerId: part.printerId,
          materialId: part.materialId,
          parameters: bench.part.parameters,
          mates: [{ ...drawn, pRight: 0.5, ledger: [] }],
        }),
      })
      .happen({ kind: 'print', row: aPrint({ id: 'p1', at, versionId: 'v1' }) });
    if (gauge)
      bench.happen({ kind: 'gauge', row: GAUGE }).happen({
        kind: 'gauge-size',
        row: { id: 's1', at, voided: null, gaugeId: 'g1', value: 31.4, u: 0.02 },
      });
    return { bench, model };
  };
  const { bench } = tried(true);
  bench.show(<TryStage />);
  await userEvent.click(screen.getByRole('button', { name: /Tried on/ }));
  await userEvent.click(screen.getByRole('option', { name: 'its gauge, 31.40 mm' }));
  await userEvent.click(screen.getByRole('radio', { name: /^tight$/ }));
  await userEvent.click(screen.getByRole('button', { name: 'Record the try' }));
  expect(bench.appended[0]).toMatchObject({
    list: 'tries',
    body: { mates: { skirt: { verdict: 'tight', gauge: 'g1' } } },
  });
  // Tight on what is 0.3 smaller than the object is tighter on the object: the number grows more.
  const grown = (gauge: boolean) => {
    const made = tried(gauge);
    made.bench.happen({
      kind: 'try',
      row: {
        id: 't1',
        at,
        voided: null,
        printId: 'p1',
        happened: [],
        photos: [],
        by: '',
        note: '',
        mates: { skirt: { verdict: 'tight', ...(gauge ? { gauge: 'g1' } : {}) } },
      },
    });
    return skirtOf(made.bench).model - made.model;
  };
  expect(grown(true)).toBeGreaterThan(grown(false) + 0.1);
});
