import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { box } from '../../../testing/solids';
import type { Kernels } from '../../shape/kernels/kernel';
import { boundsOf, type TriangleMesh } from '../../shape/mesh/mesh';
import { RECIPES } from '../../shape/recipes';
import { solidOf } from '../../shape/solid';
import { copiesOnBed, type Placement, placedOn, platesOf } from './plate';
import { GAP, rowsOf } from './rows';

let kernels: Kernels;
let demos: { id: string; mesh: TriangleMesh }[];
beforeAll(async () => {
  kernels = await startKernels();
  demos = RECIPES.map(({ id, demo }) => {
    const solid = solidOf({ recipe: id, additions: [], parameters: demo.parameters }, kernels);
    if (!solid.ok) throw new Error(solid.findings[0]!.message);
    return { id, mesh: solid.part.mesh };
  });
});

const bed = { width: 220, depth: 220 };

/** Pairs that overlap, or are nearer than the gap. */
function clashes(meshes: readonly TriangleMesh[]): number {
  const boxes = meshes.map(boundsOf);
  let found = 0;
  for (let i = 0; i < meshes.length; i++)
    for (let j = i + 1; j < meshes.length; j++) {
      const far = [0, 1].some(
        k => boxes[i]!.min[k]! - boxes[j]!.max[k]! > GAP || boxes[j]!.min[k]! - boxes[i]!.max[k]! > GAP,
      );
      if (!far && nearest(meshes[i]!, meshes[j]!) < GAP - 0.3) found++;
      if (!far && kernels.mesh.common(meshes[i]!, meshes[j]!)) found++;
    }
  return found;
}

/** The least distance between corners seen from above, mm. */
function nearest(a: TriangleMesh, b: TriangleMesh): number {
  let least = Infinity;
  for (let i = 0; i < a.positions.length; i += 3)
    for (let j = 0; j < b.positions.length; j += 3)
      least = Math.min(
        least,
        Math.hypot(a.positions[i]! - b.positions[j]!, a.positions[i + 1]! - b.positions[j + 1]!),
      );
  return least;
}

const onTheBed = (mesh: TriangleMesh): boolean => {
  const { min, max } = boundsOf(mesh);
  return min[0] > -1e-6 && min[1] > -1e-6 && max[0] < bed.width + 1e-6 && max[1] < bed.depth + 1e-6;
};

describe('copies of one part', () => {
  test('never fewer than in rows, none over the edge', () => {
    let [more, rows] = [0, 0];
    for (const { id, mesh } of demos) {
      const { min, max } = boundsOf(mesh);
      const inRows = rowsOf([max[0] - min[0], max[1] - min[1]], bed).length;
      const found = copiesOnBed(mesh, bed, 60);
      expect(found, id).toBeGreaterThanOrEqual(Math.min(60, inRows));
      more += found;
      rows += Math.min(60, inRows);
    }
    expect(more).toBeGreaterThan(rows);
  });
  test('what is one part too many goes on the next bed', () => {
    const mesh = box([100, 100, 5]);
    const { beds, left } = platesOf([{ mesh, pieces: 9 }], bed);
    expect(beds.map(b => b.length)).toEqual([4, 4, 1]);
    expect(left).toEqual([0]);
  });
  test('what is larger than the bed lies on none', () => {
    const { beds, left } = platesOf([{ mesh: box([400, 10, 5]), pieces: 2 }], bed);
    expect(beds).toEqual([]);
    expect(left).toEqual([2]);
  });
  test('a bar that fits only across the corners lies there', () => {
    const bar = box([270, 20, 5]);
    expect(platesOf([{ mesh: bar, pieces: 1 }], bed).beds).toHaveLength(1);
  });
});

describe('several parts on one bed', () => {
  test('keep their gap, share no room and stay on the bed', () => {
    const bodies = demos.filter(d => d.id !== 'duct-adapter' && d.id !== 'threaded-cover');
    const { beds, left } = platesOf(
      bodies.map(({ mesh }) => ({ mesh, pieces: 1 })),
      bed,
    );
    expect(left.every(n => n === 0)).toBe(true);
    expect(beds.length).toBeLessThanOrEqual(2);
    for (const one of beds) {
      const lies = one.map((p: Placement) => placedOn(bodies[p.body]!.mesh, p));
      expect(lies.every(onTheBed)).toBe(true);
      expect(clashes(lies)).toBe(0);
    }
  });
  test('a small one goes into the gap of a bent one', () => {
    const angle = kernels.mesh.extrude(
      [
        [
          [0, 0],
          [100, 0],
          [100, 20],
          [20, 20],
          [20, 100],
          [0, 100],
        ],
      ],
      5,
    );
    const small = { width: 101, depth: 101 };
    const { beds, left } = platesOf(
      [
        { mesh: angle, pieces: 1 },
        { mesh: box([60, 60, 5]), pieces: 1 },
      ],
      small,
    );
    expect(left).toEqual([0, 0]);
    expect(beds).toHaveLength(1);
  });
});
