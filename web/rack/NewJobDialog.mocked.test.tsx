// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { FIRST_WORKSHOP } from '../../core/job/workshop';
import NewJobDialog from './NewJobDialog';

const posted = vi.hoisted(() => vi.fn());
const rack = { workshop: 'Mine', jobs: [] as object[], unreadable: [] };
vi.mock('../api/client', () => ({
  get: async (path: string) => (path === '/jobs' ? rack : { workshop: FIRST_WORKSHOP }),
  post: posted,
}));

afterEach(() => {
  cleanup();
  posted.mockReset();
});

function shown(): HTMLInputElement {
  render(
    <QueryClientProvider client={new QueryClient()}>
      <MemoryRouter>
        <NewJobDialog isOpen onClose={() => {}} />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  return screen.getByLabelText<HTMLInputElement>('What do you make?');
}

const start = () => userEvent.click(screen.getByRole('button', { name: 'Start measuring' }));

describe('a new job', () => {
  test('is asked for a name, and nothing is sent without one', async () => {
    const title = shown();
    await start();
    expect(await screen.findByText(/Give the job a name/)).toBeTruthy();
    // A long list of recipes is between button and field: the field comes into view.
    expect(document.activeElement).toBe(title);
    expect(posted).not.toHaveBeenCalled();
  });

  test('with a name too long says how long it is; what is put right goes at once', async () => {
    const title = shown();
    await userEvent.click(title);
    await userEvent.paste('x'.repeat(301));
    await start();
    expect(await screen.findByText('At most 300 characters; this is 301.')).toBeTruthy();
    await userEvent.type(title, '{Backspace}');
    expect(screen.queryByText(/At most 300/)).toBeNull();
    expect(posted).not.toHaveBeenCalled();
  });

  test('goes to the server trimmed, with the first recipe and plastic', async () => {
    posted.mockResolvedValue({ id: 'job' });
    await userEvent.type(shown(), '  Vent cap ');
    await start();
    await vi.waitFor(() =>
      expect(posted.mock.calls[0]![2]).toMatchObject({
        title: 'Vent cap',
        materialId: FIRST_WORKSHOP.materials[0]!.id,
      }),
    );
  });

  test('that the server refuses says why and keeps what was typed', async () => {
    posted.mockRejectedValue(new Error('The disk is full.'));
    const title = shown();
    await userEvent.type(title, 'Vent cap{Enter}');
    expect(await screen.findByText('The disk is full.')).toBeTruthy();
    expect(title.value).toBe('Vent cap');
  });

  test('made the way another one was asks for its names only', async () => {
    const thumbnail = { viewBox: '0 0 1 1', cut: [], mate: [], edge: [] };
    const about = {
      number: 1,
      object: '',
      updatedAt: '',
      state: '',
      partId: 'p',
      inService: true,
      thumbnail,
    };
    const next = { stage: 'keep', action: 'Look', reason: '', waits: false };
    rack.jobs = [
      {
        ...about,
        id: 'j1',
        title: 'Trestle plug',
        next,
        marks: [{ version: 1, words: '', verdict: 'right' }],
      },
      { ...about, id: 'j2', title: 'Half done', next, marks: [{ version: 1, words: '', verdict: 'tight' }] },
    ];
    posted.mockResolvedValue({ id: 'j3' });
    await userEvent.type(shown(), 'Other plug');
    await userEvent.click(await screen.findByRole('radio', { name: 'Again: Trestle plug' }));
    expect(screen.queryByRole('radio', { name: 'Again: Half done' })).toBeNull();
    expect(screen.getByText(/All of “Trestle plug” but its readings/)).toBeTruthy();
    await start();
    await vi.waitFor(() =>
      expect(posted.mock.calls[0]!.slice(0, 3)).toEqual([
        '/jobs/j1/again',
        expect.anything(),
        { title: 'Other plug', object: '' },
      ]),
    );
    rack.jobs = [];
  });
});
