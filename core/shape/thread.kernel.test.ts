import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import type { Kernels } from './kernels/kernel';
import { closureOf, type TriangleMesh, volumeOf } from './mesh/mesh';
import { sectionAtZ } from './mesh/section';
import { crestOf, mostRounding, type ThreadForm, threadBody, threadMesh } from './thread';

const M20: ThreadForm = {
  major: 20,
  minor: 16.93,
  pitch: 2.5,
  starts: 1,
  hand: 'right',
  foot: 2.1875,
  flankAngle: 60,
  from: 0,
  to: 20,
};
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

/** The trimmed thread, by triangles. */
function build(form: ThreadForm): TriangleMesh {
  const body = threadBody(form, kernels.part);
  const meshOf = (b: typeof body): TriangleMesh =>
    b.triangles
      ? b.triangles(0.005)
      : b.made
        ? kernels.mesh.combine(b.made.by, meshOf(b.made.from), meshOf(b.made.with))
        : kernels.part.mesh(b, 0.005);
  const mesh = meshOf(body);
  kernels.part.release();
  return mesh;
}

/** Core and ridge by Pappus: the ridge's section, turned about the axis, once in each pitch. */
function volume(form: ThreadForm): number {
  const { major, minor, pitch, foot, from, to } = form;
  const h = (major - minor) / 2;
  const crest = crestOf(form);
  const flank = (foot - crest) / 2;
  const area = crest * h + flank * h;
  const centroid = (crest * h * (minor / 2 + h / 2) + flank * h * (minor / 2 + h / 3)) / area;
  const core = (Math.PI / 4) * minor ** 2 * (to - from);
  return core + ((2 * Math.PI * centroid * area) / pitch) * (to - from);
}

/** The angle about the axis at which the section at this height reaches out farthest, degrees. */
function farthest(mesh: TriangleMesh, z: number): number {
  const [loop] = sectionAtZ(mesh, z);
  const middle = loop!.points.filter(p => Math.hypot(...p) > 9.99);
  const [x, y] = middle.reduce(([a, b], [px, py]) => [a + px, b + py], [0, 0]);
  return (Math.atan2(y, x) * 180) / Math.PI;
}

describe('threads', () => {
  test.each([
    ['M20', M20],
    ['left-handed', { ...M20, hand: 'left' as const }],
    ['three starts', { ...M20, starts: 3 }],
    ['coarse 110 × 13', { ...M20, major: 110, minor: 100, pitch: 13, foot: 8, flankAngle: 30, to: 39 }],
  ])('%s: closed, and its volume is core and ridge', (_, form) => {
    const mesh = build(form);
    expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
    expect(Math.abs(volumeOf(mesh) / volume(form) - 1)).toBeLessThan(0.002);
  });

  test('rounded: closed, as large over its ridges, and never sharper than its radius', () => {
    const form = { ...M20, major: 110, minor: 103, pitch: 13, foot: 7.8, flankAngle: 40, to: 39 };
    const most = mostRounding(form);
    for (const rounding of [0.3, 0.8, most]) {
      const mesh = build({ ...form, rounding });
      expect(closureOf(mesh), String(rounding)).toEqual({ openEdges: 0, bodies: 1 });
      const reach = sectionAtZ(mesh, 20)[0]!.points.map(p => Math.hypot(...p));
      expect(2 * Math.max(...reach)).toBeCloseTo(110, 1);
      expect(2 * Math.min(...reach)).toBeCloseTo(103, 1);
      // Rounding a crest takes as much as rounding a root gives, but for their distance from the axis.
      expect(Math.abs(volumeOf(mesh) / volume(form) - 1)).toBeLessThan(0.004);
    }
    expect(() => threadMesh({ ...form, rounding: most + 0.1 }, 0.01)).toThrow('smaller');
  });

  test('a right-handed one turns counter-clockwise as it climbs, a left-handed one clockwise, by 360° a lead', () => {
    const turned = (form: ThreadForm) => {
      const mesh = build(form);
      const by = farthest(mesh, 10.5) - farthest(mesh, 10);
      return ((by + 540) % 360) - 180;
    };
    // Half a millimetre of 2.5 is 72°.
    expect(turned(M20)).toBeCloseTo(72, 0);
    expect(turned({ ...M20, hand: 'left' })).toBeCloseTo(-72, 0);
  });

  test('what is no thread is refused', () => {
    expect(() => threadMesh({ ...M20, minor: 21 }, 0.01)).toThrow(/above its minor/);
    expect(() => threadMesh({ ...M20, foot: 2.6 }, 0.01)).toThrow(/does not fit/);
    expect(() => threadMesh({ ...M20, foot: 1 }, 0.01)).toThrow(/does not fit/);
  });
});
