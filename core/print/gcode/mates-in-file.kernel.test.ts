import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { type Dialect, gcodeOf } from '../../../testing/gcode';
import { toolpathsOf } from '../../../testing/toolpaths';
import type { Kernels } from '../../shape/kernels/kernel';
import { requireRecipe } from '../../shape/recipes';
import type { Parameters } from '../../shape/recipes/parameters';
import { solidOf } from '../../shape/solid';
import type { Point3 } from '../../shape/vector';
import { posed } from '../pose';
import { settingsFor } from '../settings';
import { lookedAt } from './look';
import type { Known } from './match';
import type { MateInFile } from './mates-in-file';
import { GcodeReader } from './reader';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const settings = { ...settingsFor('usual', 0.42), firstLayer: 0.2 };
const UP: Point3 = [0, 0, -1];

function version(recipe: string, change: Parameters = {}): Known {
  const { demo } = requireRecipe(recipe);
  const solid = solidOf({ recipe, additions: [], parameters: { ...demo.parameters, ...change } }, kernels);
  if (!solid.ok) throw new Error(solid.findings[0]!.message);
  return { id: 'v1', mesh: solid.part.whole, surfaces: solid.part.surfaces };
}

async function mates(
  known: Known,
  {
    walls = 3,
    dialect = {},
    turn = 20,
    down = UP,
  }: { walls?: number; dialect?: Dialect; turn?: number; down?: Point3 } = {},
): Promise<MateInFile[]> {
  const layers = await toolpathsOf(posed(known.mesh, { down, turn: 0 }), { ...settings, walls });
  const reader = new GcodeReader();
  reader.push(new TextEncoder().encode(gcodeOf(layers, settings.lineWidth, dialect, { turn })));
  return lookedAt(reader.end(), [known], { id: 'v1', down }, kernels.mesh).mates;
}

describe('surfaces that must fit, as the file will print them', () => {
  test.each(['bush', 'round-cap', 'stepped-sleeve', 'tube-adapter', 'rim-fork', 'socket-knob'])(
    '%s: upright ones within 0.02 of how they were drawn',
    async id => {
      const found = await mates(version(id));
      const told = found.filter(m => m.size !== null);
      expect(told.length, JSON.stringify(found.map(m => [m.surface, m.size]))).toBeGreaterThan(0);
      for (const m of told) {
        expect(Math.abs(m.size! - m.drawn), `${m.surface}: ${m.size} for ${m.drawn}`).toBeLessThan(0.02);
        expect(m.supported).toBe(false);
        expect(m.layers.length).toBeGreaterThan(0);
        expect(m.layers[0]!.lines.length).toBe(4 * m.layers[0]!.roles.length);
      }
    },
  );
  test.each([
    ['bush', [0, 1, 0]],
    ['bush', [1, 0, 0]],
    ['stepped-sleeve', [0, 1, 0]],
    ['rim-fork', [0, 1, 0]],
    ['tube-adapter', [0, 1, 0]],
    ['round-cap', [0, 1, 0]],
    ['plate-adapter', [0, 1, 0]],
    ['cradle', [0, 1, 0]],
  ] as [string, Point3][])('%s, lying on %j: level ones within 0.02 too', async (id, down) => {
    const found = await mates(version(id), { down });
    const told = found.filter(m => m.size !== null);
    for (const m of told)
      expect(Math.abs(m.size! - m.drawn), `${m.surface}: ${m.size} for ${m.drawn}`).toBeLessThan(0.02);
    expect(told.length).toBe(found.length);
  });
  test.each([
    ['tool-block', UP, ['hole'], 0.02],
    ['tool-block', [0, 0.966, -0.259], ['hole'], 0.02],
    ['hinge-leaf', [0.6, 0, -0.8], ['pin'], 0.02],
    ['board-tray', [0, 0.966, -0.259], ['board'], 0.02],
  ] as [string, Point3, string[], number][])(
    '%s, on %j: what leans is told too',
    async (id, down, surfaces, most) => {
      const found = await mates(version(id), { down });
      for (const surface of surfaces) {
        const m = found.find(f => f.surface === surface)!;
        expect(Math.abs(m.size! - m.drawn), `${surface}: ${m.size} for ${m.drawn}`).toBeLessThan(most);
        expect(m.passes).toBeGreaterThanOrEqual(3);
      }
    },
  );
  test('a leaning hole that is drawn 0.15 larger is read 0.15 larger', async () => {
    const { hole } = requireRecipe('tool-block').demo.parameters as { hole: number };
    const size = async (change: Parameters) =>
      (await mates(version('tool-block', change))).find(m => m.surface === 'hole')!.size!;
    expect((await size({ hole: hole + 0.15 })) - (await size({}))).toBeCloseTo(0.15, 1.7);
  });
  test.each([
    // In layers of 0.2, the first one too: each flat goes to the layer whose middle it passes.
    ['board-tray', [0, 1, 0], 'edge', 2],
    ['board-tray', [1, 0, 0], 'board', 30.4],
    ['drive-blade', [0, 1, 0], 'tip', 4.8],
    ['rim-fork', [1, 0, 0], 'slot', 8.4],
    ['rim-fork', [1, 0, 0], 'mouth', 6.6],
  ] as [string, Point3, string, number][])(
    '%s, on %j: “%s” comes in whole layers',
    async (id, down, surface, size) => {
      const m = (await mates(version(id), { down })).find(f => f.surface === surface)!;
      expect(m).toMatchObject({ inLayers: true, passes: 0 });
      expect(m.size).toBeCloseTo(size, 4);
    },
  );
  test('flats that are not found where they were drawn tell nothing', async () => {
    const found = await mates(version('cradle'));
    expect(found.find(m => m.surface === 'thickness')!.size).toBeNull();
    expect(found.find(m => m.surface === 'width')!.size).toBeCloseTo(78, 1);
  });
  test('where lines do not agree, nothing is told: no false alarm on an open ring', async () => {
    const found = await mates(version('tube-clip'), { down: [0, 1, 0] });
    for (const m of found) if (m.size !== null) expect(Math.abs(m.size - m.drawn)).toBeLessThan(0.02);
  });
  test('a lying bore that is drawn 0.15 larger is read 0.15 larger', async () => {
    const size = async (boreDiameter: number) =>
      (await mates(version('bush', { boreDiameter }), { down: [0, 1, 0] })).find(m => m.surface === 'bore')!
        .size!;
    const { boreDiameter } = requireRecipe('bush').demo.parameters as { boreDiameter: number };
    expect((await size(boreDiameter + 0.15)) - (await size(boreDiameter))).toBeCloseTo(0.15, 1.7);
  });
  test('without a word of what each line is, in inches, they are the same', async () => {
    const known = version('bush');
    const found = await mates(known, { dialect: { bare: true, relativeE: true, inches: true } });
    for (const m of found) expect(Math.abs(m.size! - m.drawn)).toBeLessThan(0.02);
  });
  test('a bore that is drawn 0.15 larger is read 0.15 larger', async () => {
    const size = async (boreDiameter: number) =>
      (await mates(version('bush', { boreDiameter }))).find(m => m.surface === 'bore')!.size!;
    const { boreDiameter } = requireRecipe('bush').demo.parameters as { boreDiameter: number };
    expect((await size(boreDiameter + 0.15)) - (await size(boreDiameter))).toBeCloseTo(0.15, 1.7);
  });
  test.each([2, 3, 4])('%d passes are counted beside a thick wall', async walls => {
    const found = await mates(version('stepped-sleeve'), { walls });
    const bore = found.find(m => m.size !== null)!;
    expect(bore.passes).toBe(walls);
  });
});
