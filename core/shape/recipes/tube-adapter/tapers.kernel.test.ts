import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { readEdit as read } from '../../../../testing/read-edit';
import { applyEdit, type Edit } from '../../../job/edits';
import { emptyHistory } from '../../../job/history';
import { newJob } from '../../../job/new-job';
import { FIRST_WORKSHOP } from '../../../job/workshop';
import { Work } from '../../../work/work';
import { buildPart } from '../../build';
import type { Kernels } from '../../kernels/kernel';
import { loopNear, sectionAtZ } from '../../mesh/section';
import { requireRecipe } from '..';
import type { Parameters } from '../parameters';

const recipe = requireRecipe('tube-adapter');
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const at = (change: Parameters): Parameters => ({ ...recipe.demo.parameters, leadIn: 0, ...change });
/** Inside diameter of end A at a height, on the finished triangles. */
function insideAt(p: Parameters, z: number): number {
  const outcome = buildPart(recipe, p, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return loopNear(sectionAtZ(outcome.part.mesh, z), [0, 0], p.overA as number, 'inside')!.diameter;
}

describe('where a taper’s diameter holds', () => {
  const slope = 2 * Math.tan((2 * Math.PI) / 180);
  test.each([
    ['middle', 10],
    ['mouth', 0.2],
    ['inner', 19.8],
  ] as const)('%s', (holdsA, hold) => {
    const p = at({ taperA: 2, holdsA });
    expect(insideAt(p, hold)).toBeCloseTo(32.35, 2);
    expect(insideAt(p, 5)).toBeCloseTo(32.35 + slope * (hold - 5), 2);
    expect(recipe.surfaces(p).find(s => s.mate === 'overA')!.at[2]).toBeCloseTo(hold, 6);
  });
});

test('two diameters and a length give the angle, and the tip’s diameter holds at the inner end', () => {
  const set = (name: string, text: string): Edit => ({
    kind: 'parameter',
    partId: 'part-1',
    name,
    expression: { text, unit: 'none' },
  });
  const edits = [
    set('conedA', 'yes'),
    read('tube_a', 32),
    read('tube_far_a', 33.05),
    read('apart_a', 15),
    read('bore_b', 36),
  ];
  const job = edits.reduce(
    (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
    newJob('Drain', recipe, FIRST_WORKSHOP),
  );
  const part = new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');
  expect(part.needed.map(n => n.dimension.id)).toEqual(
    expect.arrayContaining(['tube_a', 'tube_far_a', 'apart_a']),
  );
  // atan(1.05 / 2 / 15) = 2.005°.
  expect(part.parameters.taperA).toBeCloseTo(2.005, 2);
  const p = { ...part.parameters, leadIn: 0 };
  expect(insideAt(p, 19.8)).toBeCloseTo(part.parameters.overA as number, 2);
  // At the mouth it is wider by what the tube grows over the end's length.
  expect(insideAt(p, 0.8) - insideAt(p, 15.8)).toBeCloseTo(1.05, 2);
});
