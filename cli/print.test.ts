import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, test } from 'vitest';
import { writeStl } from '../core/files/stl';
import { gcodeOf } from '../testing/gcode';
import { sagoma as run } from '../testing/sagoma';
import { box, scaled } from '../testing/solids';
import { toolpathsOf } from '../testing/toolpaths';

const folder = mkdtempSync(join(tmpdir(), 'sagoma-print-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

async function sagoma(words: string, input: unknown) {
  const { code, out, err } = await run(words, input);
  return { code, answer: out && JSON.parse(out), error: err && JSON.parse(err).error };
}

const stl = (name: string, mesh = box([40, 20, 10])) => {
  const path = join(folder, name);
  writeFileSync(path, writeStl(mesh, name));
  return path;
};

describe('print plan', () => {
  test('the best way first, each with what it needs', async () => {
    const { code, answer } = await sagoma('print plan', { recipe: 'cradle', parameters: {} });
    expect(code).toBe(0);
    const [best] = answer.poses;
    expect(best.down).toEqual([0, -1, 0]);
    expect(best).toMatchObject({ turn: 0, supportArea: 0, supportVolume: 0, fits: true });
    expect(best.minutes).toBeGreaterThan(20);
    expect(best.grams).toBeGreaterThan(5);
    expect(best.reasons.join()).toContain('no supports');
    expect(answer.poses.some((p: { supportArea: number }) => p.supportArea > 100)).toBe(true);
  });
  test('a file of triangles, on a bed that is too short for it but for its diagonal', async () => {
    const file = stl('bar.stl', box([270, 20, 8]));
    const { answer } = await sagoma('print plan', { file, printer: { bed: [210, 210, 200] } });
    expect(answer.poses[0]).toMatchObject({ fits: true, footprint: [270, 20], height: 8 });
    expect(Math.abs(answer.poses[0].turn % 90)).toBeGreaterThan(20);
    const long = await sagoma('print plan', {
      file: stl('long.stl', box([320, 20, 8])),
      printer: { bed: [210, 210, 200] },
    });
    expect(long.answer.poses.every((p: { fits: boolean }) => !p.fits)).toBe(true);
  });
  test('a load, and one that cannot be placed', async () => {
    const file = stl('upright.stl', box([12, 12, 60]));
    const load = { kind: 'force', amount: 80, towards: 'right', at: 'top', held: 'underside' };
    const { answer } = await sagoma('print plan', { file, loads: [load] });
    expect(Math.abs(answer.poses[0].down[2])).toBeLessThan(0.5);
    const bad = await sagoma('print plan', { file, loads: [{ ...load, at: 'nowhere' }] });
    expect(bad).toMatchObject({ code: 2, error: { path: 'loads.0' } });
  });
});

describe('print estimate', () => {
  test('more passes, more infill and a slower machine take longer', async () => {
    const asked = {
      recipe: 'bush',
      parameters: {},
      settings: { layer: 0.2, walls: 2, infill: 0.2 },
      machine: { speed: 60, acceleration: 1500 },
    };
    const minutes = async (more: object) =>
      (await sagoma('print estimate', { ...asked, ...more })).answer.minutes.value;
    const plain = await minutes({});
    expect(await minutes({ machine: { speed: 20, acceleration: 500 } })).toBeGreaterThan(plain);
    expect(await minutes({ settings: { layer: 0.1, walls: 2, infill: 0.2 } })).toBeGreaterThan(1.4 * plain);
    expect(await minutes({ settings: { layer: 0.2, walls: 2, infill: 20 } })).toBe(plain);
    expect(await minutes({ machine: { speed: 60, acceleration: 1500, jerk: 1 } })).toBeGreaterThan(plain);
    const { answer } = await sagoma('print estimate', asked);
    expect(answer.minutes.u).toBeLessThan(0.25 * plain);
    expect(answer.grams.value).toBeGreaterThan(0.2);
    expect(answer.layers).toBe(Math.ceil(11.8 / 0.2 - 1e-6));
  });
  test.each([
    ['a recipe that is not there', { recipe: 'bent-thing' }, 'recipe'],
    ['a file that is not there', { file: '/nowhere.stl' }, 'file'],
    ['more infill than there is room', { recipe: 'bush', settings: { infill: 120 } }, 'settings.infill'],
  ])('%s', async (_, input, path) => {
    expect(await sagoma('print estimate', input)).toMatchObject({ code: 2, error: { path } });
  });
});

describe('print read', () => {
  const settings = {
    layer: 0.2,
    firstLayer: 0.2,
    lineWidth: 0.42,
    walls: 2,
    top: 3,
    bottom: 3,
    infill: 0.15,
  };
  const sliced = async (mesh: ReturnType<typeof box>, name: string) => {
    const path = join(folder, name);
    writeFileSync(path, gcodeOf(await toolpathsOf(mesh, settings), settings.lineWidth, {}, { turn: 30 }));
    return path;
  };
  test('which part it is, how it lies and what is wrong with it', async () => {
    const mesh = box([40, 20, 10]);
    const against = [
      { id: 'block', file: stl('block.stl', mesh) },
      { id: 'other', file: stl('other.stl', box([40, 20, 14])) },
    ];
    const right = await sagoma(`print read ${await sliced(mesh, 'right.gcode')}`, {
      against,
      planned: { id: 'block', down: [0, 0, -1] },
    });
    expect(right.answer).toMatchObject({
      layers: 50,
      layerHeight: 0.2,
      said: { minutes: 12.5 },
      match: { id: 'block', mirrored: false, copies: 1, down: [0, 0, -1] },
      findings: [],
    });
    expect(right.answer.match.scale).toBeCloseTo(1, 3);
    expect(((right.answer.match.turn % 180) + 180) % 180).toBeCloseTo(30, 0);
    const small = await sagoma(`print read ${await sliced(scaled(mesh, 0.97), 'small.gcode')}`, {
      against,
      planned: { id: 'block' },
    });
    expect(small.answer.match.scale).toBeCloseTo(0.97, 2);
    expect(small.answer.findings.map((f: { code: string }) => f.code)).toContain('scaled');
  });
  test('without versions it says what is in the file, and what is no file of that kind is refused', async () => {
    const path = await sliced(box([10, 10, 4]), 'alone.gcode');
    const { answer } = await sagoma(`print read ${path}`, {});
    expect(answer).toMatchObject({ match: null, findings: [], layers: 20 });
    writeFileSync(join(folder, 'zip.gcode'), Uint8Array.from([0x50, 0x4b, 3, 4]));
    expect(await sagoma(`print read ${join(folder, 'zip.gcode')}`, {})).toMatchObject({
      code: 2,
      error: { code: 'zipped' },
    });
    expect(await sagoma(`print read ${join(folder, 'none.gcode')}`, {})).toMatchObject({
      code: 2,
      error: { path: 'file' },
    });
  });
});
