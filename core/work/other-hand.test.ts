import { expect, test } from 'vitest';
import { AS_DRAWN } from '../print/pose';
import type { Addition } from '../shape/additions/addition';
import { otherHandOf, poseOfOther } from './other-hand';

const addition = (id: string, kind: Addition['kind'], order: number): Addition => ({
  id,
  kind,
  name: id,
  order,
  on: true,
});
const version = (additions: Addition[]) => ({
  recipe: 'round-cap',
  parameters: { wall: 2 },
  additions,
  pose: AS_DRAWN,
});
const orders = (additions: Addition[]) =>
  otherHandOf(version(additions))
    .additions.toSorted((a, b) => a.order - b.order)
    .map(a => a.kind);

test('mirrored after all that is on it, and before it falls into pieces', () => {
  expect(orders([])).toEqual(['other-hand']);
  expect(orders([addition('hole1', 'hole', 5)])).toEqual(['hole', 'other-hand']);
  expect(orders([addition('hole1', 'hole', 5), addition('split1', 'split', 6)])).toEqual([
    'hole',
    'other-hand',
    'split',
  ]);
  expect(orders([addition('split1', 'split', 3)])).toEqual(['other-hand', 'split']);
});

test('one that is mirrored already is mirrored back, under a name that is free', () => {
  const found = otherHandOf(version([addition('hand1', 'other-hand', 2)])).additions;
  expect(found.map(a => a.id)).toEqual(['hand1', 'hand2']);
});

test('it lies on the same face of itself', () => {
  const down = [Math.SQRT1_2, 0, -Math.SQRT1_2] as const;
  expect(poseOfOther({ down, turn: 30 })).toEqual({ down: [-Math.SQRT1_2, 0, -Math.SQRT1_2], turn: -30 });
  expect(poseOfOther(AS_DRAWN)).toEqual(AS_DRAWN);
});
