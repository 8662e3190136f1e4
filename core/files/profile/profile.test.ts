import { describe, expect, test } from 'vitest';
import { boxOf } from '../../shape/curve';
import { outlineOfText } from '../../shape/outline-text';
import { profilePart } from '../../shape/recipes/profile-part';
import { writeDrawingDxf } from '../drawing-dxf';
import { ProfileError } from './loops';
import { readProfile } from './read-profile';

const svg = (body: string, head = 'width="60mm" height="40mm" viewBox="0 0 60 40"') =>
  `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" ${head}>${body}</svg>`;
const dxf = (entities: string, unit = 4) =>
  `0\nSECTION\n2\nHEADER\n9\n$INSUNITS\n70\n${unit}\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n${entities}0\nENDSEC\n0\nEOF\n`;
const line = (x0: number, y0: number, x1: number, y1: number) =>
  `0\nLINE\n8\n0\n10\n${x0}\n20\n${y0}\n11\n${x1}\n21\n${y1}\n`;

describe('SVG', () => {
  test('a plate with holes, y turned up, in the file’s own millimetres', () => {
    const { loops, unit, unitSaid, notes } = readProfile(
      svg(
        '<g transform="translate(5 5)"><rect width="50" height="30" rx="4"/><circle cx="10" cy="8" r="2.1"/></g>',
      ),
    );
    expect([unit, unitSaid, notes]).toEqual(['mm', true, []]);
    expect(loops).toHaveLength(2);
    expect(loops[0]!.area).toBeCloseTo(1500 - (4 - Math.PI) * 16, 6);
    expect(loops[0]!.box.map(x => Number(x.toFixed(6)))).toEqual([0, 0, 50, 30]);
    // 8 from the top is 22 from the bottom.
    expect(loops[1]!.circle).toEqual({ x: 10, y: 22, diameter: 4.2 });
    expect(boxOf(outlineOfText(loops[0]!.outline)).map(x => Number(x.toFixed(3)))).toEqual([0, 0, 50, 30]);
  });
  test('paths of every command, and an ellipse, enclose what the formulas say', () => {
    const area = (d: string) => readProfile(svg(`<path d="${d}"/>`)).loops[0]!.area;
    expect(area('M0 0 H20 V10 h-20 z')).toBeCloseTo(200, 6);
    expect(area('M10 0 A10 10 0 0 1 -10 0 A10 10 0 0 1 10 0 Z')).toBeCloseTo(100 * Math.PI, 6);
    expect(area('M10 0 A10 5 30 0 1 -10 0 A10 5 30 0 1 10 0 Z') > 0).toBe(true);
    // A parabola by its Bézier form: two thirds of its box.
    expect(area('M0 0 Q10 20 20 0 Z')).toBeCloseTo((2 / 3) * 20 * 10, 1);
    expect(area('M0 0 C0 20 20 20 20 0 Z') / 240).toBeCloseTo(1, 3);
    const ellipse = readProfile(svg('<ellipse cx="30" cy="20" rx="20" ry="10"/>')).loops[0]!;
    expect(ellipse.area / (200 * Math.PI)).toBeCloseTo(1, 3);
  });
  test('pixels are told from millimetres, and one known size settles it', () => {
    const text = svg('<rect width="96" height="48"/>', 'width="96" height="48"');
    expect(readProfile(text)).toMatchObject({ unit: 'px', unitSaid: false });
    expect(readProfile(text).loops[0]!.box[2]).toBeCloseTo(25.4, 6);
    expect(readProfile(text, { unit: 'mm' }).loops[0]!.box[2]).toBeCloseTo(96, 6);
    expect(readProfile(text, { width: 40 }).loops[0]!.box.map(x => Number(x.toFixed(6)))).toEqual([
      0, 0, 40, 20,
    ]);
  });
  test('what is not drawn is not read; what cannot be read is said', () => {
    const { loops, notes } = readProfile(
      svg(
        '<defs><rect width="9" height="9"/></defs><rect width="20" height="10"/><text x="1" y="1">a</text><rect style="display:none" width="5" height="5"/>',
      ),
    );
    expect(loops).toHaveLength(1);
    expect(notes.join()).toMatch(/1 × text left out/);
  });
});

describe('DXF', () => {
  test('lines in any order and sense are chained; an arc closes them', () => {
    const arc = '0\nARC\n8\n0\n10\n15\n20\n6\n40\n15\n50\n0\n51\n180\n';
    const { loops } = readProfile(dxf(line(30, 0, 0, 0) + arc + line(0, 6, 0, 0) + line(30, 0, 30, 6)));
    expect(loops).toHaveLength(1);
    expect(loops[0]!.area).toBeCloseTo(180 + (Math.PI * 225) / 2, 4);
  });
  test('a polyline’s bulge is an arc; inches are inches', () => {
    // A slot with round ends: straight 2, width 1.
    const v = (x: number, y: number, bulge = 0) => `10\n${x}\n20\n${y}\n42\n${bulge}\n`;
    const slot = `0\nLWPOLYLINE\n8\n0\n90\n4\n70\n1\n${v(0, 0)}${v(2, 0, 1)}${v(2, 1)}${v(0, 1, 1)}`;
    const { loops, unit } = readProfile(dxf(slot, 1));
    expect(unit).toBe('in');
    expect(loops[0]!.area / 25.4 ** 2).toBeCloseTo(2 + Math.PI / 4, 5);
    expect(loops[0]!.box[2] / 25.4).toBeCloseTo(3, 5);
  });
  test('an ellipse and a closed spline', () => {
    const ellipse = '0\nELLIPSE\n8\n0\n10\n0\n20\n0\n11\n20\n21\n0\n40\n0.5\n41\n0\n42\n6.283185307\n';
    expect(readProfile(dxf(ellipse)).loops[0]!.area / (200 * Math.PI)).toBeCloseTo(1, 3);
    const knots = [0, 0, 0, 0, 1, 1, 1, 1].map(k => `40\n${k}\n`).join('');
    const points = [
      [0, 0],
      [0, 20],
      [20, 20],
      [20, 0],
    ]
      .map(([x, y]) => `10\n${x}\n20\n${y}\n`)
      .join('');
    const spline = `0\nSPLINE\n8\n0\n70\n8\n71\n3\n72\n8\n73\n4\n74\n0\n${knots}${points}`;
    expect(readProfile(dxf(spline + line(20, 0, 0, 0))).loops[0]!.area / 240).toBeCloseTo(1, 3);
  });
  test('a drawing of ours comes back as the outline it was', () => {
    const drawing = profilePart.drawing(profilePart.demo.parameters);
    const { loops } = readProfile(writeDrawingDxf(drawing, () => null));
    const p = loops.find(l => Math.abs(l.box[2] - l.box[0] - 29.8) < 0.02);
    expect(p, 'the outline is among the loops').toBeDefined();
  });
});

test('a traced line of a thousand points is simplified to what can be built', () => {
  const points = Array.from({ length: 1000 }, (_, i) => {
    const a = (2 * Math.PI * i) / 1000;
    return `${30 + (20 + 3 * Math.cos(5 * a)) * Math.cos(a)},${30 + (20 + 3 * Math.cos(5 * a)) * Math.sin(a)}`;
  }).join(' ');
  const { loops, notes } = readProfile(svg(`<polygon points="${points}"/>`));
  expect(notes.join()).toMatch(/simplified to \d+ corners, within 0\.\d+ mm/);
  // r = 20 + 3 cos 5a encloses π (400 + 9/2).
  expect(loops[0]!.area / (Math.PI * 404.5)).toBeCloseTo(1, 3);
  expect(() => outlineOfText(loops[0]!.outline)).not.toThrow();
});

test.each([
  ['', /neither SVG nor DXF/],
  ['PK\u0003\u0004 a zip', /neither SVG nor DXF/],
  [svg(''), /no lines/],
  [svg('<line x1="0" y1="0" x2="9" y2="9"/>'), /no closed outline/],
  [dxf(line(0, 0, 10, 0) + line(10, 0, 10, 10)), /no closed outline/],
  [`<!DOCTYPE svg [<!ENTITY a "aaaaaaaaaa">]><svg><text>&a;</text></svg>`, /no lines/],
  ['<svg'.padEnd(4_000_002), /over 4 MB/],
])('what cannot be used says why: %#', (text, words) => {
  expect(() => readProfile(text)).toThrow(ProfileError);
  expect(() => readProfile(text)).toThrow(words);
});
