// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { PressAndSay } from './PressAndSay';

/** The kernels are not asked here: one number, the cap's end, moves the pressed place by half. */
vi.mock('../../solid/use-solid', () => ({ useSolid: () => ({ solid: {}, busy: false, refused: null }) }));
vi.mock('../../solid/SolidView', () => ({
  default: ({ onFace }: { onFace(press: object): void }) => (
    <button type="button" onClick={() => onFace({ at: [0, 0, 0] })}>
      a place
    </button>
  ),
}));
vi.mock('../../solid/movers', () => ({
  moversOf: async () => ({
    movers: [{ name: 'endThickness', rate: 0.5, share: 0.1, disturbs: [] }],
    untried: 0,
  }),
}));
// jsdom has no layout to scroll.
Element.prototype.scrollIntoView = () => {};
afterEach(cleanup);

async function open(): Promise<PageBench> {
  const bench = new PageBench();
  bench.show(<PressAndSay />);
  await userEvent.click(screen.getByRole('button', { name: 'Show the solid' }));
  await userEvent.click(await screen.findByRole('button', { name: 'a place' }));
  await screen.findByRole('heading', { name: 'How far off is it?' });
  return bench;
}
const type = (label: string, text: string) => userEvent.type(screen.getByLabelText(label), text);
const judge = () => screen.getByRole<HTMLButtonElement>('button', { name: 'Judge it from now on' });

test('nothing can be done until it is said how far; a wrong amount stays where it was typed', async () => {
  await open();
  expect(await screen.findByText('say how far first')).toBeTruthy();
  await type('By about, mm', 'a bit');
  expect(await screen.findByText(/“a bit” is not a number/)).toBeTruthy();
  expect((screen.getByLabelText('By about, mm') as HTMLInputElement).value).toBe('a bit');
  expect(screen.getByText('say how far first')).toBeTruthy();
});

test('too far out by 0.4, the number that moves it by half gets 0.8 less', async () => {
  const bench = await open();
  const before = Number(bench.part.parameters.endThickness);
  await type('By about, mm', '0,4');
  await userEvent.click(await screen.findByRole('button', { name: /^Make it 1\.2/ }));
  expect(before).toBe(2);
  expect(bench.part.parameters.endThickness).toBeCloseTo(before - 0.8, 9);
});

test('judged from now on: a mate with what is still right, and its target as it was said', async () => {
  const bench = await open();
  const before = Number(bench.part.parameters.endThickness);
  await type('By about, mm', '0.4');
  await vi.waitFor(() => expect(judge().disabled).toBe(true));
  await type('Still right within, ± mm', '0.2');
  await type('Call it (to judge it again)', 'Edge beside the lamp');
  await vi.waitFor(() => expect(judge().disabled).toBe(false));
  await userEvent.click(judge());
  await vi.waitFor(() => expect(bench.edits.map(e => e.kind)).toEqual(['add-dimension', 'add-mate']));
  const mate = bench.part.signed[0]!;
  expect(mate).toMatchObject({
    name: 'Edge beside the lamp',
    number: 'endThickness',
    rate: 0.5,
    tolerance: { min: -0.2, max: 0.2 },
  });
  const target = bench.job.dimensions.find(d => d.label === 'Edge beside the lamp')!;
  expect(target.readings[0]).toMatchObject({ source: 'said', value: Number((before - 0.8).toFixed(3)) });
  expect(target.readings[0]!.u).toBeGreaterThan(0);
});
