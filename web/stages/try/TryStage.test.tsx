// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { PageBench, printed } from '../../../testing/page-bench';
import { aPrint, aTry } from '../../../testing/rows';
import { TryStage } from './TryStage';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const record = () => userEvent.click(screen.getByRole('button', { name: 'Record the try' }));

describe('a try', () => {
  test('without a print says what comes first', () => {
    new PageBench().show(<TryStage />);
    expect(screen.getByRole('heading', { name: 'Nothing to try yet' })).toBeTruthy();
  });

  test('with nothing said is asked for a word, and nothing is recorded', async () => {
    const bench = printed();
    bench.show(<TryStage />);
    await record();
    expect(await screen.findByText(/Say how at least one surface feels/)).toBeTruthy();
    expect(bench.appended).toEqual([]);
  });

  test('with a verdict and a size is recorded, with the doubt of the instrument in hand', async () => {
    const bench = printed();
    bench.show(<TryStage />);
    const [mate] = bench.part.ledger.mates;
    await userEvent.click(screen.getByRole('radio', { name: 'tight' }));
    await userEvent.type(screen.getByLabelText(/The print measures/), '31.95');
    await userEvent.type(screen.getByLabelText('Anything else?'), 'went on askew');
    expect(screen.getByText('Measured with')).toBeTruthy();
    await record();
    expect(bench.appended).toMatchObject([
      {
        list: 'tries',
        body: {
          printId: 'p1',
          note: 'went on askew',
          mates: { [mate!.mate.id]: { verdict: 'tight', printed: { value: 31.95 } } },
        },
      },
    ]);
    const { body } = bench.appended[0] as { body: { mates: Record<string, { printed: { u: number } }> } };
    expect(body.mates[mate!.mate.id]!.printed.u).toBeGreaterThan(0);
    expect(screen.getByLabelText<HTMLInputElement>('Anything else?').value).toBe('');
  });

  test.each(['lots', '-3', '6000'])('a size of “%s” is refused beside its field', async size => {
    const bench = printed();
    bench.show(<TryStage />);
    const field = screen.getByLabelText<HTMLInputElement>(/The print measures/);
    await userEvent.type(field, size);
    await record();
    expect(field.value).toBe(size);
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(bench.appended).toEqual([]);
  });

  test('that the server refuses loses nothing that was said', async () => {
    const bench = printed();
    bench.refuse = 'The print was struck out.';
    bench.show(<TryStage />);
    await userEvent.click(screen.getByRole('radio', { name: 'right' }));
    await userEvent.type(screen.getByLabelText('Anything else?'), 'fine');
    await record();
    expect(bench.said).toEqual(['The print was struck out.']);
    expect(screen.getByLabelText<HTMLInputElement>('Anything else?').value).toBe('fine');
    expect(screen.getByRole('radio', { name: 'right' }).getAttribute('aria-checked')).toBe('true');
  });

  test('that contradicts another one is asked about: one of the two may be left out', async () => {
    const bench = printed();
    const [version] = bench.part.history.versions;
    const [mate] = version!.mates;
    const at = '2026-02-02T00:00:00.000Z';
    const say = (id: string, printId: string, verdict: 'tight' | 'loose') =>
      bench.happen({ kind: 'try', row: aTry({ id, at, printId, mates: { [mate!.mateId]: { verdict } } }) });
    const narrower = [{ ...mate!, model: mate!.model - 0.3 }];
    bench.happen({ kind: 'version', row: { ...version!, id: 'v2', number: 2, mates: narrower } });
    bench.happen({ kind: 'print', row: aPrint({ id: 'p2', at, versionId: 'v2', number: 2 }) });
    say('t1', 'p1', 'tight');
    say('t2', 'p2', 'loose');
    bench.show(<TryStage />);
    expect(screen.getByText(/Which would you try again/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'Leave version 1’s verdict out' }));
    expect(bench.appended).toMatchObject([{ list: 'void', body: { kind: 'try', id: 't1' } }]);
    await userEvent.click(screen.getByRole('button', { name: 'Try version 1 again' }));
    expect(screen.getByText(/What version 1 taught/)).toBeTruthy();
  });

  test('that leaves a surface out is not done: it is asked for first, and nothing is called right yet', async () => {
    const bench = printed();
    const [mate] = bench.part.ledger.mates;
    bench.happen({
      kind: 'try',
      row: {
        id: 't1',
        at: '',
        voided: null,
        printId: 'p1',
        mates: { [mate!.mate.id]: {} },
        happened: [],
        photos: [],
        by: '',
        note: 'cold',
      },
    });
    bench.show(<TryStage />);
    expect(screen.getByText(/Not judged yet: Skirt over rim/)).toBeTruthy();
    expect(screen.getByRole('heading', { name: 'How does the rest of it sit?' })).toBeTruthy();
    expect(screen.queryByText(/Every surface sits right/)).toBeNull();
    expect(screen.queryByRole('button', { name: /Make version/ })).toBeNull();
  });
});
