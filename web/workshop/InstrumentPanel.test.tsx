// @vitest-environment jsdom
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { FormProvider, useForm, useWatch } from 'react-hook-form';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { FIRST_WORKSHOP, type Workshop } from '../../core/job/workshop';
import { InstrumentPanel } from './InstrumentPanel';
import { type WorkshopFields, workshopResolver } from './workshop-form';

beforeEach(() => {
  vi.stubGlobal(
    'fetch',
    vi.fn(async () => new Response(JSON.stringify({ instruments: [] }), { status: 200 })),
  );
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

let kept: Workshop['instruments'] = [];
function Bench() {
  const form = useForm<WorkshopFields, unknown, Workshop>({
    resolver: workshopResolver,
    defaultValues: {
      ...FIRST_WORKSHOP,
      instruments: [{ id: 'c', name: 'Calipers', kind: 'calipers', resolution: 0.01, maxError: 0.03 }],
    },
  });
  kept = useWatch({ control: form.control, name: 'instruments' });
  return (
    <QueryClientProvider client={new QueryClient()}>
      <FormProvider {...form}>
        <InstrumentPanel />
      </FormProvider>
    </QueryClientProvider>
  );
}
const press = (name: string) => userEvent.click(screen.getByRole('button', { name }));

describe('the zero of an instrument', () => {
  test('nothing, rubbish, and what is no zero are refused where they were typed', async () => {
    render(<Bench />);
    await press('Check its zero');
    const field = screen.getByLabelText('It reads, mm');
    for (const [typed, words] of [
      ['', /number/i],
      ['nearly', /number/i],
      ['7', /That cannot be its zero/],
    ] as const) {
      await userEvent.clear(field);
      if (typed) await userEvent.type(field, typed);
      await press('That is its zero');
      expect(await screen.findByText(words)).toBeTruthy();
      expect(kept[0]!.zero).toBeUndefined();
    }
    await userEvent.clear(field);
    await userEvent.type(field, '-0,02');
    expect(screen.getByText(/will be taken off readings/)).toBeTruthy();
    await press('That is its zero');
    await vi.waitFor(() => expect(kept[0]!.zero?.offset).toBe(-0.02));
  });
});

describe('a known block', () => {
  test('both sizes are asked for; one that is off is kept with less trust', async () => {
    render(<Bench />);
    await press('Read a known block');
    await press('Keep the check');
    expect(await screen.findAllByText(/number/i)).toHaveLength(2);
    await userEvent.type(screen.getByLabelText('The block is, mm'), '10');
    await userEvent.type(screen.getByLabelText('It reads, mm'), '10.08');
    expect(screen.getByText(/Off by 0\.08 mm: more than/)).toBeTruthy();
    await press('Keep, and trust it to ± 0.08');
    await vi.waitFor(() => expect(kept[0]!.maxError).toBe(0.08));
    expect(kept[0]!.checks).toMatchObject([{ block: 10, reading: 10.08 }]);
  });
});
