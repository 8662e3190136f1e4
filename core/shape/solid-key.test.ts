import { expect, test } from 'vitest';
import { Recent } from './recent';
import { solidKey } from './solid-key';

const recipe = { id: 'round-cap', version: 1 };

test('the order of parameters does not matter; everything else does', () => {
  const key = solidKey(recipe, { a: 1, b: 'x' }, 'file', 'k1');
  expect(solidKey(recipe, { b: 'x', a: 1 }, 'file', 'k1')).toBe(key);
  for (const other of [
    solidKey(recipe, { a: 1.01, b: 'x' }, 'file', 'k1'),
    solidKey({ ...recipe, version: 2 }, { a: 1, b: 'x' }, 'file', 'k1'),
    solidKey(recipe, { a: 1, b: 'x' }, 'screen', 'k1'),
    solidKey(recipe, { a: 1, b: 'x' }, 'file', 'k2'),
  ]) {
    expect(other).not.toBe(key);
  }
});

test('the answer used longest ago is forgotten first', () => {
  const recent = new Recent<number>(2);
  recent.put('a', 1);
  recent.put('b', 2);
  recent.get('a');
  recent.put('c', 3);
  expect([recent.get('a'), recent.get('b'), recent.get('c')]).toEqual([1, undefined, 3]);
});
