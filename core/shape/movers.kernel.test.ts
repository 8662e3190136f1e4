import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { nudgesOf } from '../work/nudges';
import { Work } from '../work/work';
import { buildPart } from './build';
import type { BuiltPart } from './built-part';
import type { Kernels } from './kernels/kernel';
import { type Mover, moversAt } from './movers';
import { requireRecipe } from './recipes';
import type { Parameters } from './recipes/parameters';
import type { Point3 } from './vector';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

/** A job's part as drawn before anything is read, with what moves a place that is found on its solid. */
function movers(id: string, place: (part: BuiltPart, p: Parameters) => { point: Point3; normal: Point3 }) {
  const recipe = requireRecipe(id);
  const work = new Work(newJob('Any', recipe, FIRST_WORKSHOP), FIRST_WORKSHOP, emptyHistory());
  const { parameters } = work.part('part-1');
  const build = (p: Parameters) => {
    const outcome = buildPart(recipe, p, kernels, 'screen');
    return outcome.ok ? outcome.part : null;
  };
  const now = build(parameters)!;
  return moversAt(place(now, parameters), now, nudgesOf(work, 'part-1'), build);
}
const rateOf = (list: readonly Mover[], name: string) => list.find(m => m.name === name)?.rate ?? 0;

describe('what moves a place on the solid', () => {
  // A cap lies on its closed end: its open edge is at end thickness + skirt depth, its outside at bore / 2 + wall.
  test('the open edge of a cap: its depth and its end, one to one', () => {
    const found = movers('round-cap', (part, p) => ({
      point: [(p.skirtDiameter as number) / 2 + (p.wall as number) / 2, 0, part.bounds.max[2]],
      normal: [0, 0, 1],
    }));
    expect(rateOf(found, 'skirtDepth')).toBeCloseTo(1, 2);
    expect(rateOf(found, 'endThickness')).toBeCloseTo(1, 2);
    expect(rateOf(found, 'wall')).toBe(0);
    expect(found[0]!.disturbs).toEqual([]);
  });

  test('its outside: the wall, and half of its bore, which disturbs the seat and so comes last', () => {
    const found = movers('round-cap', (_, p) => ({
      point: [
        (p.skirtDiameter as number) / 2 + (p.wall as number),
        0,
        (p.endThickness as number) + (p.skirtDepth as number) / 2,
      ],
      normal: [1, 0, 0],
    }));
    expect(rateOf(found, 'wall')).toBeCloseTo(1, 1);
    expect(rateOf(found, 'skirtDiameter')).toBeCloseTo(0.5, 1);
    const names = found.map(m => m.name);
    expect(names.indexOf('wall')).toBeLessThan(names.indexOf('skirtDiameter'));
    expect(found.find(m => m.name === 'skirtDiameter')!.disturbs).toEqual(['skirt']);
  });

  test('its bore from within: outwards of a hole is inwards, so a larger one goes back', () => {
    const found = movers('round-cap', (_, p) => ({
      point: [(p.skirtDiameter as number) / 2, 0, (p.endThickness as number) + (p.skirtDepth as number) / 2],
      normal: [-1, 0, 0],
    }));
    expect(rateOf(found, 'skirtDiameter')).toBeCloseTo(-0.5, 1);
    expect(found[0]!.share).toBeLessThan(1);
  });

  test('the top of a bush: its length alone', () => {
    const found = movers('bush', part => {
      const { mesh } = part;
      // Any place on its uppermost face.
      const top = part.bounds.max[2];
      for (let t = 0; t < mesh.triangles.length; t += 3) {
        const at = [0, 1, 2].map(c => 3 * mesh.triangles[t + c]!);
        if (!at.every(v => Math.abs(mesh.positions[v + 2]! - top) < 1e-6)) continue;
        const middle = (i: number) => at.reduce((sum, v) => sum + mesh.positions[v + i]!, 0) / 3;
        return { point: [middle(0), middle(1), top], normal: [0, 0, 1] };
      }
      throw new Error('no face on top');
    });
    expect(found.every(m => m.disturbs.length === 0)).toBe(true);
    expect(found[0]).toMatchObject({ name: 'length', rate: expect.closeTo(1, 2) });
  });
});
