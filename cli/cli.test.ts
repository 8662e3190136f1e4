import { spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from 'vitest';
import { readStl, readThreeMf } from '../core/files/reading-back';
import { closureOf, volumeOf } from '../core/shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../core/shape/mesh/section';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'sagoma-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The command line as a person or a script runs it. */
function sagoma(words: string, input: unknown = '', lines = false) {
  return new Promise<{ code: number; out: string; err: string }>(done => {
    const child = spawn(
      process.execPath,
      ['--import', 'tsx', 'cli/main.ts', ...words.split(' ').filter(Boolean)],
      { cwd: root },
    );
    let out = '';
    let err = '';
    child.stdout.on('data', chunk => (out += chunk));
    child.stderr.on('data', chunk => (err += chunk));
    child.on('close', code => done({ code: code ?? -1, out, err }));
    child.stdin.end(
      lines
        ? (input as unknown[])
            .map(line => (typeof line === 'string' ? line : JSON.stringify(line)))
            .join('\n')
        : typeof input === 'string'
          ? input
          : JSON.stringify(input),
    );
  });
}
const answer = async (words: string, input: unknown) => JSON.parse((await sagoma(words, input)).out);

describe('help', () => {
  test('every command’s example runs as it stands', async () => {
    const { out } = await sagoma('--help');
    const commands = [...out.matchAll(/^ {2}(\w+ \w+) /gm)].map(m => m[1]!);
    expect(commands).toEqual(['measure evaluate', 'fit propose', 'trial next', 'part list', 'part build']);
    for (const command of commands) {
      const help = (await sagoma(`${command} --help`)).out;
      const example = /echo '(.*)' \|/.exec(help)?.[1] ?? '';
      const { code, out: json, err } = await sagoma(command, example);
      expect(err, command).toBe('');
      expect(code, command).toBe(0);
      expect(() => JSON.parse(json), command).not.toThrow();
    }
  });
});

describe('measure evaluate', () => {
  test('texts and units, the instrument always in mm', async () => {
    const e = await answer('measure evaluate', {
      readings: ['1 1/4', '1.25'],
      unit: 'in',
      instrument: { resolution: 0.01, maxError: 0.03 },
    });
    expect(e.value).toBeCloseTo(31.75, 9);
    expect(e.standardUncertainty).toBeCloseTo(Math.sqrt(0.0001 / 12 + 0.0003), 9);
    expect(e.degreesOfFreedom).toBeNull();
    expect(e.advice).toEqual([]);
  });
});

describe('bad input', () => {
  test.each([
    ['fly away', {}, 'unknown-command'],
    ['measure evaluate', 'not json', 'bad-json'],
    ['measure evaluate', { readings: [] }, 'bad-input'],
    ['measure evaluate', { readings: ['1,234.5'] }, 'bad-input'],
    ['fit propose', { side: 'inside' }, 'bad-input'],
    ['part build', { recipe: 'teapot' }, 'bad-input'],
    ['part build', { recipe: 'round-cap', parameters: { leadIn: 5 } }, 'cannot-build'],
    ['part build --out cap.txt', { recipe: 'round-cap' }, 'bad-input'],
    ['part build --in /nowhere.json', '', 'cannot-read'],
  ])('%s %j: exit 2 with the one error shape on standard error', async (words, input, code) => {
    const { code: exit, out, err } = await sagoma(words, input);
    expect(out).toBe('');
    expect(exit).toBe(2);
    expect(JSON.parse(err)).toMatchObject({ error: { code, message: expect.any(String) } });
  });
});

describe('--jsonl', () => {
  test('one answer a line, in order; a bad line does not stop the rest', async () => {
    const question = (value: number) => ({
      side: 'inside',
      reading: { value, u: 0.03 },
      want: { min: 0.05, max: 0.2 },
      printer: { offset: { mean: -0.22, sd: 0.1 }, scale: { mean: 1, sd: 0 }, repeatability: 0.04 },
    });
    const { out, code } = await sagoma(
      'fit propose --jsonl',
      [question(20), 'nonsense', { a: 1 }, question(40)],
      true,
    );
    const lines = out
      .trim()
      .split('\n')
      .map(l => JSON.parse(l));
    expect(code).toBe(0);
    expect(lines).toHaveLength(4);
    expect(lines[0].model).toBeCloseTo(20.345, 4);
    expect(lines[1].error.code).toBe('bad-json');
    expect(lines[2].error.path).toBe('side');
    expect(lines[3].model).toBeCloseTo(40.345, 4);
  });
});

describe('trial next', () => {
  const question = {
    mates: [{ id: 'a', side: 'inside', reading: { value: 31.7, u: 0.03 }, want: { min: 0.05, max: 0.2 } }],
    prior: { inside: { mean: 0.22, sd: 0.14 }, repeatability: 0.04 },
    trials: [],
  };
  test('without tries the prior; with one, further along', async () => {
    const before = await answer('trial next', question);
    expect(before.mates.a.bias.mean).toBeCloseTo(0.22, 3);
    expect(before.mates.a.bias.sd).toBeCloseTo(Math.hypot(0.14, 0.03), 3);
    const after = await answer('trial next', {
      ...question,
      trials: [{ mates: { a: { model: before.mates.a.model, verdict: 'tight' } } }],
    });
    expect(after.mates.a.model).toBeGreaterThan(before.mates.a.model);
    expect(after.reasons).toHaveLength(1);
  });
  test('a side without a prior, a stray mate, two of one id', async () => {
    for (const bad of [
      { prior: { repeatability: 0.04 } },
      { trials: [{ mates: { b: { model: 3 } } }] },
      { mates: [question.mates[0], question.mates[0]] },
    ]) {
      expect((await sagoma('trial next', { ...question, ...bad })).code).toBe(2);
    }
  });
});

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
  test('the list names families, bounds and mates', async () => {
    const { recipes } = await answer('part list', '');
    for (const recipe of recipes) {
      expect(['replacement', 'adapter', 'mount']).toContain(recipe.family);
      expect(recipe.mates.length).toBeGreaterThan(0);
      expect(recipe.parameters.properties.wall).toMatchObject({ type: 'number', minimum: 0.4, maximum: 30 });
    }
  });
});
