// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test } from 'vitest';
import { PageBench } from '../../testing/page-bench';
import { readEdit as read } from '../../testing/read-edit';
import { RemedyNotice } from './RemedyNotice';

afterEach(cleanup);
const remedy = { label: 'Make “Skirt wall” 2 mm', parameter: 'wall', text: '2' };
const shown = (bench: PageBench) => {
  bench.show(
    <RemedyNotice level="stop" remedy={remedy}>
      Too thin.
    </RemedyNotice>,
  );
  return screen.queryByRole('button', { name: remedy.label });
};

test('a number is offered where all that it hangs on is read, and sets just that', async () => {
  const bench = new PageBench([read('rim', 31.7), read('rim_height', 14)]);
  await userEvent.click(shown(bench)!);
  expect(bench.edits).toEqual([
    { kind: 'parameter', partId: 'part-1', name: 'wall', expression: { text: '2', unit: 'mm' } },
  ]);
});

test('while sizes are examples no number is offered, and it is said why', () => {
  expect(shown(new PageBench([read('rim', 31.7)]))).toBeNull();
  expect(screen.getByText(/once the sizes are read/)).toBeDefined();
});
