import { expect, test } from 'vitest';
import { packMeshes, unpackMeshes } from './packed';

const body = (n: number) => ({
  positions: Float64Array.from({ length: 9 * n }, (_, i) => i / 3 + n),
  triangles: Uint32Array.from({ length: 3 * n }, (_, i) => i),
});

test('what was packed comes out to the last bit, however many bodies', () => {
  for (const bodies of [[], [body(1)], [body(2), body(1), body(5)]]) {
    const packed = packMeshes(bodies);
    // As read from a file: in the middle of a larger buffer.
    const shifted = new Uint8Array(packed.length + 3);
    shifted.set(packed, 3);
    expect(unpackMeshes(shifted.subarray(3))).toEqual(bodies);
  }
});

test('bytes that are cut off are refused', () => {
  const packed = packMeshes([body(3)]);
  for (const length of [0, 3, 8, packed.length - 1])
    expect(() => unpackMeshes(packed.subarray(0, length))).toThrow(RangeError);
});
