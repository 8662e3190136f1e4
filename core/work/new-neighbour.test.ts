import { expect, test } from 'vitest';
import { Neighbour } from '../job/document';
import { newNeighbour } from './new-neighbour';

const rail = { id: 'o1', words: 'gunwale', clear: 75 };
const bounds = { min: [-20, -5, 0], max: [30, 15, 8] } as Parameters<typeof newNeighbour>[2];

test('what the brief says is clear is the distance from the part, not room around a box', () => {
  const made = newNeighbour('n1', rail, bounds);
  expect(made.x - made.width / 2 - 30).toBeCloseTo(75, 6);
  expect(made).toMatchObject({ name: 'gunwale', y: 5, z: 0, room: 0.5 });
});

test('one that touches has no room; one of which nothing is said stands beside the part', () => {
  expect(newNeighbour('n1', { ...rail, clear: 0 }, bounds)).toMatchObject({ x: 40, room: 0 });
  expect(newNeighbour('n1', undefined, bounds)).toMatchObject({ name: 'neighbour', x: 60 });
});

test('without a solid, and far away, it is still one that can be kept', () => {
  expect(newNeighbour('n1', rail, null).x).toBe(85);
  expect(Neighbour.safeParse(newNeighbour('n1', { ...rail, clear: 5000 }, bounds)).success).toBe(true);
});
