import { expect, test } from 'vitest';
import type { Addition } from './additions/addition';
import { Recent } from './recent';
import { solidKey } from './solid-key';

const hole = (id: string, order: number, on = true): Addition => ({ id, kind: 'hole', name: id, order, on });
const cap = (parameters: Record<string, number | string>, additions: Addition[] = []) => ({
  recipe: 'round-cap',
  additions,
  parameters,
});

test('the order of parameters does not matter; everything else does', () => {
  const key = solidKey(cap({ a: 1, b: 'x' }), 'file', 'k1');
  expect(solidKey(cap({ b: 'x', a: 1 }), 'file', 'k1')).toBe(key);
  for (const other of [
    solidKey(cap({ a: 1.01, b: 'x' }), 'file', 'k1'),
    solidKey(cap({ a: 1, b: 'x' }), 'file', 'k1', () => 99),
    solidKey(cap({ a: 1, b: 'x' }), 'screen', 'k1'),
    solidKey(cap({ a: 1, b: 'x' }), 'file', 'k2'),
    solidKey(cap({ a: 1, b: 'x' }, [hole('hole1', 1)]), 'file', 'k1'),
  ])
    expect(other).not.toBe(key);
});

test('additions count by what comes before what, and only those that are on', () => {
  const key = (...additions: Addition[]) => solidKey(cap({}, additions), 'file', 'k');
  expect(key(hole('hole1', 1), hole('hole2', 2))).toBe(key(hole('hole2', 9), hole('hole1', 3)));
  expect(key(hole('hole1', 2), hole('hole2', 1))).not.toBe(key(hole('hole1', 1), hole('hole2', 2)));
  expect(key(hole('hole1', 1), hole('hole2', 2, false))).toBe(key(hole('hole1', 1)));
});

test('the answer used longest ago is forgotten first', () => {
  const recent = new Recent<number>(2);
  recent.put('a', 1);
  recent.put('b', 2);
  recent.get('a');
  recent.put('c', 3);
  expect([recent.get('a'), recent.get('b'), recent.get('c')]).toEqual([1, undefined, 3]);
});
