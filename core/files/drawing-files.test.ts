import DxfParser from 'dxf-parser';
import { describe, expect, test } from 'vitest';
import type { DrawDimension } from '../shape/drawing/drawing';
import { RECIPES, requireRecipe } from '../shape/recipes';
import { writeDrawingDxf } from './drawing-dxf';
import { writeDrawingSvg } from './drawing-svg';

const value = (d: DrawDimension) => `${(Math.hypot(d.to[0] - d.from[0], d.to[1] - d.from[1])).toFixed(2)}`;

describe.each(RECIPES.map(r => [r.id, r] as const))('the drawing of %s', (_, recipe) => {
  const drawing = recipe.drawing(recipe.demo.parameters);
  test('is read back from DXF by an independent reader: every shape, in millimetres, on its layer', () => {
    const read = new DxfParser().parseSync(writeDrawingDxf(drawing, value))!;
    expect(read.header.$INSUNITS).toBe(4);
    const on = (layer: string) => read.entities.filter(e => e.layer === layer);
    for (const [ink, layer] of [
      ['cut', 'CUT'],
      ['edge', 'EDGE'],
      ['mate', 'MATE'],
    ] as const)
      expect(on(layer)).toHaveLength(drawing.shapes.filter(s => s.ink === ink).length);
    expect(read.entities.filter(e => e.type === 'TEXT')).toHaveLength(drawing.dimensions.length);
    const first = drawing.shapes.find(s => s.ink === 'cut' || s.ink === 'edge')!;
    const same = read.entities.find(e => e.layer === (first.ink === 'cut' ? 'CUT' : 'EDGE')) as unknown as {
      vertices: { x: number; y: number }[];
    };
    expect(same.vertices).toHaveLength(first.points.length);
    expect(same.vertices[0]!.x).toBeCloseTo(first.points[0]![0], 3);
    expect(same.vertices.at(-1)!.y).toBeCloseTo(first.points.at(-1)![1], 3);
  });
  test('is SVG at 1:1, everything within its frame', () => {
    const svg = writeDrawingSvg(drawing, 'A <part> & more', value);
    const [, w, h] = /viewBox="0 0 ([\d.]+) ([\d.]+)"/.exec(svg)!.map(Number);
    expect(svg).toContain(`width="${w}mm"`);
    expect(svg).toContain('A &lt;part&gt; &amp; more');
    for (const [, path] of svg.matchAll(/ d="([^"]+)"/g))
      for (const [, x, y] of path!.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)) {
        expect(Number(x)).toBeGreaterThanOrEqual(-2);
        expect(Number(x)).toBeLessThanOrEqual(w! + 2);
        expect(Number(y)).toBeGreaterThanOrEqual(-2);
        expect(Number(y)).toBeLessThanOrEqual(h! + 2);
      }
  });
});

test('letters beyond ASCII are written so that R12 readers show them', () => {
  const recipe = requireRecipe('round-cap');
  expect(writeDrawingDxf(recipe.drawing(recipe.demo.parameters), () => '3 µm')).toContain('\\U+00B5');
});
