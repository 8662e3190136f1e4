// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { readEdit } from '../../../testing/read-edit';
import { aPrint, aVersion } from '../../../testing/rows';
import { FitStage } from '../fit/FitStage';
import { TryStage } from './TryStage';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const at = '2026-01-01T00:00:00.000Z';

/** An adapter whose end over a tube tapers by 2° per side, of which version 1 was printed. */
function bench(): PageBench {
  const made = new PageBench(
    [
      {
        kind: 'parameter',
        partId: 'part-1',
        name: 'taperA',
        expression: { text: '2', unit: 'deg' },
      },
      readEdit('tube_a', 32),
      readEdit('bore_b', 36),
    ],
    'tube-adapter',
  );
  const { part, parameters, ledger } = made.part;
  const { mate, model, reading, prior } = ledger.mates.find(m => m.mate.id === 'overA')!;
  const drawn = { mateId: mate.id, surface: mate.ours.surface, want: mate.want, reading, model, prior };
  return made
    .happen({
      kind: 'version',
      row: aVersion({
        id: 'v1',
        at,
        recipe: part.recipe,
        printerId: part.printerId,
        materialId: part.materialId,
        parameters,
        mates: [{ ...drawn, pRight: 0.5, ledger: [] }],
      }),
    })
    .happen({ kind: 'print', row: aPrint({ id: 'p1', at, versionId: 'v1' }) });
}

test('a taper is asked how far it went in, and says in which depths it is right', async () => {
  const here = bench();
  here.show(<TryStage />);
  await userEvent.click(screen.getByRole('radio', { name: 'does not go in far enough' }));
  await userEvent.type(screen.getByLabelText(/By about/), '5');
  await userEvent.click(screen.getByRole('button', { name: 'Record the try' }));
  const [row] = here.appended as { body: { mates: Record<string, unknown> } }[];
  expect(row!.body.mates.overA).toMatchObject({
    depth: { value: -5, by: 'eye' },
    verdict: 'tight',
  });
});

test('an amount that says nothing of the side is asked about', async () => {
  const here = bench();
  here.show(<TryStage />);
  await userEvent.click(screen.getByRole('radio', { name: 'goes in too far' }));
  await userEvent.click(screen.getByRole('button', { name: 'Record the try' }));
  expect(await screen.findByText('Say by about how much.')).toBeTruthy();
  expect(here.appended).toEqual([]);
});

test('how it should fit says depths too', () => {
  const here = bench();
  here.pick('overA');
  here.show(
    <QueryClientProvider client={new QueryClient()}>
      <FitStage />
    </QueryClientProvider>,
  );
  expect(screen.getByText(/It tapers, and is judged by how far it goes in: right from/)).toBeTruthy();
});
