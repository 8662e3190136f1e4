// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import type { SizeCheck } from '../../../../core/work/scan-trust';
import { PageBench } from '../../../../testing/page-bench';
import { CompareSizes } from './CompareSizes';

afterEach(cleanup);

const check: SizeCheck = {
  pairs: [],
  factor: 1.004,
  u: 0.001,
  odd: null,
  verdict: 'off',
  words: 'Too small by 0.4 %.',
};

function show(refused?: string) {
  const [onSettle, onRefuse] = [vi.fn(), vi.fn()];
  new PageBench().show(
    <CompareSizes
      check={check}
      trust={undefined}
      what="Scan"
      meanwhile="Until then ± 0.8 %."
      onSettle={onSettle}
      refused={refused}
      onRefuse={onRefuse}
    />,
  );
  return { onSettle, onRefuse };
}

test('a scan is corrected, or not gone by with a reason', async () => {
  const { onSettle, onRefuse } = show();
  await userEvent.click(screen.getByRole('button', { name: 'Correct it by +0.4 %' }));
  expect(onSettle).toHaveBeenCalledWith({ factor: 1.004, u: 0.001 });
  await userEvent.click(screen.getByRole('button', { name: 'Leave it out…' }));
  await userEvent.click(screen.getByRole('button', { name: 'Count nothing read off it' }));
  expect(screen.getByText('Say why it is left out.')).toBeTruthy();
  expect(onRefuse).not.toHaveBeenCalled();
  await userEvent.type(screen.getByLabelText('Why not?'), 'it slipped');
  await userEvent.click(screen.getByRole('button', { name: 'Count nothing read off it' }));
  expect(onRefuse).toHaveBeenCalledWith('it slipped');
});

test('one that is not gone by says why, and may be gone by again', async () => {
  const { onRefuse } = show('it slipped');
  expect(screen.getByText(/Nothing that was read off it counts: it slipped/)).toBeTruthy();
  expect(screen.queryByRole('button', { name: 'Leave it out…' })).toBeNull();
  await userEvent.click(screen.getByRole('button', { name: 'Use it again' }));
  expect(onRefuse).toHaveBeenCalledWith(null);
});
