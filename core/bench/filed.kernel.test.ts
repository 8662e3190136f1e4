import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { type Pose, posed } from '../print/pose';
import { mirroredMesh, type TriangleMesh } from '../shape/mesh/mesh';
import { requireRecipe } from '../shape/recipes';
import { solidOf } from '../shape/solid';
import { filedAs } from './filed';

const recipe = requireRecipe('round-cap');
let part: Extract<ReturnType<typeof solidOf>, { ok: true }>['part'];
let other: typeof part;
beforeAll(async () => {
  const kernels = await startKernels();
  const built = (change: object) => {
    const solid = solidOf(
      { recipe: recipe.id, additions: [], parameters: { ...recipe.demo.parameters, ...change } },
      kernels,
    );
    if (!solid.ok) throw new Error(solid.findings[0]!.message);
    return solid.part;
  };
  part = built({});
  other = built({ wall: 3 });
});

const LYING: Pose = { down: [0, 1, 0], turn: 30 };
const drawn = () => part.mates.find(m => m.id === 'skirt')!.size;
/** As a slicing program places it: anywhere on the bed, scaled or not. */
const put = (mesh: TriangleMesh, scale: number, [x, y]: [number, number] = [110, 95]): TriangleMesh => ({
  triangles: mesh.triangles,
  positions: mesh.positions.map((v, i) => scale * v + [x, y, 0][i % 3]!),
});

describe('the practice printer prints what it is given', () => {
  test.each([1, 0.98, 1.03, 25.4])('the version’s own file, %d times as large', scale => {
    const found = filedAs(put(posed(part.mesh, LYING), scale), part, LYING)!;
    expect(found.scale).toBeCloseTo(scale, 4);
    expect(found.mirrored).toBe(false);
    expect(found.sizes.skirt! / scale).toBeCloseTo(drawn(), 2);
  });

  test('mirrored: the other hand, as large', () => {
    const found = filedAs(put(mirroredMesh(posed(part.mesh, LYING)), 1), part, LYING)!;
    expect(found.mirrored).toBe(true);
    expect(found.sizes.skirt).toBeCloseTo(drawn(), 2);
  });

  test('another part, and one that is stretched, are none of it', () => {
    expect(filedAs(put(posed(other.mesh, LYING), 1), part, LYING)).toBeNull();
    const flat = posed(part.mesh, LYING);
    const stretched = { ...flat, positions: flat.positions.map((v, i) => (i % 3 === 2 ? 1.05 * v : v)) };
    expect(filedAs(stretched, part, LYING)).toBeNull();
  });
});
