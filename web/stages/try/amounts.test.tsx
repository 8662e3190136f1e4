// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import type { SignedMate } from '../../../core/job/document';
import { USUAL_SENSE } from '../../../core/learn/signed';
import { PageBench } from '../../../testing/page-bench';
import { readEdit } from '../../../testing/read-edit';
import { aPrint, aTry, aVersion } from '../../../testing/rows';
import { TryStage } from './TryStage';

beforeEach(() => sessionStorage.clear());
afterEach(cleanup);

const at = '2026-01-01T00:00:00.000Z';
const ROOM: SignedMate = {
  id: 'room',
  name: 'Room under the lid',
  kind: 'length',
  ours: { of: 'part', part: 'part-1', surface: 'room' },
  other: { of: 'object', dimension: 'space' },
  number: 'endThickness',
  rate: 1,
  tolerance: { min: -0.2, max: 0.2 },
  sense: USUAL_SENSE.length,
};

/** A cap whose end must be 2.4 thick, of which version 1 was printed. */
function bench(): PageBench {
  const made = new PageBench([
    readEdit('rim', 31.7),
    readEdit('rim_height', 14),
    {
      kind: 'add-dimension',
      dimension: {
        id: 'space',
        name: 'space',
        label: 'Space',
        kind: 'length',
        critical: false,
        guide: null,
        note: '',
        readings: [],
      },
    },
    { kind: 'add-mate', mate: ROOM },
    { kind: 'drop-mate', mateId: 'skirt', stays: { text: '32', unit: 'mm' } },
    readEdit('space', 2.4),
  ]);
  const signed = [
    {
      mateId: 'room',
      name: ROOM.name,
      number: ROOM.number,
      target: { value: 2.4, u: 0.03 },
      tolerance: ROOM.tolerance,
      model: 2.4,
      pRight: 0.8,
      ledger: [],
      prior: { mean: 0, sd: 0.1 },
    },
  ];
  return made
    .happen({ kind: 'version', row: aVersion({ id: 'v1', at, signed }) })
    .happen({ kind: 'print', row: aPrint({ id: 'p1', at, versionId: 'v1' }) });
}
const record = () => userEvent.click(screen.getByRole('button', { name: 'Record the try' }));

describe('a mate that is judged by an amount', () => {
  test('is said to one side by so much, with how that was found', async () => {
    const here = bench();
    here.show(<TryStage />);
    await userEvent.click(screen.getByRole('radio', { name: 'too long' }));
    await record();
    expect(await screen.findByText('Say by about how much.')).toBeTruthy();
    await userEvent.type(screen.getByLabelText(/By about/), '-0.6');
    expect(await screen.findByText('Without a sign: say the side with its key.')).toBeTruthy();
    expect(here.appended).toEqual([]);
    await userEvent.clear(screen.getByLabelText(/By about/));
    await userEvent.type(screen.getByLabelText(/By about/), '0,6');
    await userEvent.click(screen.getByRole('button', { name: /Judged/ }));
    await userEvent.click(screen.getByRole('option', { name: 'a caliper' }));
    await record();
    expect(here.appended).toMatchObject([
      { list: 'tries', body: { mates: { room: { off: { value: 0.6, u: 0.05, by: 'caliper' } } } } },
    ]);
  });

  test('is called right without an amount, and what was said survives a reload', async () => {
    const here = bench();
    const { unmount } = here.show(<TryStage />);
    await userEvent.click(screen.getByRole('radio', { name: 'just right' }));
    await userEvent.type(screen.getByLabelText('Anything else?'), 'closes well');
    unmount();
    here.show(<TryStage />);
    expect(screen.getByRole('radio', { name: 'just right' }).getAttribute('aria-checked')).toBe('true');
    expect(screen.getByLabelText<HTMLTextAreaElement>('Anything else?').value).toBe('closes well');
    await record();
    expect(here.appended).toMatchObject([{ body: { mates: { room: { off: { value: 0 } } } } }]);
  });

  test('that was off has its change in the next version, to be taken or left', async () => {
    const off = { value: 0.6, u: 0.05, by: 'caliper' as const };
    const here = bench().happen({
      kind: 'try',
      row: aTry({ id: 't1', at, printId: 'p1', mates: { room: { off } } }),
    });
    here.show(<TryStage />);
    const table = within(screen.getByRole('table', { name: 'What version 2 changes' }));
    const box = table.getByRole('checkbox', { name: 'Room under the lid' });
    expect((box as HTMLInputElement).checked).toBe(true);
    await userEvent.click(box);
    expect(here.part.parameters.endThickness).toBe(2.4);
    await userEvent.click(table.getByRole('checkbox', { name: 'Room under the lid' }));
    expect(here.part.parameters.endThickness).toBeLessThan(2.1);
  });
});

describe('whatever else happened', () => {
  test('is enough for a try, a break is asked where, and nothing is called right after it', async () => {
    const here = bench();
    here.show(<TryStage />);
    await userEvent.click(screen.getByRole('button', { name: 'its layers came apart' }));
    await userEvent.type(screen.getByLabelText(/^Where, when/), 'at the tab');
    await record();
    expect(here.appended).toMatchObject([
      { body: { mates: {}, happened: [{ what: 'layers-parted', where: 'at the tab', originalToo: null }] } },
    ]);
    const happened = [{ what: 'layers-parted' as const, where: 'at the tab', originalToo: null }];
    const off = { value: 0, u: 0.1, by: 'eye' as const };
    here.happen({
      kind: 'try',
      row: aTry({ id: 't1', at, printId: 'p1', mates: { room: { off } }, happened }),
    });
    cleanup();
    here.show(<TryStage />);
    expect(screen.queryByText(/Every surface sits right/)).toBeNull();
    expect(screen.getByText(/lay it so that they run along the pull/)).toBeTruthy();
  });
});
