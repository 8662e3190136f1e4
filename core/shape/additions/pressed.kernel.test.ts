import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { partWith, type Wish } from '../../../testing/part-with';
import { buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import { facing, type TriangleMesh } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';
import { lengthOfVector, type Point3, point3, scaled } from '../vector';
import { faceInWords, facePressed, followed, type Press, placeInWords } from './pressed';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

function made(id: string, wishes: readonly Wish[] = [], change: Parameters = {}) {
  const { recipe, parameters } = partWith(id, wishes, change);
  const build = (p: Parameters) => {
    const outcome = buildPart(recipe, p, kernels, 'screen');
    return outcome.ok ? outcome.part.mesh : null;
  };
  const mesh = build(parameters)!;
  const name = (press: Press) => {
    const face = facePressed(mesh, press);
    const { up, offset } = face;
    return faceInWords(face, offset === null ? null : followed({ up, offset }, recipe, parameters, build));
  };
  return { mesh, name };
}

/** The middle of the first triangle of the face, pressed by an eye above and in front. */
function pressOn(mesh: TriangleMesh, meant: (normal: Point3, middle: Point3) => boolean): Press {
  for (let t = 0; t < mesh.triangles.length / 3; t++) {
    const n = facing(mesh, t);
    const long = lengthOfVector(n);
    if (long < 1e-6) continue;
    const normal = scaled(n, 1 / long);
    const corners = [0, 1, 2].map(c => 3 * mesh.triangles[3 * t + c]!);
    const point = point3(i => corners.reduce((sum, c) => sum + mesh.positions[c + i]! / 3, 0));
    if (meant(normal, point)) return { point, normal, looks: [0.4, 0.5, -0.77] };
  }
  throw new Error('There is no such triangle.');
}
const leans = (n: Point3) => Math.abs(n[2]) > 0.1 && Math.abs(n[2]) < 0.99;

const block: Wish = { kind: 'shape', set: { width: 20, depth: 12, rise: 10 } };

describe('a press on the solid', () => {
  test('on a flat: by its side, and by the numbers that put it there', () => {
    const { mesh, name } = made('wall-plate', [block]);
    const top = Math.max(...Array.from(mesh.positions).filter((_, i) => i % 3 === 2));
    expect(name(pressOn(mesh, (n, p) => n[2] > 0.999 && p[2] > top - 0.01))).toBe('top');
    // The plate around the block: its thickness, by name.
    expect(name(pressOn(mesh, (n, p) => n[2] > 0.999 && p[2] < top - 1))).toMatch(/^top at thickness$/);
    expect(name(pressOn(mesh, (n, p) => n[0] > 0.999 && p[2] > top - 8))).toBe('right at shape1_width / 2');
    expect(name(pressOn(mesh, (n, p) => n[0] < -0.999 && p[2] > top - 8))).toBe('left at -shape1_width / 2');
  });

  test('in a hole’s wall, on a chamfer or a rounding: the large flat beside it', () => {
    const hole = made('plate-adapter');
    expect(hole.name(pressOn(hole.mesh, n => Math.abs(n[2]) < 0.01 && n[0] > 0.3 && n[1] > 0.3))).toBe('top');
    for (const kind of ['chamfer', 'round']) {
      const edges: Wish = { kind: 'edges', set: { which: 'face', place: 'top', how: kind, size: 1.2 } };
      const { mesh, name } = made('wall-plate', [edges]);
      expect(name(pressOn(mesh, n => leans(n) && n[2] > 0.6)), kind).toBe('top');
    }
  });

  test('on a round outside: the side it is on; on a slanted flat: that flat', () => {
    const bush = made('bush', [], { leadIn: 0 });
    expect(bush.name(pressOn(bush.mesh, (n, p) => n[0] > 0.98 && n[0] < 0.9997 && p[0] > 6))).toBe('right');
    const cut = made('bush', [], { leadIn: 0, endAngle: 20 });
    const place = cut.name(pressOn(cut.mesh, (n, p) => leans(n) && p[2] > 8));
    expect(place).toMatch(/^-?0(\.\d+)?, -?0(\.\d+)?, 0\.9397 at \d/);
  });
});

test('a place in the words of whoever looks for it', () => {
  expect(placeInWords({ point: [3, -9.9, 12.4], normal: [0.3, -0.95, 0] })).toBe('the front, 12 mm up');
  expect(placeInWords({ point: [0, 0, 15], normal: [0, 0.1, 0.99] })).toBe('the top');
});
