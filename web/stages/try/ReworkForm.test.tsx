// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import type { Rescue } from '../../../core/work/rescue';
import { PageBench } from '../../../testing/page-bench';
import { ReworkForm } from './ReworkForm';

afterEach(cleanup);

const rescue: Rescue = {
  mateId: 'skirt',
  name: 'Skirt over rim',
  how: 'ream',
  words: '',
  amount: 0.3,
  caution: '',
  minutes: 10,
};

test('what was taken off, how it was judged and how it sits since', async () => {
  const bench = new PageBench();
  const onDone = vi.fn();
  bench.show(<ReworkForm rescue={rescue} printId="p1" onDone={onDone} />);
  const amount = screen.getByLabelText('How much, mm across');
  await userEvent.type(amount, '9');
  await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
  expect(amount.getAttribute('aria-invalid')).toBe('true');
  expect(bench.appended).toEqual([]);
  await userEvent.clear(amount);
  await userEvent.type(amount, '0,25');
  await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
  const row = {
    printId: 'p1',
    mateId: 'skirt',
    how: 'ream',
    amount: 0.25,
    by: 'eye',
    after: 'right',
    note: '',
  };
  expect(bench.appended).toEqual([{ list: 'reworks', body: row }]);
  expect(onDone).toHaveBeenCalled();
});

test('nobody knows how much: that is nothing, not zero; and what the server says stays beside it', async () => {
  const bench = new PageBench();
  bench.refuse = 'The disk is full.';
  bench.show(<ReworkForm rescue={rescue} printId="p1" onDone={() => {}} />);
  await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
  expect(screen.getByText('The disk is full.')).toBeTruthy();
  bench.refuse = null;
  await userEvent.click(screen.getByRole('button', { name: 'Record it' }));
  expect(bench.appended[0]!.body).toMatchObject({ amount: null });
});
