// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { AgainDialog } from './AgainDialog';
import { VoidDialog } from './VoidDialog';

afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

test('why it does not count is asked, and what the server refuses stays beside it', async () => {
  const bench = new PageBench();
  const onClose = vi.fn();
  bench.show(<VoidDialog voiding={{ kind: 'print', id: 'p1', name: 'print 1' }} onClose={onClose} />);
  await userEvent.click(screen.getByRole('button', { name: 'It does not count' }));
  expect(screen.getByText('Say why it does not count.')).toBeTruthy();
  // Too long a text is reported; nothing of it is lost.
  await userEvent.type(screen.getByLabelText('Reason'), 'x'.repeat(301));
  expect(screen.getByText('At most 300 characters.')).toBeTruthy();
  expect((screen.getByLabelText('Reason') as HTMLInputElement).value).toHaveLength(301);
  await userEvent.type(screen.getByLabelText('Reason'), '{Backspace}');
  bench.refuse = 'The disk is full.';
  await userEvent.click(screen.getByRole('button', { name: 'It does not count' }));
  expect(screen.getByText('The disk is full.')).toBeTruthy();
  expect(onClose).not.toHaveBeenCalled();
  bench.refuse = null;
  await userEvent.click(screen.getByRole('button', { name: 'It does not count' }));
  expect(bench.appended).toEqual([
    { list: 'void', body: { kind: 'print', id: 'p1', reason: 'x'.repeat(300) } },
  ]);
  expect(onClose).toHaveBeenCalled();
});

test('the same for another object needs a name', async () => {
  const asked = vi.fn(() => Promise.reject(new Error('no server')));
  vi.stubGlobal('fetch', asked);
  new PageBench().show(<AgainDialog onClose={() => {}} />);
  const title = screen.getByLabelText('What do you make?') as HTMLInputElement;
  expect(title.value).toBe('Cap');
  await userEvent.clear(title);
  await userEvent.click(screen.getByRole('button', { name: 'Start measuring' }));
  expect(screen.getByText('Give the job a name.')).toBeTruthy();
  expect(asked).not.toHaveBeenCalled();
  await userEvent.type(title, 'Cap for the other port');
  await userEvent.click(screen.getByRole('button', { name: 'Start measuring' }));
  expect(asked).toHaveBeenCalledTimes(1);
  expect(title.value).toBe('Cap for the other port');
});
