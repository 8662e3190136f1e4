import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { buildPart } from '../../build';
import type { Kernels } from '../../kernels/kernel';
import { parameterSchema } from '../parameter-schema';
import type { Parameters } from '../parameters';
import { roundCap } from '.';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const demo = roundCap.demo.parameters;
/** Nothing rounded, so that the closed formulas below stay short. */
const bare: Parameters = { ...demo, tab: false, outerFillet: 0, leadIn: 0, lip: 'none' };
const build = (change: Parameters, from: Parameters = bare) => {
  const outcome = buildPart(roundCap, { ...from, ...change }, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
};
const disc = (diameter: number, height: number) => (Math.PI / 4) * diameter ** 2 * height;
const near = (actual: number, expected: number) =>
  expect(Math.abs(actual / expected - 1)).toBeLessThan(0.0015);

describe('volumes against closed formulas', () => {
  test('a cap over the rim: disc and tube', () => {
    near(build({}).volume, disc(35.24, 2) + disc(35.24, 13.8) - disc(32.04, 13.8));
  });
  test('a solid plug with a flange', () => {
    near(build({ style: 'into', plugWall: 0 }).volume, disc(32, 2) + disc(23.85, 8));
  });
  test('over and into, the plug hollow', () => {
    near(
      build({ style: 'both' }).volume,
      disc(35.24, 15.8) - disc(32.04, 13.8) + disc(23.85, 8) - disc(20.65, 8),
    );
  });
  test('a lip adds a ring of trapezoid section (Pappus)', () => {
    // Height 1.07: hold slope 45°, flat 2.4, lead 30° to the axis.
    const h = (32.04 - 29.9) / 2;
    const parts = [
      { area: (h * h) / 2, r: 16.02 - h / 3 },
      { area: 2.4 * h, r: 16.02 - h / 2 },
      { area: (h * h * Math.sqrt(3)) / 2, r: 16.02 - h / 3 },
    ];
    const ridge = parts.reduce((sum, p) => sum + 2 * Math.PI * p.r * p.area, 0);
    const added = build({ lip: 'skirt' }).volume - build({}).volume;
    expect(added / ridge).toBeCloseTo(1, 2);
  });
  test('the outer fillet takes off a square less a quarter circle, turned (Pappus)', () => {
    const r = 1;
    const section = r * r * (1 - Math.PI / 4);
    // Centroid of that spandrel from the outer corner: 0.2234 r.
    const removed = 2 * Math.PI * (17.62 - 0.2234 * r) * section;
    expect((build({}).volume - build({ outerFillet: 1 }).volume) / removed).toBeCloseTo(1, 1);
  });
});

describe('the solid', () => {
  test.each([
    ['over, with tab', {}],
    ['into', { style: 'into' }],
    ['both', { style: 'both' }],
    ['lip in the skirt', { lip: 'skirt' }],
    ['bead on the plug', { style: 'into', lip: 'plug', plugDepth: 14 }],
    ['both with lip', { style: 'both', lip: 'skirt' }],
    ['large', { skirtDiameter: 160, wall: 3, skirtDepth: 40, tabLength: 30, tabWidth: 30 }],
    [
      'small',
      {
        skirtDiameter: 6,
        wall: 1.2,
        skirtDepth: 6,
        tabLength: 8,
        tabWidth: 5,
        leadIn: 0.3,
        outerFillet: 0.5,
      },
    ],
  ] as [string, Parameters][])('%s is one closed body whose mates measure as drawn', (_, change) => {
    const part = build(change, demo);
    expect(part.watertight).toBe(true);
    expect(part.volume).toBeGreaterThan(0);
    expect(part.bounds.min[2]).toBe(0);
    for (const mate of part.mates) {
      const spec = roundCap.mates.find(m => m.id === mate.id)!;
      expect(Math.abs(mate.size - ({ ...demo, ...change }[spec.parameter] as number)), mate.id).toBeLessThan(
        0.01,
      );
    }
  });

  test('what the screen shows, joined as triangles, is the solid of the file', () => {
    for (const change of [
      {},
      { style: 'both', lip: 'skirt' },
      { style: 'into', tabLength: 20 },
    ] as Parameters[]) {
      const screen = buildPart(roundCap, { ...demo, ...change }, kernels, 'screen');
      const file = build(change, demo);
      if (!screen.ok) throw new Error('not built');
      expect(screen.part.watertight).toBe(true);
      expect(Math.abs(screen.part.volume / file.volume - 1)).toBeLessThan(0.005);
      expect(screen.part.bounds.max[0]).toBeCloseTo(file.bounds.max[0], 1);
      for (const [i, mate] of screen.part.mates.entries())
        expect(Math.abs(mate.size - file.mates[i]!.size)).toBeLessThan(0.07);
    }
  });

  test('the tab lies flat on the bed and reaches as far as asked', () => {
    const part = build({}, demo);
    expect(part.bounds.max[0]).toBeCloseTo(17.62 + 12, 2);
    expect(part.bounds.max[0] - part.bounds.min[0]).toBeCloseTo(35.24 + 12, 1);
  });

  test('the same parameters give the same triangles', () => {
    const [a, b] = [build({}, demo), build({}, demo)];
    expect(a.mesh.positions).toEqual(b.mesh.positions);
    expect(a.mesh.triangles).toEqual(b.mesh.triangles);
  });
});

describe('what cannot be built is refused with the parameter to change', () => {
  test.each([
    ['leadIn', { leadIn: 1.6 }],
    ['outerFillet', { outerFillet: 17 }],
    ['outerFillet', { outerFillet: 6, wall: 1, endThickness: 1, leadIn: 0.3 }],
    ['plugWall', { style: 'into', plugWall: 20 }],
    ['endDiameter', { style: 'into', endDiameter: 23 }],
    ['plugDiameter', { style: 'both', plugDiameter: 32 }],
    ['lipDiameter', { lip: 'skirt', lipDiameter: 33 }],
    ['lipDiameter', { lip: 'skirt', style: 'both', lipDiameter: 23 }],
    ['lipFrom', { lip: 'skirt', lipFrom: 0.5 }],
    ['skirtDepth', { lip: 'skirt', skirtDepth: 9 }],
    ['plugDepth', { style: 'into', lip: 'plug', plugDepth: 6 }],
    ['beadDiameter', { style: 'into', lip: 'plug', plugDepth: 14, beadDiameter: 23 }],
    ['tabWidth', { tab: true, tabWidth: 60, tabLength: 40 }],
    ['tabLength', { tab: true, tabWidth: 30, tabLength: 5 }],
  ] as [string, Parameters][])('%s: %j', (parameter, change) => {
    const outcome = buildPart(roundCap, { ...demo, tab: false, ...change }, kernels, 'file');
    expect(outcome.ok).toBe(false);
    expect(outcome.findings.map(f => f.parameter)).toContain(parameter);
  });

  test('a remedy’s number builds', () => {
    const p = { ...demo, tab: false, leadIn: 1.6 };
    const [finding] = roundCap.refuse(p);
    expect(roundCap.refuse({ ...p, leadIn: Number(finding!.remedy!.text) })).toEqual([]);
  });
});

describe('parameters', () => {
  test('bounds and unknown names are refused in words', () => {
    const schema = parameterSchema(roundCap);
    expect(schema.safeParse({}).success).toBe(true);
    expect(schema.safeParse({ skirtDiameter: -1 }).error!.issues[0]!.message).toContain('at least');
    expect(schema.safeParse({ skirtDiameter: 1e9 }).error!.issues[0]!.message).toContain('at most');
    expect(schema.safeParse({ skirtDiameter: Number.NaN }).success).toBe(false);
    expect(schema.safeParse({ style: 'under' }).success).toBe(false);
    expect(schema.safeParse({ colour: 'red' }).success).toBe(false);
  });
  test('the demo object builds from its own parameters', () => {
    expect(roundCap.refuse(demo)).toEqual([]);
    expect(parameterSchema(roundCap).parse({})).toEqual(demo);
  });
});

describe('drawings', () => {
  test('every guide dimension in use is drawn, at its measured size', () => {
    const p = { ...demo, style: 'both', lip: 'skirt' };
    const drawing = roundCap.objectDrawing({ rim: 40, bore: 30, rim_height: 16 }, p);
    const needed = roundCap.guide.filter(g => g.needed(p)).map(g => g.key);
    expect(drawing.dimensions.map(d => d.key).sort()).toEqual(needed.sort());
    const rim = drawing.dimensions.find(d => d.key === 'rim')!;
    expect(rim.to[0] - rim.from[0]).toBe(40);
  });
  test('the part’s mates are lit where they are', () => {
    const drawing = roundCap.drawing({ ...demo, lip: 'skirt' });
    expect(new Set(drawing.shapes.flatMap(s => (s.ink === 'mate' ? [s.key] : [])))).toEqual(
      new Set(['skirt', 'lip']),
    );
    const [minX, minY, maxX, maxY] = drawing.frame;
    for (const shape of drawing.shapes) {
      for (const [x, y] of shape.points) {
        expect(x >= minX && x <= maxX && y >= minY && y <= maxY).toBe(true);
      }
    }
  });
});

test('slots wider than what they are cut in are drawn all the same: the drawing is shown of what is refused too', () => {
  const narrow = { style: 'over', lip: 'skirt', slots: 6, slotsIn: 'lip', slotWidth: 6, skirtDiameter: 4 };
  for (const { points } of roundCap.drawing({ ...demo, ...narrow }).shapes)
    expect(points.flat().every(Number.isFinite)).toBe(true);
});
