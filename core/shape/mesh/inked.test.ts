import { expect, test } from 'vitest';
import { inkedEdges } from './inked';

test('specks go, and short pieces of a long line stay', () => {
  const line = Array.from({ length: 10 }, (_, i) => [0.5 * i, 0, 0, 0.5 * (i + 1), 0, 0]);
  const specks = [
    [20, 0, 0, 20.4, 0, 0],
    [30, 0, 0, 30.9, 0, 0],
    [30.9, 0, 0, 30.9, 0.9, 0],
  ];
  const kept = inkedEdges(Float32Array.from([...specks[0]!, ...line.flat(), ...specks[1]!, ...specks[2]!]));
  expect([...kept]).toEqual(line.flat());
  expect(inkedEdges(new Float32Array())).toHaveLength(0);
});
