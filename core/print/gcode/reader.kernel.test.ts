import { beforeAll, describe, expect, test } from 'vitest';
import { type Dialect, gcodeOf } from '../../../testing/gcode';
import { box } from '../../../testing/solids';
import { type ToolLayer, toolpathsOf } from '../../../testing/toolpaths';
import { settingsFor } from '../settings';
import { GcodeError, type GcodeFile, ROLES } from './file';
import { GcodeReader } from './reader';

const settings = settingsFor('usual', 0.42);
let layers: ToolLayer[];
beforeAll(async () => {
  layers = await toolpathsOf(box([30, 20, 6]), settings);
});

function read(text: string, chunk = 777): GcodeFile {
  const bytes = new TextEncoder().encode(text);
  const reader = new GcodeReader();
  for (let i = 0; i < bytes.length; i += chunk) reader.push(bytes.slice(i, i + chunk));
  return reader.end();
}

const boundsOf = ({ x1, y1, role }: GcodeFile) => {
  const own = Array.from(x1.keys()).filter(i => role[i] !== ROLES.indexOf('prime'));
  return [
    Math.min(...own.map(i => x1[i]!)),
    Math.max(...own.map(i => x1[i]!)),
    Math.max(...own.map(i => y1[i]!)),
  ];
};

const DIALECTS: Record<string, Dialect> = {
  absolute: {},
  relative: { relativeE: true },
  inches: { inches: true },
  numbered: { numbered: true },
  bare: { bare: true },
  'two digits': { digits: 2 },
  'lower case': { lowerCase: true },
  'hops by relative moves': { hops: true, relativeE: true },
};

describe('the same print in several dialects', () => {
  test.each(Object.entries(DIALECTS))('%s', (_, dialect) => {
    const file = read(gcodeOf(layers, settings.lineWidth, dialect));
    const plain = read(gcodeOf(layers, settings.lineWidth));
    expect(file.layers.length - (dialect.bare ? 1 : 0)).toBeGreaterThanOrEqual(layers.length);
    expect(file.filament).toBeCloseTo(plain.filament, 0);
    expect(file.retractions).toBe(plain.retractions);
    if (!dialect.bare) {
      for (const [i, b] of boundsOf(file).entries()) expect(b).toBeCloseTo(boundsOf(plain)[i]!, 1);
      expect(file.said.minutes).toBeCloseTo(12.5, 6);
    }
    expect(file.rolesKnown).toBe(!dialect.bare);
    expect(file.endedWhole).toBe(true);
    expect(file.seconds / plain.seconds).toBeCloseTo(1, 1);
  });
  test('split anywhere it reads the same', () => {
    const text = gcodeOf(layers, settings.lineWidth);
    const [a, b] = [read(text, 1), read(text, 1 << 20)];
    expect(a.x1).toEqual(b.x1);
    expect(a.filament).toBe(b.filament);
  });
});

test('arcs are as long as they are, by their centre or by their radius', () => {
  const quarter = 'G90\nM83\nG1 X10 Y0 Z0.2 F1000\n';
  for (const arc of ['G3 X0 Y10 I-10 J0 E1', 'G3 X0 Y10 R10 E1', 'g3x0y10i-10j0e1']) {
    const { x0, y0, x1, y1, e } = read(`${quarter}${arc}\n`);
    let long = 0;
    for (let i = 0; i < x1.length; i++) long += Math.hypot(x1[i]! - x0[i]!, y1[i]! - y0[i]!);
    expect(long).toBeCloseTo(5 * Math.PI, 1);
    expect(e.reduce((a, b) => a + b)).toBeCloseTo(1, 4);
    expect([x1.at(-1), y1.at(-1)]).toEqual([0, 10]);
  }
  const { x1 } = read(`${quarter}G2 X0 Y10 I-10 J0 E1\n`);
  // The long way round.
  expect(Math.min(...x1)).toBeCloseTo(-10, 1);
});

describe('what is no G-code gets a sentence', () => {
  const problem = (bytes: Uint8Array) => {
    const reader = new GcodeReader();
    try {
      reader.push(bytes);
      reader.end();
    } catch (error) {
      expect(error).toBeInstanceOf(GcodeError);
      return (error as GcodeError).code;
    }
    return null;
  };
  const text = (t: string) => new TextEncoder().encode(t);
  test.each([
    ['a zip', Uint8Array.from([0x50, 0x4b, 3, 4, 0, 0]), 'zipped'],
    ['binary G-code', text('GCDE\u0001\u0000'), 'binary'],
    ['a picture', Uint8Array.from([0x89, 0x50, 0, 0, 1, 2]), 'binary'],
    ['prose', text('Dear printer,\nplease print.\n'), 'not-gcode'],
    ['nothing', text(''), 'not-gcode'],
    ['moves without plastic', text('G28\nG1 X10 Y10 F3000\nG1 X20\n'), 'nothing-printed'],
    ['one endless line', new Uint8Array(1_100_000).fill(65), 'not-gcode'],
  ])('%s', (_, bytes, code) => expect(problem(bytes)).toBe(code));
  test('a file that is cut off in the middle of a line is read as far as it goes, and says so', () => {
    const whole = gcodeOf(layers, settings.lineWidth);
    const cut = read(whole.slice(0, Math.floor(whole.length * 0.6)));
    expect(cut.endedWhole).toBe(false);
    expect(cut.layers.length).toBeLessThan(layers.length);
  });
});
