import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { readStl, readThreeMf } from '../core/files/reading-back';
import { writeStl } from '../core/files/stl';
import { closureOf, volumeOf } from '../core/shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../core/shape/mesh/section';
import { subdivided } from '../core/shape/mesh/subdivided';
import { answer, sagoma } from '../testing/sagoma';
import { box } from '../testing/solids';

const folder = mkdtempSync(join(tmpdir(), 'sagoma-cli-part-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('part build', () => {
  test('the file measures what the answer says', async () => {
    for (const kind of ['stl', '3mf'] as const) {
      const out = join(folder, `cap.${kind}`);
      const made = await answer(`part build --out ${out}`, {
        recipe: 'round-cap',
        parameters: { lip: 'skirt' },
      });
      expect(made).toMatchObject({ watertight: true, findings: expect.any(Array) });
      const bytes = new Uint8Array(readFileSync(out));
      const mesh = kind === 'stl' ? readStl(bytes) : readThreeMf(bytes).meshes[0]!;
      expect(closureOf(mesh)).toEqual({ openEdges: 0, bodies: 1 });
      expect(volumeOf(mesh) / made.volume).toBeCloseTo(1, 4);
      expect(made.mates.map((m: { id: string }) => m.id)).toEqual(['skirt', 'lip']);
      for (const mate of made.mates) {
        const loop = loopNear(sectionAtZ(mesh, mate.at[2]), [mate.at[0], mate.at[1]], mate.size, mate.side);
        expect(Math.abs(loop!.diameter - mate.size), mate.id).toBeLessThan(0.001);
      }
    }
  });
  test('additions are built, measured where they must fit, and say what is wrong with them', async () => {
    const out = join(folder, 'plate.3mf');
    const made = await answer(`part build --out ${out}`, {
      recipe: 'wall-plate',
      additions: [
        { kind: 'shape', parameters: { section: 'round', diameter: 8, rise: 12 }, mate: true },
        { kind: 'hole', id: 'hole7', parameters: { place: 'top at 99' } },
      ],
    });
    expect(made.bounds.max[2]).toBeCloseTo(16, 3);
    expect(made.mates.find((m: { id: string }) => m.id === 'shape1').size).toBeCloseTo(8, 2);
    expect(made.findings[0]).toMatchObject({ level: 'stop', code: 'addition-gone', addition: 'hole7' });
    const { additions } = await answer('part additions', '');
    const hole = additions.find((a: { kind: string }) => a.kind === 'hole');
    expect(hole.parameters.properties.screw.enum).toContain('M4');
  });

  test('room for a body from a file, named under “models”', async () => {
    const file = join(folder, 'brick.stl');
    writeFileSync(file, writeStl(box([10, 6, 2]), 'brick'));
    const clear = {
      kind: 'keep-clear',
      parameters: { form: 'model', model: 'brick', room: 0, z: 3, y: 12 },
    };
    const plain = await answer('part build', { recipe: 'wall-plate' });
    const made = await answer('part build', {
      recipe: 'wall-plate',
      additions: [clear],
      models: { brick: file },
    });
    expect(plain.volume - made.volume).toBeCloseTo(60, 1);
    for (const models of [{}, { brick: join(folder, 'nothing.step') }]) {
      const input = { recipe: 'wall-plate', additions: [clear], models };
      const { code, err } = await sagoma('part build', input);
      expect(code).toBe(2);
      expect(JSON.parse(err).error.message).toMatch(/no model “brick”|cannot be read/);
    }
  });

  test('a part that follows a scan, named under “models” too', async () => {
    const file = join(folder, 'pebble.stl');
    writeFileSync(file, writeStl(subdivided(box([60, 30, 16]), 4), 'pebble'));
    const parameters = { object: 'pebble', opening: 30.8, sunk: 9, long: 72, draft: 0, mouth: 0 };
    const made = await answer('part build', { recipe: 'recess', parameters, models: { pebble: file } });
    expect(made.watertight).toBe(true);
    expect(made.mates[0].size).toBeCloseTo(30.8, 2);
    // The space removed is nearly a brick of its size with 0.4 mm of clearance all round.
    const taken = 72 * (made.bounds.max[1] - made.bounds.min[1]) * made.bounds.max[2] - made.volume;
    expect(taken / (60.8 * 30.8 * 9.4)).toBeGreaterThan(0.97);
    expect(taken / (60.8 * 30.8 * 9.4)).toBeLessThan(1.03);
    expect(made.findings.map((f: { code: string }) => f.code)).toContain('comes-out');
    for (const models of [{}, { pebble: join(folder, 'nothing.ply') }]) {
      const { code, err } = await sagoma('part build', { recipe: 'recess', parameters, models });
      expect(code).toBe(2);
      expect(JSON.parse(err).error.message).toMatch(/no model “pebble”|cannot be read/);
    }
  });

  test('what is left out follows what was given', async () => {
    const made = await answer('part build', {
      recipe: 'round-cap',
      parameters: { style: 'into', plugDiameter: 60 },
    });
    // The flange stands out 3 mm all round.
    expect(made.bounds.max[1] - made.bounds.min[1]).toBeCloseTo(66, 1);
  });

  test('a split part comes as pieces', async () => {
    const out = join(folder, 'halves.3mf');
    await answer(`part build --out ${out}`, {
      recipe: 'bush',
      additions: [{ kind: 'split', parameters: { across: 'x', at: 0, joint: 'glue' } }],
    });
    expect(readThreeMf(new Uint8Array(readFileSync(out))).meshes).toHaveLength(2);
  });

  test('the list names families, bounds and mates', async () => {
    const { recipes } = await answer('part list', '');
    for (const recipe of recipes) {
      expect(['replacement', 'adapter', 'mount']).toContain(recipe.family);
      expect(recipe.mates.length).toBeGreaterThan(0);
      for (const [name, schema] of Object.entries<Record<string, unknown>>(recipe.parameters.properties)) {
        expect(schema, `${recipe.id}, ${name}`).toHaveProperty('default');
        if (schema.type !== 'number' && schema.type !== 'integer') continue;
        expect(schema.minimum, `${recipe.id}, ${name}`).toBeLessThan(schema.maximum as number);
      }
    }
    const cap = recipes.find((r: { id: string }) => r.id === 'round-cap');
    expect(cap.parameters.properties.wall).toMatchObject({ type: 'number', minimum: 0.4, maximum: 30 });
    const knob = recipes.find((r: { id: string }) => r.id === 'socket-knob');
    expect(knob.parameters.properties.lobes).toMatchObject({ type: 'integer', minimum: 3, maximum: 12 });
  });

  test('every recipe’s demo object builds from nothing but its name, and its mates measure', async () => {
    const { recipes } = await answer('part list', '');
    const asked = recipes.map(({ id }: { id: string }) => ({ recipe: id }));
    // One process for all: starting the kernels takes longer than building with them.
    const { out } = await sagoma('part build --jsonl', asked, true);
    const answers = out
      .trim()
      .split('\n')
      .map(line => JSON.parse(line));
    expect(answers).toHaveLength(recipes.length);
    recipes.forEach(({ id, mates }: { id: string; mates: { id: string }[] }, i: number) => {
      const built = answers[i];
      expect(built.watertight, id).toBe(true);
      expect(built.mates.length, id).toBeGreaterThan(0);
      for (const mate of built.mates) {
        expect(mates.map(m => m.id)).toContain(mate.id);
        expect(['round', 'flats', 'thread']).toContain(mate.kind);
        expect(Number.isFinite(mate.size), `${id}, ${mate.id}`).toBe(true);
      }
    });
  }, 300_000);
});
