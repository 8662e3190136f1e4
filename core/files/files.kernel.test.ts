import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import { box } from '../../testing/solids';
import { AS_DRAWN } from '../print/pose';
import type { Kernels } from '../shape/kernels/kernel';
import { closureOf, volumeOf } from '../shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../shape/mesh/section';
import { roundCap } from '../shape/recipes/round-cap';
import { solidOf } from '../shape/solid';
import { namedStep, partStep, partStl, partThreeMf } from './part-files';
import { readStl, readThreeMf } from './reading-back';
import { writeStl } from './stl';
import { writeThreeMf } from './three-mf';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const parameters = { ...roundCap.demo.parameters, style: 'both', lip: 'skirt' };
const buildAll = async () => {
  const spec = { recipe: 'round-cap', additions: [], parameters };
  const solid = solidOf(spec, kernels);
  if (!solid.ok) throw new Error('not built');
  const name = 'Vent-port cap v3';
  return {
    stl: partStl(solid.part, name, AS_DRAWN),
    '3mf': partThreeMf(solid.part, { name, note: 'n' }, AS_DRAWN),
    step: namedStep(await partStep(spec, kernels), name),
  };
};

describe('the three files describe one closed solid, in mm', () => {
  test('volumes agree within 0.5 %, STEP read back from its text', async () => {
    const files = await buildAll();
    const stl = readStl(files.stl);
    const { unit, meshes } = readThreeMf(files['3mf']);
    const text = new TextDecoder().decode(files.step);
    const step = kernels.part.mesh(await kernels.part.readStep(text), 0.0025);
    kernels.part.release();
    expect(unit).toBe('millimeter');
    expect(text).toContain('SI_UNIT(.MILLI.,.METRE.)');
    expect(meshes).toHaveLength(1);
    for (const mesh of [stl, meshes[0]!, step]) expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
    const volume = volumeOf(meshes[0]!);
    expect(Math.abs(volumeOf(stl) / volume - 1)).toBeLessThan(0.0001);
    expect(Math.abs(volumeOf(step) / volume - 1)).toBeLessThan(0.005);
  });

  test('a section of each file through each mate measures the model number within 0.01', async () => {
    const files = await buildAll();
    const step = kernels.part.mesh(await kernels.part.readStep(new TextDecoder().decode(files.step)), 0.0025);
    kernels.part.release();
    for (const mesh of [readStl(files.stl), readThreeMf(files['3mf']).meshes[0]!, step]) {
      for (const surface of roundCap.surfaces(parameters)) {
        const loop = loopNear(sectionAtZ(mesh, surface.at[2]), [0, 0], surface.size, surface.side);
        expect(Math.abs(loop!.diameter - surface.size), surface.mate).toBeLessThan(0.01);
      }
    }
  });

  test('the same input gives the same bytes, whatever the time', async () => {
    const [a, b] = [await buildAll(), await buildAll()];
    for (const kind of ['stl', '3mf', 'step'] as const)
      expect(Buffer.from(a[kind]).equals(Buffer.from(b[kind])), kind).toBe(true);
  });
});

describe('names and odd characters', () => {
  test('a name cannot break the XML, and stays readable', () => {
    const { title, meshes } = readThreeMf(
      writeThreeMf('A <b> & "c" 🦆 \u0007', 'x', [{ name: '"><object', mesh: box([1, 2, 3]) }]),
    );
    expect(title).toBe('A &#60;b&#62; &#38; &#34;c&#34; 🦆 ');
    expect(volumeOf(meshes[0]!)).toBeCloseTo(6, 9);
  });

  test('numbers never come in exponent form', () => {
    const mesh = box([1, 1, 1], [1e-9, 0, 0]);
    const [read] = readThreeMf(writeThreeMf('t', 'n', [{ name: 'b', mesh }])).meshes;
    expect([...read!.positions].every(Number.isFinite)).toBe(true);
  });

  test('several bodies keep apart', () => {
    const file = writeThreeMf('pair', 'n', [
      { name: 'left', mesh: box([1, 1, 1]) },
      { name: 'right', mesh: box([2, 2, 2], [5, 0, 0]) },
    ]);
    expect(readThreeMf(file).meshes.map(volumeOf)).toEqual([expect.closeTo(1, 9), expect.closeTo(8, 9)]);
  });

  test('an STL’s header says mm and never begins with “solid”', () => {
    const bytes = writeStl(box([1, 2, 3]), 'solid émile 🦆'.repeat(20));
    const header = String.fromCharCode(...bytes.subarray(0, 80));
    expect(header).toMatch(/^Sagoma mm solid/);
    expect(volumeOf(readStl(bytes))).toBeCloseTo(6, 6);
  });
});
