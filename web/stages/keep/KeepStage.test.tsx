// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test } from 'vitest';
import { printed } from '../../../testing/page-bench';
import { FailedPanel } from './FailedPanel';
import { InService } from './InService';

afterEach(cleanup);

const look = (found: 'holds' | 'cracked') => ({
  kind: 'look' as const,
  row: {
    id: 'l1',
    at: '2026-02-05T00:00:00.000Z',
    voided: null,
    printId: 'p1',
    piece: 1,
    found,
    where: 'at the root',
    cause: '',
    photos: [],
    by: '',
    note: '',
  },
});

describe('a piece in service', () => {
  test('is looked at in a word; where it failed is asked only then', async () => {
    const bench = printed();
    bench.show(<InService />);
    expect(screen.queryByLabelText('Where on the part')).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: /How does it hold/ }));
    await userEvent.click(screen.getByRole('option', { name: 'it leaks' }));
    await userEvent.type(screen.getByLabelText('Where on the part'), 'at the seam');
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    expect(bench.appended).toMatchObject([
      { list: 'looks', body: { printId: 'p1', piece: 1, found: 'leaks', where: 'at the seam' } },
    ]);
  });

  test('that the server refuses keeps what was typed', async () => {
    const bench = printed();
    bench.refuse = 'The disk is full.';
    bench.show(<InService />);
    await userEvent.type(screen.getByLabelText('Anything else'), 'after a week');
    await userEvent.click(screen.getByRole('button', { name: 'Note it' }));
    expect(bench.said).toEqual(['The disk is full.']);
    expect(screen.getByLabelText<HTMLTextAreaElement>('Anything else').value).toBe('after a week');
  });

  test('that cracked has its causes and the way to the next version, and no way back into service', () => {
    const bench = printed().happen(look('cracked'));
    bench.show(
      <>
        <FailedPanel />
        <InService />
      </>,
    );
    expect(screen.getByRole('heading', { name: /Version 1: it has cracked/ })).toBeTruthy();
    expect(screen.getByText(/At an inner corner the corner is the cause/)).toBeTruthy();
    expect(screen.getByRole('button', { name: 'Change it for version 2' })).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Put it in service' })).toBeNull();
  });

  test('that holds has nothing of that', () => {
    const bench = printed().happen(look('holds'));
    bench.show(
      <>
        <FailedPanel />
        <InService />
      </>,
    );
    expect(screen.queryByRole('heading', { name: /cracked/ })).toBeNull();
    expect(screen.getByRole('button', { name: 'Put it in service' })).toBeTruthy();
  });
});
