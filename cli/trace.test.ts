import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, test } from 'vitest';
import { jpegOf } from '../core/bench/jpeg';
import { practicePhoto } from '../core/bench/practice-photo';
import { sagoma } from '../testing/sagoma';

const folder = mkdtempSync(join(tmpdir(), 'sagoma-trace-'));

/** What a command answers, or the error it gives. */
async function asked(words: string[], input: unknown) {
  const { out, err } = await sagoma(words.join(' '), input);
  return { json: out && JSON.parse(out), error: err && JSON.parse(err).error };
}

describe('trace', () => {
  test('sheet: a PDF of the sheet, the same bytes each time, for both papers and middles', async () => {
    const write = async (name: string, input: object) => {
      const out = join(folder, name);
      const answer = await asked(['trace', 'sheet', '--out', out], input);
      return { answer, bytes: readFileSync(out) };
    };
    const a4 = await write('a4.pdf', { paper: 'a4' });
    expect(a4.answer.json).toEqual({ markers: 84, bar: { length: 140 } });
    expect(a4.bytes.subarray(0, 5).toString()).toBe('%PDF-');
    expect(Buffer.compare(a4.bytes, (await write('again.pdf', {})).bytes)).toBe(0);
    const dark = await write('dark.pdf', { paper: 'letter', middle: 'dark' });
    expect(dark.answer.json).toMatchObject({ markers: 80 });
    const refused = await asked(['trace', 'sheet', '--out', join(folder, 'sheet.png')], {});
    expect(refused.error).toMatchObject({ path: 'out' });
  });

  test('photo: outline, holes, doubt and a drawing; what is wrong with the file in a sentence', async () => {
    const taken = practicePhoto(
      'profile-part',
      { sizes: { seat_width: 44, seat_height: 34 }, seed: 11 },
      0,
      [1350, 1800],
    )!;
    const file = join(folder, 'photo.jpg');
    writeFileSync(file, jpegOf(taken.picture));
    const out = join(folder, 'outline.dxf');
    const { bars, thickness, f35 } = taken;
    const by = { sheet: 'a4', bars, thickness, f35 };
    const { json } = await asked(['trace', 'photo', file, '--out', out], by);
    expect(json.loops.map((l: { hole: boolean }) => l.hole)).toEqual([false, true]);
    expect(json.loops[0].segments.map((s: { kind: string }) => s.kind).sort()).toEqual([
      'arc',
      'line',
      'line',
      'line',
    ]);
    const [circle] = json.circles;
    expect(Math.abs(circle.diameter - 4.2)).toBeLessThan(circle.u);
    const floor = Math.max(
      ...json.loops[0].segments.map((s: { from: number[]; to: number[] }) =>
        Math.hypot(s.to[0]! - s.from[0]!, s.to[1]! - s.from[1]!),
      ),
    );
    expect(Math.abs(floor - 44)).toBeLessThan(0.25);
    expect(json.uLength).toBeLessThan(0.4);
    expect(json.advice).toEqual([]);
    expect(readFileSync(out, 'utf8')).toContain('ENTITIES');
    const unread = await asked(['trace', 'photo', file], { ...by, bars: undefined });
    expect(unread.json.uLength).toBeGreaterThan(2 * json.uLength);
    expect(unread.json.advice[0]).toContain('by caliper');
    // By a length of its own: twice as long makes it twice as large, and no tilt is reported.
    const side = { from: [400, 900], to: [950, 900] };
    const sized = async (length: number) =>
      (await asked(['trace', 'photo', file], { lengths: [{ ...side, length }], f35 })).json;
    const [small, large] = [await sized(60), await sized(120)];
    expect(large.loops[0].area / small.loops[0].area).toBeCloseTo(4, 1);
    expect(small.tilt).toBeNull();
    for (const [input, code] of [
      [{}, 'bad-input'],
      [{ sheet: 'a4', thickness: 9 }, 'no-focal-length'],
      [{ ...by, sheet: 'letter' }, 'other-sheet'],
      [{ ...by, inside: [3, 3] }, 'nothing-there'],
      [{ ...by, lengths: [{ from: [400, 900], to: [900, 900], length: 40 }] }, 'bad-input'],
      [{ lengths: [{ from: [400, 900], to: [410, 900], length: 40 }] }, 'bad-dimensions'],
    ] as const)
      expect((await asked(['trace', 'photo', file], input)).error).toMatchObject({ code });
    writeFileSync(join(folder, 'broken.jpg'), Buffer.from(readFileSync(file).subarray(0, 900)));
    expect((await asked(['trace', 'photo', join(folder, 'broken.jpg')], by)).error).toMatchObject({
      code: 'bad-photo',
    });
    expect((await asked(['trace', 'photo', join(folder, 'none.jpg')], by)).error).toMatchObject({
      code: 'no-file',
    });
  });

  test('flatbed: a file without its resolution is asked for it', async () => {
    const file = join(folder, 'flat.jpg');
    const data = new Uint8Array(4 * 300 * 300).fill(230);
    for (let y = 90; y < 200; y++)
      for (let x = 60; x < 240; x++) data.set([20, 20, 20, 255], 4 * (300 * y + x));
    writeFileSync(file, jpegOf({ width: 300, height: 300, data }));
    expect((await asked(['trace', 'flatbed', file], {})).error).toMatchObject({ code: 'no-resolution' });
    const { json, error } = await asked(['trace', 'flatbed', file], { dpi: 150 });
    expect(error).toBe('');
    expect(json.loops[0].segments).toHaveLength(4);
    expect(json.loops[0].area).toBeCloseTo(180 * 110 * (25.4 / 150) ** 2, -1);
  });
});
