import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, test } from 'vitest';
import { jpegOf } from '../core/bench/jpeg';
import { practicePhoto } from '../core/bench/practice-photo';
import { writeStl } from '../core/files/stl';
import { joined } from '../core/shape/mesh/mesh';
import { subdivided } from '../core/shape/mesh/subdivided';
import { answer, sagoma, textOf } from '../testing/sagoma';
import { scannedCylinder } from '../testing/scanned';
import { box } from '../testing/solids';

const root = fileURLToPath(new URL('..', import.meta.url));
const folder = mkdtempSync(join(tmpdir(), 'sagoma-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

/** The way a person or a script runs it, in a process of its own. */
function inProcess(words: string, input: unknown = '', lines = false) {
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
    child.stdin.end(textOf(input, lines));
  });
}

/** A few moves of a printer, for commands that take a file. */
function aFile(): string {
  const path = join(folder, 'moves.gcode');
  writeFileSync(path, 'G90\nM83\nG1 X0 Y0 Z0.2 F3000\nG1 X20 E1\nG1 Y20 E1\nG1 X0 E1\nG1 Y0 E1\n');
  return path;
}

/** A tube of 31.7 with a block beside it, which has only one possible pose, for commands that take a scan. */
function aScan(): string {
  const path = join(folder, 'tube.stl');
  const blocks = joined([box([9, 30, 6], [20, -4, 0]), box([5, 8, 11], [20, 18, 6])]);
  writeFileSync(path, writeStl(joined([scannedCylinder(31.7, 20), subdivided(blocks, 0.7)]), 'tube'));
  return path;
}

/** A strip's end on the sheet, for commands that take a photo. */
function aPhoto(): string {
  const path = join(folder, 'photo.jpg');
  const sizes = { seat_width: 44, seat_height: 34 };
  const { picture } = practicePhoto('profile-part', { sizes, seed: 3 }, 0, [1350, 1800])!;
  writeFileSync(path, jpegOf(picture));
  return path;
}

/** A dark plate on a light lid. */
function aFlatbedScan(): string {
  const path = join(folder, 'flatbed.jpg');
  const side = 500;
  const data = Uint8Array.from({ length: 4 * side * side }, (_, i) => {
    const [x, y] = [(i >> 2) % side, Math.floor((i >> 2) / side)];
    return i % 4 < 3 && x > 120 && x < 380 && y > 150 && y < 330 ? 20 : 235;
  });
  const file = jpegOf({ width: side, height: side, data });
  // JFIF: 300 pixels per inch, in both directions.
  file.set([1, 1, 44, 1, 44], 13);
  writeFileSync(path, file);
  return path;
}

function fileFor(command: string): string {
  if (command === 'trace photo') return aPhoto();
  if (command === 'trace flatbed') return aFlatbedScan();
  return command.startsWith('scan') ? aScan() : aFile();
}

describe('help', () => {
  test('every command’s example runs as it stands', async () => {
    const { out } = await sagoma('--help');
    const commands = [...out.matchAll(/^ {2}(\w+(?: \w+)?) {2,}/gm)].map(m => m[1]!);
    expect(commands).toEqual([
      'measure evaluate',
      'measure derive',
      'thread identify',
      'ref',
      'fit propose',
      'trial next',
      'part list',
      'part additions',
      'part build',
      'print plan',
      'print estimate',
      'print read',
      'scan inspect',
      'scan find',
      'scan fit',
      'scan section',
      'scan align',
      'scan deviate',
      'scan undercut',
      'trace sheet',
      'trace photo',
      'trace flatbed',
    ]);
    for (const command of commands) {
      const help = (await sagoma(`${command} --help`)).out;
      const example = /echo '(.*)' \|/.exec(help)?.[1] ?? '';
      const named = /((?: [A-Z]{4,})+)\n/.exec(help)?.[1]?.trim().split(' ') ?? [];
      const file = named.map(() => ` ${fileFor(command)}`).join('');
      const words = /sagoma -- (ref .*)/.exec(help)?.[1] ?? `${command}${file}`;
      const { code, out: json, err } = await sagoma(words, example);
      expect(err, command).toBe('');
      expect(code, command).toBe(0);
      expect(() => JSON.parse(json), command).not.toThrow();
    }
  });
});

describe('a process of its own', () => {
  test('reads standard input, writes the answer alone on standard output, and exits with its code', async () => {
    const asked = { readings: ['31.70', '31,72'], instrument: { resolution: 0.01, maxError: 0.03 } };
    const good = await inProcess('measure evaluate', asked);
    expect({ ...good, out: JSON.parse(good.out).value }).toEqual({ code: 0, out: 31.71, err: '' });
    const bad = await inProcess('measure evaluate', 'no json');
    expect(bad).toMatchObject({ code: 2, out: '' });
    expect(JSON.parse(bad.err).error.code).toBe('bad-json');
  });
  test('answers line by line until the input ends', async () => {
    const line = { readings: [5], instrument: { resolution: 0.01, maxError: 0.03 } };
    const { out, code } = await inProcess('measure evaluate --jsonl', [line, 'no json', line], true);
    const answers = out
      .trim()
      .split('\n')
      .map(l => JSON.parse(l));
    expect([code, answers.length]).toEqual([0, 3]);
    expect(answers[1].error.code).toBe('bad-json');
  });
});

describe('measure derive and thread identify', () => {
  test('the kinds and fields of the contract', async () => {
    const lines = [
      [{ kind: 'radius-from-chord', chord: { value: 8, u: 0.03 }, height: { value: 2, u: 0.02 } }, 5],
      [
        { kind: 'centre-distance', inside: { value: 28.4, u: 0.02 }, outside: { value: 44.1, u: 0.02 } },
        36.25,
      ],
      [{ kind: 'across-corners', flats: { value: 13, u: 0.1 }, sides: 6 }, 15.0111],
      [
        {
          kind: 'taper',
          large: { value: 60.96, u: 0 },
          small: { value: 55.88, u: 0 },
          length: { value: 38.1, u: 0 },
        },
        3.8141,
      ],
      [{ kind: 'pitch', span: { value: 26, u: 0.04 }, turns: 2 }, 13],
      [
        {
          kind: 'circle-through-three',
          points: [
            [3, 4],
            [-5, 0],
            [4, -3],
          ],
          u: 0.02,
        },
        10,
      ],
      [
        {
          kind: 'in-between-size',
          sizes: [
            { value: 22, u: 0 },
            { value: 26, u: 0.1 },
            { value: 30, u: 0.1 },
          ],
          step: 0.5,
        },
        28,
      ],
      [{ kind: 'in-between-size', sizes: [26, 30] }, 28],
    ] as const;
    const { out, code } = await sagoma(
      'measure derive --jsonl',
      lines.map(([input]) => input),
      true,
    );
    expect(code).toBe(0);
    const answers = out
      .trim()
      .split('\n')
      .map(line => JSON.parse(line));
    for (const [i, [input, value]] of lines.entries()) {
      expect(answers[i].value, input.kind).toBeCloseTo(value, 3);
      expect(answers[i].u, input.kind).toBeGreaterThanOrEqual(0);
    }
    // The uncertainty of every coordinate counts: ∂d/∂(points) worked out by hand for a circle read at ±0.02 is close.
    expect(answers[5].u).toBeGreaterThan(0.01);
    expect(answers[5].u).toBeLessThan(0.1);
  });

  test('bad input names its field', async () => {
    const { out } = await sagoma(
      'measure derive --jsonl',
      [
        { kind: 'guess' },
        { kind: 'pitch', turns: 2 },
        { kind: 'pitch', span: 26, turns: 'two' },
        {
          kind: 'circle-through-three',
          points: [
            [0, 0],
            [1, 1],
            [2, 2],
          ],
        },
      ],
      true,
    );
    const errors = out
      .trim()
      .split('\n')
      .map(line => JSON.parse(line).error);
    expect(errors.map(e => e.path)).toEqual(['kind', 'span', 'turns', undefined]);
    expect(errors[3].message).toContain('in a line');
  });

  test('a thread is named, its twin behind it', async () => {
    const found = await answer('thread identify', {
      side: 'external',
      major: { value: 13.08, u: 0.03 },
      pitch: { value: 25.4 / 19, u: 0.01 },
    });
    expect(found.candidates.map((c: { designation: string }) => c.designation)).toEqual(['G 1/4', 'R 1/4']);
    expect(found.none).toBeLessThan(0.05);
    expect((await sagoma('thread identify', { side: 'external', pitch: { value: 1.5, u: 0.01 } })).code).toBe(
      2,
    );
  });
});

describe('ref', () => {
  test('the contract’s questions, one a line', async () => {
    const asked: [string[], object][] = [
      [['fit', '25', 'H7'], { upper: 0.021, lower: 0 }],
      [['fit', '25', 'g6'], { upper: -0.007, lower: -0.02 }],
      [['clearance-hole', 'M3'], { fine: 3.2, medium: 3.4, coarse: 3.6 }],
      [['nut', 'M6'], { acrossFlats: 10, height: 5.2 }],
      [['thread', 'M10'], { major: 10, pitch: 1.5, pitchDiameter: 9.026, minorInternal: 8.376 }],
      [['thread', 'G 1/4'], { major: 13.157, pitch: 1.337, pitchDiameter: 12.301, minorInternal: 11.445 }],
      [['bearing', '608'], { bore: 8, outside: 22, width: 7 }],
      [['washer', 'M8'], { hole: 8.4, outside: 16, thickness: 1.6 }],
      [['socket-head', 'M5'], { head: 8.5, height: 5, socket: 4 }],
      [['o-ring', '-210'], { inside: 18.64, cord: 3.53 }],
      [['tap-drill', 'M10x1.25'], { drill: 8.8 }],
      [['insert', 'M3'], { hole: 4 }],
      [['pipe', 'DN25'], { outside: 33.7 }],
      [['plastic', 'asa'], { softensC: 95 }],
    ];
    const { out } = await sagoma(
      'ref --jsonl',
      asked.map(([args]) => ({ args })),
      true,
    );
    const answers = out
      .trim()
      .split('\n')
      .map(line => JSON.parse(line));
    for (const [i, [args, expected]] of asked.entries()) {
      expect(answers[i], args.join(' ')).toMatchObject(expected);
      expect(answers[i].source, args.join(' ')).toMatch(/./);
    }
    expect(JSON.parse((await sagoma('ref thread G 1/4')).out).major).toBe(13.157);
  });

  test('what is not there is said, with what is', async () => {
    for (const words of [
      'ref nut M99',
      'ref fit 25 Q9',
      'ref fit big H7',
      'ref gearbox 3',
      'ref thread M9.3',
      'ref bearing 9999',
      'ref o-ring 999',
    ])
      expect((await sagoma(words)).code, words).toBe(2);
    expect(JSON.parse((await sagoma('ref nut M99')).err).error.message).toContain('M64');
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
    ['part build', { recipe: 'bush', additions: [{ kind: 'wing' }] }, 'bad-input'],
    ['part build', { recipe: 'bush', additions: [{ kind: 'hole', parameters: { wide: 3 } }] }, 'bad-input'],
    ['part build', { recipe: 'bush', additions: [{ kind: 'words', mate: true }] }, 'bad-input'],
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
