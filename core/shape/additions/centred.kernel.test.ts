import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { partWith } from '../../../testing/part-with';
import { buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import { boundsOf } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';
import { seatOf } from './place';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
function sideMiddle(change: Parameters, from: 'face' | 'middle'): number {
  const plate = {
    outline: '0, 0; 40, 0; 40, 30; 0, 30',
    widthSize: 40,
    thickness: 12,
    holes: '',
    ...change,
  };
  const { recipe, parameters } = partWith('profile-part', [], plate);
  const outcome = buildPart(recipe, parameters, kernels, 'screen');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  expect(boundsOf(outcome.part.mesh).max[2]).toBeCloseTo(12, 5);
  return seatOf(outcome.part.mesh, { up: [1, 0, 0], at: null, plane: false }, from).frame.at[2];
}

test('a lead-in at one end does not move the middle of a side', () => {
  expect(sideMiddle({ leadIn: 0 }, 'middle')).toBeCloseTo(6, 2);
  // Its flat begins above the chamfer.
  expect(sideMiddle({ leadIn: 0.4 }, 'face')).toBeCloseTo(6.2, 2);
  for (const leadIn of [0.4, 1, 2]) expect(Math.abs(sideMiddle({ leadIn }, 'middle') - 6)).toBeLessThan(0.08);
});

test('a step beside a face is no edge of it', () => {
  const { recipe, parameters } = partWith('wall-plate', [
    { kind: 'shape', set: { width: 20, depth: 12, rise: 10, x: 5 } },
  ]);
  const outcome = buildPart(recipe, parameters, kernels, 'screen');
  if (!outcome.ok) throw new Error('not built');
  const seat = (from: 'face' | 'middle') =>
    seatOf(outcome.part.mesh, { up: [0, 0, 1], at: null, plane: false }, from).frame.at;
  expect(seat('middle')[0]).toBeCloseTo(seat('face')[0], 6);
});
