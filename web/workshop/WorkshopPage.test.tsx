// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { MemoryRouter } from 'react-router';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { FIRST_WORKSHOP, type Workshop } from '../../core/job/workshop';
import WorkshopPage from './WorkshopPage';

/** What was saved last. */
let sent: Workshop;
let isSaved = false;
let refusal: string | null = null;
let stored: Workshop;

beforeEach(() => {
  [sent, isSaved, refusal, stored] = [FIRST_WORKSHOP, false, null, FIRST_WORKSHOP];
  vi.stubGlobal(
    'fetch',
    vi.fn(async (path: string, init?: RequestInit) => {
      if (init?.method === 'PUT') {
        if (refusal) return Response.json({ error: { code: 'stale', message: refusal } }, { status: 409 });
        sent = JSON.parse(String(init.body)).workshop;
        [stored, isSaved] = [sent, true];
        return Response.json({ revision: 2, workshop: stored });
      }
      if (path.endsWith('/workshop')) return Response.json({ revision: isSaved ? 2 : 1, workshop: stored });
      if (path.endsWith('/repeatability')) return Response.json({ instruments: [] });
      return Response.json({ error: { code: 'not-found', message: 'Not in this test.' } }, { status: 404 });
    }),
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

async function open() {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={client}>
      <MemoryRouter>
        <WorkshopPage />
      </MemoryRouter>
    </QueryClientProvider>,
  );
  await screen.findByRole('heading', { name: 'Instruments' });
}
const save = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Save the workshop' });
async function type(label: string, text: string, at = 0) {
  const field = screen.getAllByLabelText(label)[at]!;
  await userEvent.clear(field);
  if (text) await userEvent.type(field, text);
  await userEvent.tab();
  return field as HTMLInputElement;
}

test('nothing to save until something differs; back at what it was, nothing again', async () => {
  await open();
  expect(save().disabled).toBe(true);
  await type('Currency', 'Fr');
  await vi.waitFor(() => expect(save().disabled).toBe(false));
  await type('Currency', FIRST_WORKSHOP.currency);
  await vi.waitFor(() => expect(save().disabled).toBe(true));
});

test('text in a number’s field stays there with a reason, and nothing can be saved; a comma is understood', async () => {
  await open();
  const field = await type('Bed width, mm', 'wide');
  expect(await screen.findByText(/“wide” is not a number/)).toBeTruthy();
  expect(field.value).toBe('wide');
  expect(save().disabled).toBe(true);
  expect(screen.getByText('Correct what is marked in red first.')).toBeTruthy();
  await type('Bed width, mm', '256,5');
  await vi.waitFor(() => expect(save().disabled).toBe(false));
  expect(field.value).toBe('256.5');
  await userEvent.click(save());
  await vi.waitFor(() => expect(sent.printers[0]!.bed.width).toBe(256.5));
  expect(await screen.findByText('Saved.')).toBeTruthy();
});

test('numbers that contradict each other are told, whichever was typed', async () => {
  await open();
  await type('snug, least (mm)', '0.4');
  expect(await screen.findByText('The least must be below the most.')).toBeTruthy();
  expect(save().disabled).toBe(true);
  await userEvent.click(screen.getByRole('button', { name: 'Back to common practice' }));
  await vi.waitFor(() => expect(screen.queryByText('The least must be below the most.')).toBeNull());
  expect((screen.getByLabelText('snug, least (mm)') as HTMLInputElement).value).toBe('0.05');
});

test('the room of a head comes as a pair, and goes with 0 beside it', async () => {
  await open();
  await type('Head beside, mm', '35');
  await userEvent.click(save());
  await vi.waitFor(() => expect(sent.printers[0]!.clearance).toEqual({ beside: 35, above: 25 }));
  await screen.findByText('Saved.');
  await type('Head beside, mm', '0');
  await userEvent.click(save());
  await vi.waitFor(() => expect(sent.printers[0]!.clearance).toBeUndefined());
});

test('a plastic of a known polymer takes its figures; what was half typed goes', async () => {
  await open();
  await userEvent.click(screen.getByRole('button', { name: 'Add to plastics' }));
  const at = FIRST_WORKSHOP.materials.length;
  await type('Density, g/cm³', 'light', at);
  expect(await screen.findByText(/“light” is not a number/)).toBeTruthy();
  const polymer = screen.getAllByRole('button', { name: /Its polymer, with its figures/ })[at]!;
  await userEvent.click(polymer);
  await userEvent.click(within(screen.getByRole('listbox')).getByRole('option', { name: 'PETG' }));
  await vi.waitFor(() => expect(screen.queryByText(/“light” is not a number/)).toBeNull());
  await userEvent.click(save());
  await vi.waitFor(() => expect(sent.materials[at]).toMatchObject({ name: 'New plastic', polymer: 'PETG' }));
  expect(sent.materials[at]!.density).toBeGreaterThan(1.2);
});

test('one of several may go, the last one stays', async () => {
  await open();
  for (const { name } of FIRST_WORKSHOP.instruments.slice(1))
    await userEvent.click(screen.getByRole('button', { name: `Remove ${name}` }));
  const last = screen.getByRole<HTMLButtonElement>('button', {
    name: `Remove ${FIRST_WORKSHOP.instruments[0]!.name}`,
  });
  expect(last.disabled).toBe(true);
  await userEvent.click(save());
  await vi.waitFor(() => expect(sent.instruments).toHaveLength(1));
});

test('what the server refuses is said, and nothing typed is lost', async () => {
  await open();
  refusal = 'Another window saved the workshop meanwhile.';
  const field = await type('Currency', 'Fr');
  await userEvent.click(save());
  expect(await screen.findByText(refusal)).toBeTruthy();
  expect(field.value).toBe('Fr');
});
