// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, describe, expect, test, vi } from 'vitest';
import { PageBench } from '../../../testing/page-bench';
import { readEdit } from '../../../testing/read-edit';
import { Ledger } from '../../job/Ledger';
import { AddMateDialog } from './AddMateDialog';
import { Dropped, MateKeys } from './MateKeys';
import type { PressedOn } from './new-mate';

afterEach(cleanup);

const READ = [readEdit('rim', 31.7), readEdit('rim_height', 14)];
const choose = async (field: RegExp, option: RegExp) => {
  await userEvent.click(screen.getByRole('button', { name: field }));
  await userEvent.click(screen.getByRole('option', { name: option }));
};
const add = () => userEvent.click(screen.getByRole('button', { name: 'It must fit' }));

describe('what else must fit', () => {
  test('asks for its number and for what is still right: neither is assumed', async () => {
    const bench = new PageBench(READ);
    bench.show(<AddMateDialog preset={{ kind: 'length' }} onClose={() => {}} />);
    await add();
    expect(await screen.findByText('Say which number of the part it is.')).toBeTruthy();
    expect(screen.getAllByText('Say how much of it is still right.')).toHaveLength(2);
    expect(screen.getByText('Give it a name.')).toBeTruthy();
    expect(bench.edits).toEqual([]);
  });

  test('a length with a decided size becomes a dimension, a mate and a number that follows it', async () => {
    const bench = new PageBench(READ);
    const closed = vi.fn();
    bench.show(<AddMateDialog preset={{ number: 'endThickness', kind: 'length' }} onClose={closed} />);
    await userEvent.clear(screen.getByLabelText('What is it called?'));
    await userEvent.type(screen.getByLabelText('What is it called?'), 'Room under the lid');
    await userEvent.type(screen.getByLabelText(/The size it must come to/), '2,4');
    await userEvent.type(screen.getByLabelText(/Still right: too short/), '0.2');
    await userEvent.type(screen.getByLabelText(/Still right: too long/), '0.4');
    await add();
    await vi.waitFor(() => expect(closed).toHaveBeenCalled());
    const [row] = bench.part.ledger.signed;
    expect(row!.mate).toMatchObject({ name: 'Room under the lid', tolerance: { min: -0.2, max: 0.4 } });
    expect(row!.target).toEqual({ value: 2.4, u: 0 });
    expect(bench.part.parameters.endThickness).toBe(row!.model);
    expect(closed).toHaveBeenCalledWith(row!.mate.id);
  });

  test.each([
    ['-0.2', 'Without a sign.'],
    ['lots', /number/],
  ])('“%s” as what is still right is refused beside it', async (typed, words) => {
    const bench = new PageBench(READ);
    bench.show(<AddMateDialog preset={{ number: 'endThickness', kind: 'length' }} onClose={() => {}} />);
    await userEvent.type(screen.getByLabelText(/Still right: too short/), typed);
    await add();
    expect((await screen.findAllByText(words)).length).toBeGreaterThan(0);
    expect(bench.edits).toEqual([]);
  });

  test('what is judged is chosen first: a place has its own words', async () => {
    new PageBench(READ).show(<AddMateDialog preset={{ number: 'endThickness' }} onClose={() => {}} />);
    await choose(/What about it must be right/, /an edge that must lie flush/);
    expect(screen.getByLabelText<HTMLInputElement>('Above it, the bench says').value).toBe('proud');
    expect(screen.getByLabelText(/Still right: sunk by/)).toBeTruthy();
  });
});

describe('a size between two faces that were pressed', () => {
  const on = (size: number, rate: number, more: Partial<PressedOn> = {}): PressedOn => ({
    places: [
      { point: [0, 0, 0], normal: [0, 0, -1] },
      { point: [0, 0, size], normal: [0, 0, 1] },
    ],
    span: { kind: 'length', size, from: [0, 0, 0], to: [0, 0, size], side: 'outside' },
    rate,
    wanted: null,
    ...more,
  });
  const named = async (name: string) => userEvent.type(screen.getByLabelText('What is it called?'), name);

  test('that is the number itself goes by its size, and keeps where it was pressed', async () => {
    const bench = new PageBench(READ);
    const now = bench.part.parameters.endThickness as number;
    bench.show(<AddMateDialog preset={{ number: 'endThickness', on: on(now, 1) }} onClose={() => {}} />);
    expect(screen.getByText(/Where it was pressed it is/).textContent).toContain(`${now} mm`);
    await named('Lid');
    await userEvent.type(screen.getByLabelText(/The size it must come to/), '2.4');
    await add();
    await vi.waitFor(() => expect(bench.edits).toHaveLength(2));
    const mate = bench.part.mates.find(m => m.name === 'Lid')!;
    expect(mate.pressed).toMatchObject({ size: now, number: now });
    expect(mate).toMatchObject({ own: { number: 'endThickness', form: 'flats' }, side: 'outside' });
  });

  test('that is more than the number: the number’s target is worked out from the size that is read', async () => {
    const bench = new PageBench(READ);
    const now = bench.part.parameters.endThickness as number;
    // Twice the number and 3 more.
    const pressed = on(2 * now + 3, 2, { wanted: 9 });
    bench.show(
      <AddMateDialog preset={{ number: 'endThickness', kind: 'length', on: pressed }} onClose={() => {}} />,
    );
    await named('Over both');
    await userEvent.type(screen.getByLabelText(/Still right: too short/), '0.2');
    await userEvent.type(screen.getByLabelText(/Still right: too long/), '0.2');
    await add();
    await vi.waitFor(() => expect(bench.edits).toHaveLength(3));
    const [row] = bench.part.ledger.signed;
    expect(row!.mate.rate).toBe(2);
    expect(row!.target.value).toBeCloseTo((9 - 3) / 2, 6);
    expect(row!.dimension.label).toMatch(/^Over both, as “.*” counts it$/);
    expect(bench.part.parameters.endThickness).toBeCloseTo(row!.model, 9);
  });

  test('a number that moves it twice as far cannot be judged by feel', async () => {
    new PageBench(READ).show(
      <AddMateDialog preset={{ number: 'endThickness', on: on(8, 2) }} onClose={() => {}} />,
    );
    await userEvent.click(screen.getByRole('button', { name: /What about it must be right/ }));
    expect(screen.queryByRole('option', { name: /judged by its feel/ })).toBeNull();
    expect(screen.getByRole('option', { name: /a length that must be right/ })).toBeTruthy();
  });
});

describe('a mate may be let go', () => {
  test('its number stays, the ledger forgets it, and it can be let fit again', async () => {
    const bench = new PageBench(READ);
    const [skirt] = bench.part.ledger.mates;
    bench.show(
      <>
        <MateKeys mate={skirt!.mate} />
        <Dropped />
        <Ledger open onClose={() => {}} />
      </>,
    );
    const ledger = within(screen.getByRole('complementary', { name: 'Ledger' }));
    expect(ledger.getByRole('button', { name: /Skirt over rim/ })).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: 'It need not fit…' }));
    await userEvent.click(screen.getByRole('button', { name: 'Drop it' }));
    expect(bench.part.ledger.mates).toEqual([]);
    expect(bench.part.parameters.skirtDiameter).toBeCloseTo(skirt!.model, 2);
    expect(ledger.queryByRole('button', { name: /Skirt over rim/ })).toBeNull();
    await userEvent.click(screen.getByRole('button', { name: 'Skirt over rim: make it fit again' }));
    expect(bench.part.ledger.mates).toHaveLength(1);
  });
});
