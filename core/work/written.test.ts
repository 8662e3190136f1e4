import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import type { Neighbour } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { clearOfNeighbour, clearOfZone } from './keep-clear';
import { newNeighbour } from './new-neighbour';
import { Work } from './work';
import { keptText, worked } from './written';

describe('numbers written as expressions', () => {
  const row = { x: 5, y: 2, texts: { x: { text: 'rim / 2 + 4', unit: 'mm' as const } } };
  test('follow what they name, and stay where that is not known', () => {
    expect(worked(row, name => (name === 'rim' ? 30 : undefined))).toMatchObject({ x: 19, y: 2 });
    expect(worked(row, () => undefined)).toMatchObject({ x: 5, y: 2 });
  });
  test('a plain number needs no text beside it, a unit is no name', () => {
    expect(keptText('12 in', 'length')).toBeNull();
    expect(keptText('3 * 4.5', 'length')).toBeNull();
    expect(keptText('rim + 2', 'length')).toEqual({ text: 'rim + 2', unit: 'mm' });
  });
});

const job = (...edits: Edit[]) =>
  edits.reduce(
    (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
    newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP),
  );
const part = (document: ReturnType<typeof job>) =>
  new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');

test('a neighbour stands where the object’s size puts it, on the other side for the other hand', () => {
  const neighbour: Neighbour = {
    ...newNeighbour('n1', { id: 'o1', words: 'rail', clear: 20 }, null),
    texts: { x: { text: 'rim + 10', unit: 'mm' } },
  };
  const edits: Edit[] = [{ kind: 'part-neighbours', partId: 'part-1', neighbours: [neighbour] }];
  expect(part(job(...edits)).demands.neighbours[0]!.x).toBe(neighbour.x);
  expect(part(job(...edits, read('rim', 31.7))).demands.neighbours[0]!.x).toBeCloseTo(41.7, 6);
});

describe('room cut out for what is there', () => {
  test('a neighbour’s body, place, turn and room go into the addition', () => {
    const box = newNeighbour('n1', { id: 'o1', words: 'rail', clear: 20 }, null);
    expect(clearOfNeighbour(box)).toMatchObject({
      form: { text: 'box' },
      width: { text: '20' },
      room: { text: '0.5' },
    });
    expect(clearOfNeighbour({ ...box, form: 'round', width: 8, depth: 8 })).toMatchObject({
      diameter: { text: '8' },
    });
    expect(clearOfNeighbour({ ...box, form: 'model', model: 'm1', lies: 'over', turn: 30 })).toMatchObject({
      model: { text: 'm1' },
      lies: { text: 'over' },
      turn: { text: '30' },
    });
  });

  test('the edit takes them under the addition’s name, and refuses what it does not know', () => {
    const add = (begins: Extract<Edit, { kind: 'add-addition' }>['begins']): Edit => ({
      kind: 'add-addition',
      partId: 'part-1',
      addition: { id: 'clear1', kind: 'keep-clear', name: 'Room', on: true },
      begins,
    });
    const made = job(add(clearOfNeighbour(newNeighbour('n1', undefined, null))));
    expect(part(made).parameters.clear1_width).toBe(20);
    expect(() => job(add({ nothing: { text: '1', unit: 'mm' } }))).toThrow(/has no “nothing”/);
  });

  test('a zone is cut a little beyond the part, and no farther along', () => {
    const zone = { id: 'z1', name: 'plug', edge: 'right', end: 'front', from: 10, to: 25, deep: 5 } as const;
    const begins = clearOfZone(zone, { min: [0, 0, 0], max: [40, 80, 10] });
    expect(begins).toMatchObject({
      width: { text: '6' },
      depth: { text: '15' },
      height: { text: '12' },
      x: { text: '38' },
      y: { text: '17.5' },
      z: { text: '-1' },
    });
  });
});

test('a load’s face follows the numbers in its name, and for the other hand stands on the other side', () => {
  const load = { id: 'l1', words: 'a pull', kind: 'force' as const, amount: 60, towards: 'left' as const };
  const loads: Edit = {
    kind: 'part-loads',
    partId: 'part-1',
    loads: [{ ...load, at: 'left at -rim / 2', held: 'mate skirt' }],
  };
  const hand: Edit = {
    kind: 'add-addition',
    partId: 'part-1',
    addition: { id: 'hand1', kind: 'other-hand', name: 'Other hand', on: true },
  };
  expect(part(job(read('rim', 30), loads)).demands.loads[0]).toMatchObject({
    at: 'left at -15',
    held: 'mate skirt',
  });
  expect(part(job(read('rim', 30), loads, hand)).demands.loads[0]).toMatchObject({
    at: 'right at 15',
    towards: 'right',
  });
});
