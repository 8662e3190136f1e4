import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { type Dialect, gcodeOf, type Placing } from '../../../testing/gcode';
import { box, scaled } from '../../../testing/solids';
import { type ToolLayer, type ToolPath, toolpathsOf } from '../../../testing/toolpaths';
import type { Kernels } from '../../shape/kernels/kernel';
import type { TriangleMesh } from '../../shape/mesh/mesh';
import { requireRecipe } from '../../shape/recipes';
import type { Parameters } from '../../shape/recipes/parameters';
import { solidOf } from '../../shape/solid';
import type { Point3 } from '../../shape/vector';
import { isSameDirection, posed } from '../pose';
import { settingsFor } from '../settings';
import { lookedAt } from './look';
import type { Known, Planned } from './match';
import { GcodeReader } from './reader';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const settings = { ...settingsFor('usual', 0.42), firstLayer: 0.2 };
const UP: Point3 = [0, 0, -1];

function version(id: string, recipe: string, change: Parameters = {}): Known {
  const { demo } = requireRecipe(recipe);
  const solid = solidOf({ recipe, additions: [], parameters: { ...demo.parameters, ...change } }, kernels);
  if (!solid.ok) throw new Error(solid.findings[0]!.message);
  return { id, mesh: solid.part.whole, surfaces: solid.part.surfaces };
}

const sliced = (mesh: TriangleMesh, down: Point3 = UP, more = settings) =>
  toolpathsOf(posed(mesh, { down, turn: 0 }), more);

function look(
  layers: readonly ToolLayer[],
  known: readonly Known[],
  planned: Planned = {},
  dialect: Dialect = {},
  placing: Placing | readonly Placing[] = {},
) {
  const reader = new GcodeReader();
  reader.push(new TextEncoder().encode(gcodeOf(layers, settings.lineWidth, dialect, placing)));
  return lookedAt(reader.end(), known, planned, kernels.mesh);
}
const codes = ({ findings }: ReturnType<typeof look>) => findings.map(f => f.code);

/** The other recipes are tested in scripts/read-back.ts. */
describe.each(['bush', 'tube-clip', 'screw-handle'])('%s', id => {
  test('right files raise no alarm, whatever the dialect, and are read as they lie', async () => {
    const v = version('v1', id);
    const layers = await sliced(v.mesh);
    const dialects: [Dialect, number][] = [
      [{}, 0],
      [{ bare: true, relativeE: true, inches: true }, 37],
    ];
    for (const [dialect, turn] of dialects) {
      const found = look(layers, [v], { id: 'v1', down: UP }, dialect, { turn });
      expect(
        codes(found).filter(c => c !== 'no-support'),
        JSON.stringify(found.findings),
      ).toEqual([]);
      expect(found.match).toMatchObject({ id: 'v1', mirrored: false, copies: 1, down: UP });
      expect(Math.abs(found.match!.scale - 1)).toBeLessThan(0.001);
      expect(Math.abs(found.match!.moved)).toBeLessThan(0.02);
      expect(found.layerHeight).toBeCloseTo(settings.layer, 2);
      expect(found.layers).toBe(layers.filter(l => l.paths.length > 0).length);
    }
  });
  test('laid on another side it is another pose, and no other part', async () => {
    const v = version('v1', id);
    const down: Point3 = [0, -1, 0];
    const found = look(await sliced(v.mesh, down), [v], { id: 'v1', down: UP }, {}, { turn: 80 });
    expect(codes(found)).toContain('other-pose');
    expect(isSameDirection(found.match!.down, down) || isSameDirection(found.match!.down, [0, 1, 0])).toBe(
      true,
    );
    expect(Math.abs(found.match!.scale - 1)).toBeLessThan(0.001);
  });
  test('a few percent of “shrinkage”, and a part stretched along one side, are told', async () => {
    const v = version('v1', id);
    const grown = look(await sliced(scaled(v.mesh, 1.012)), [v], { id: 'v1' });
    expect(codes(grown)).toContain('scaled');
    expect(Math.abs(grown.match!.scale - 1.012)).toBeLessThan(0.001);
    const wide = { ...v.mesh, positions: v.mesh.positions.map((x, i) => (i % 3 === 0 ? 1.03 * x : x)) };
    expect(codes(look(await sliced(wide), [v], { id: 'v1' }))).toContain('stretched');
  });
});

test('layers thicker than half a lip are told, of that lip; thinner ones are not', async () => {
  const lip = async (lipWidth: number) => {
    const cap = version('v1', 'round-cap', { lip: 'skirt', lipWidth });
    const layers = await sliced(cap.mesh, UP, { ...settings, layer: 0.3, firstLayer: 0.3 });
    return look(layers, [cap]).findings.flatMap(f => (f.code === 'thick-layers' ? [f.surface] : []));
  };
  expect(await lip(0.5)).toEqual(['lip']);
  expect(await lip(1.6)).toEqual([]);
});

describe('slips', () => {
  test('a file read in inches is 25.4 times too small, and says so', async () => {
    const v = version('v1', 'cradle');
    const found = look(await sliced(scaled(v.mesh, 1 / 25.4)), [v], { id: 'v1' });
    expect(codes(found)).toContain('scaled');
    expect(found.findings[0]!.message).toContain('inches');
    expect(found.match!.scale).toBeCloseTo(1 / 25.4, 2);
    // So small that its walls are not printed at all: no version can be named, but the slip can.
    const cap = version('v1', 'round-cap');
    const lost = look(await sliced(scaled(cap.mesh, 1 / 25.4)), [cap], { id: 'v1' });
    expect(codes(lost)).toContain('scaled');
  });
  test('a right-hand thread that was mirrored is told by its thread; a part that is its own mirror image is not', async () => {
    // Like the demo's, at a third of its width.
    const cover = version('v1', 'threaded-cover', {
      coverThread: 40,
      pitchLength: 6,
      length: 16,
      ridge: 1.8,
      foot: 3.8,
    });
    const found = look(await sliced(cover.mesh), [cover], { id: 'v1' }, {}, { mirror: true, turn: 15 });
    expect(codes(found)).toContain('mirrored');
    const bush = version('v1', 'bush');
    expect(codes(look(await sliced(bush.mesh), [bush], { id: 'v1' }, {}, { mirror: true }))).toEqual([]);
  });
  test('a correction of outlines besides ours is read to a few hundredths', async () => {
    const v = version('v1', 'stepped-sleeve');
    // Half a tenth per side farther out: as a slicing program would do it, on every section.
    const layers = await sliced(v.mesh);
    for (const by of [0.05, -0.08]) {
      const moved = layers.map(l => ({ ...l, paths: l.paths.flatMap(p => movedOut(p, by)) }));
      const found = look(moved, [v], { id: 'v1' });
      expect(codes(found), String(by)).toContain('moved-outline');
      expect(Math.abs(found.match!.moved - by)).toBeLessThan(0.02);
      expect(codes(found)).not.toContain('scaled');
    }
  });
  test('a file that ends too early is incomplete, by its height or by its last line', async () => {
    const v = version('v1', 'bush');
    const layers = await sliced(v.mesh);
    expect(codes(look(layers.slice(0, Math.floor(0.6 * layers.length)), [v], { id: 'v1' }))).toContain(
      'incomplete',
    );
  });
  test('another part altogether is none of them', async () => {
    const found = look(await sliced(box([31, 17, 9])), [version('v1', 'hinge-leaf'), version('v2', 'bush')], {
      id: 'v1',
    });
    expect(found.match).toBeNull();
    expect(codes(found)).toEqual(['unknown-part']);
  });
  test('what hangs over air needs supports in the file', async () => {
    const v = version('v1', 'tube-clip');
    const upsideDown: Point3 = [0, 0, 1];
    const bare = await sliced(v.mesh, upsideDown);
    expect(codes(look(bare, [v], { id: 'v1', down: upsideDown }))).toContain('no-support');
    const carried = bare.map(
      (l, k): ToolLayer => ({
        ...l,
        paths:
          k > 2 && k < 20
            ? [
                ...l.paths,
                {
                  role: 'support',
                  points: [
                    [0, 20],
                    [8, 20],
                  ],
                },
              ]
            : l.paths,
      }),
    );
    expect(codes(look(carried, [v], { id: 'v1', down: upsideDown }))).not.toContain('no-support');
  });
});

/** Outermost and other passes, each moved at right angles to itself. */
function movedOut(path: ToolPath, by: number): ToolPath[] {
  if (path.role !== 'outer' && path.role !== 'inner') return [path];
  const ring = path.points.slice(0, -1);
  const points = ring.map((p, i): [number, number] => {
    const [a, b] = [ring[(i + ring.length - 1) % ring.length]!, ring[(i + 1) % ring.length]!];
    const [x, y] = [b[0] - a[0], b[1] - a[1]];
    const long = Math.hypot(x, y) || 1;
    return [p[0] + (by * y) / long, p[1] - (by * x) / long];
  });
  return [{ ...path, points: [...points, points[0]!] }];
}

describe('which version', () => {
  test.each([
    ['stepped-sleeve', { sleeveDiameter: 0.15 }],
    ['rim-fork', { slot: 0.12 }],
    ['bush', { length: 0.4 }],
  ])('%s: versions that differ by little in one number are told apart', async (id, by) => {
    const { demo } = requireRecipe(id);
    const names = Object.keys(by);
    for (const name of names) expect(demo.parameters).toHaveProperty(name);
    const change = Object.fromEntries(
      Object.entries(by).map(([name, d]) => [name, (demo.parameters[name] as number) + d]),
    );
    const known = [version('v1', id), version('v2', id, change)];
    for (const meant of known) {
      const other = known.find(k => k !== meant)!;
      const found = look(await sliced(meant.mesh), known, { id: other.id }, {}, { turn: 25 });
      expect(found.match?.id).toBe(meant.id);
      expect(codes(found)).toContain('other-version');
    }
  });
  test('the same solid twice cannot be told apart, unless one of them was meant', async () => {
    const known = [version('v1', 'bush'), version('v2', 'bush')];
    const layers = await sliced(known[0]!.mesh);
    expect(look(layers, known).match).toMatchObject({ id: null });
    expect(look(layers, known, { id: 'v2' }).match).toMatchObject({ id: 'v2' });
  });
  test('copies on the bed are counted', async () => {
    const v = version('v1', 'rim-fork');
    const places: Placing[] = [{ at: [60, 60] }, { at: [120, 60], turn: 90 }, { at: [60, 130], turn: 45 }];
    expect(look(await sliced(v.mesh), [v], { id: 'v1' }, {}, places).match).toMatchObject({
      id: 'v1',
      copies: 3,
    });
  });
});
