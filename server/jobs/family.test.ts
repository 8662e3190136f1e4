import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readThreeMf } from '../../core/files/reading-back';
import { laidOut } from '../../core/print/plate/rows';
import { boundsOf, closureOf } from '../../core/shape/mesh/mesh';
import { type TestServer, testServer } from '../../testing/server';
import { sizesOf } from './family';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

describe('sizes', () => {
  test('both ends are in it', () => {
    expect(sizesOf({ parameter: 'x', from: 22, to: 24, step: 0.5 })).toEqual([22, 22.5, 23, 23.5, 24]);
    expect(sizesOf({ parameter: 'x', from: 1, to: 1, step: 1 })).toEqual([1]);
    expect(sizesOf({ parameter: 'x', from: 0.1, to: 0.3, step: 0.1 })).toEqual([0.1, 0.2, 0.3]);
  });
  test.each([
    { from: 2, to: 1, step: 1 },
    { from: 1, to: 2, step: 0 },
    { from: 1, to: Number.NaN, step: 1 },
    { from: 1, to: 100, step: 1 },
  ])('%o is refused', wish => {
    expect(() => sizesOf({ parameter: 'x', ...wish })).toThrow();
  });
});

test('a spacer in five lengths: five bodies, named, apart, each of its own length', async () => {
  const { id } = await server.newJob('Spacers', 'bush');
  const path = `/jobs/${id}/parts/part-1/family.3mf`;
  const { meshes, title } = readThreeMf(
    await server.bytes(`${path}?parameter=length&from=10&to=12&step=0.5`),
  );
  expect(title).toBe('Spacers, 5 sizes');
  expect(meshes).toHaveLength(5);
  const boxes = meshes.map(m => boundsOf(m));
  expect(boxes.map(b => Number((b.max[2] - b.min[2]).toFixed(2)))).toEqual([10, 10.5, 11, 11.5, 12]);
  for (const m of meshes) expect(closureOf(m)).toEqual({ openEdges: 0, bodies: 1 });
  boxes.slice(1).forEach((b, i) => {
    expect(b.min[0] - boxes[i]!.max[0]).toBeCloseTo(5, 2);
  });
});

test('what cannot be is said: no such size, out of range, a part that cannot be built', async () => {
  const { id } = await server.newJob('Spacers', 'bush');
  const ask = async (query: string) => {
    const answer = await server.call('GET', `/jobs/${id}/parts/part-1/family.3mf?${query}`);
    return `${answer.status} ${answer.body.error.message}`;
  };
  expect(await ask('parameter=style&from=1&to=2&step=1')).toMatch(/^400 .*choose which/);
  expect(await ask('parameter=length&from=1&to=x&step=1')).toMatch(/^400 /);
  expect(await ask('parameter=length&from=290&to=310&step=10')).toMatch(
    /^422 With length at the axis 310 mm: .*at most 300/,
  );
  expect(await ask('parameter=boreDiameter&from=8&to=14&step=6')).toMatch(/^422 With bore 14 mm: .*No wall/);
});

test('more than the bed holds is not laid out', () => {
  const mesh = {
    positions: new Float64Array([0, 0, 0, 50, 0, 0, 0, 50, 0]),
    triangles: new Uint32Array([0, 1, 2]),
  };
  expect(laidOut(Array(4).fill({ mesh }), 110, 110)).toHaveLength(4);
  expect(laidOut(Array(5).fill({ mesh }), 110, 110)).toBeNull();
});
