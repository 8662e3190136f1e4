import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildPart } from '../build';
import type { Kernels } from '../kernels/kernel';
import { requireRecipe } from '.';
import type { Parameters } from './parameters';

/** Volumes against closed formulas, and the effect of single parameters. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const build = (id: string, change: Parameters) => {
  const recipe = requireRecipe(id);
  const outcome = buildPart(recipe, { ...recipe.demo.parameters, ...change }, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
};
const disc = (diameter: number, height: number) => (Math.PI / 4) * diameter ** 2 * height;
const near = (actual: number, expected: number) =>
  expect(Math.abs(actual / expected - 1)).toBeLessThan(0.0015);

describe('bush', () => {
  test('a plain ring, with a flange, and cut at an angle', () => {
    const ring = disc(13.95, 11.8) - disc(8.45, 11.8);
    near(build('bush', { leadIn: 0 }).volume, ring);
    near(build('bush', { leadIn: 0, flange: true }).volume, ring + disc(17.95, 1.6) - disc(13.95, 1.6));
    // A plane through the axis at the same height takes as much off one side as it adds on the other.
    near(build('bush', { leadIn: 0, endAngle: 20 }).volume, ring);
    const { bounds } = build('bush', { leadIn: 0, endAngle: 20 });
    expect(bounds.max[2]).toBeCloseTo(11.8 + Math.tan(Math.PI / 9) * 6.975, 2);
  });
});

test('stepped sleeve: collar and sleeve less the rod', () => {
  near(build('stepped-sleeve', { leadIn: 0 }).volume, disc(25.85, 3) + disc(19.85, 24) - disc(12.5, 24));
});

test('socket knob: a disc less a hexagon, whose corners are derived from its flats', () => {
  const hexagon = (Math.sqrt(3) / 2) * 13.3 ** 2;
  near(build('socket-knob', { grip: 'round', leadIn: 0 }).volume, disc(50, 14) - 9.5 * hexagon);
  near(
    build('socket-knob', { grip: 'round', leadIn: 0, socket: 'square', through: true }).volume,
    disc(50, 14) - 14 * 13.3 ** 2,
  );
});

test('plate between bolt patterns: a plate less eight holes', () => {
  const { volume, bounds } = build('plate-adapter', { corners: 0 });
  expect(bounds.max[0] - bounds.min[0]).toBeCloseTo(64 + 6.6 + 10, 3);
  const plate = (64 + 16.6) * (44 + 16.6) * 5;
  near(volume, plate - 4 * disc(4.6, 5) - 4 * disc(6.6, 5));
});

test('tube adapter: two tubes and the cone between them', () => {
  const same = {
    kindA: 'into',
    intoA: 30,
    kindB: 'into',
    intoB: 30,
    lengthA: 10,
    lengthB: 10,
    middle: 10,
    leadIn: 0,
    wall: 2,
  };
  near(build('tube-adapter', same).volume, disc(30, 30) - disc(26, 30));
});

test('handle, clip, tray and leaf: a prism’s volume is its section times its length', () => {
  for (const [id, name, change] of [
    ['screw-handle', 'depth', { pilot: 0.8, pilotDepth: 4 }],
    ['tube-clip', 'length', { screwHole: 0 }],
    ['hinge-leaf', 'length', { holes: 0 }],
    ['board-tray', 'length', { endWall: 0, pull: 0, tab: false }],
    ['rim-fork', 'height', { screwHole: 0 }],
  ] as const) {
    const short = build(id, { ...change, [name]: 40 }).volume;
    const long = build(id, { ...change, [name]: 80 }).volume;
    // The handle's two pilot holes are all that does not grow.
    expect(long / short, id).toBeCloseTo(2, 2);
  }
});

describe('tube adapter', () => {
  // Both ends alike, so that nothing narrows: a ring swept along a line of known length (Pappus).
  const plain = { kindA: 'into', kindB: 'into', intoA: 28, intoB: 28, lengthA: 20, lengthB: 18, leadIn: 0 };
  const ring = (Math.PI / 4) * (28 ** 2 - 24 ** 2);
  test('at an angle: the middle line’s length times the ring', () => {
    const { volume } = build('tube-adapter', { ...plain, run: 'angle', bendAngle: 60, bendRadius: 30 });
    near(volume, ring * (20 + 18 + 2 + (30 * Math.PI) / 3));
  });
  test('side by side: two bends, and a straight piece where they do not reach', () => {
    const aside = 2 * 20 * (1 - Math.SQRT1_2);
    const bends = 2 * 20 * (Math.PI / 4);
    near(
      build('tube-adapter', { ...plain, run: 'offset', offset: aside, bendRadius: 20 }).volume,
      ring * (40 + bends),
    );
    const { volume, bounds } = build('tube-adapter', {
      ...plain,
      run: 'offset',
      offset: aside + 15,
      bendRadius: 20,
    });
    near(volume, ring * (40 + bends + 15 * Math.SQRT2));
    expect(bounds.max[0]).toBeCloseTo(aside + 15 + 14, 1);
  });
  test('tapered: the frustum of a cone, its size midway', () => {
    const taper = { ...plain, stop: 0, middle: 12, taperA: 3 };
    const { volume, mates } = build('tube-adapter', taper);
    const t = Math.tan(Math.PI / 60);
    const [foot, root, bore] = [14 - 10 * t, 14 + 10 * t, 12 - 10 * t];
    const cone = (h: number, a: number, b: number) => (Math.PI / 3) * h * (a * a + a * b + b * b);
    // End A’s way is straight: what is wider at its root is solid. Past it the way opens to B’s at 45°.
    const way = disc(2 * bore, 20) + cone(12 - bore, 12, bore) + disc(24, 12 - (12 - bore) + 18);
    near(volume, cone(20, foot, root) + cone(12, root, 14) + disc(28, 18) - way);
    expect(mates.find(m => m.id === 'intoA')!.size).toBeCloseTo(28, 2);
  });
});

test('tube adapter from wide to narrow: its wall is as thick on the slope as at its ends', () => {
  // Outsides of 60 and 30 over 40 mm: a slope of 3 in 8, 20.6° from the axis; walls of 2 square to it.
  const change = {
    kindA: 'into',
    kindB: 'into',
    intoA: 60,
    intoB: 30,
    lengthA: 20,
    lengthB: 20,
    middle: 40,
    leadIn: 0,
  };
  const { volume } = build('tube-adapter', change);
  const slope = Math.atan(15 / 40);
  const earlier = 2 * Math.tan(slope / 2);
  const cone = (h: number, a: number, b: number) => (Math.PI / 3) * h * (a * a + a * b + b * b);
  const outside = disc(60, 20) + cone(40, 30, 15) + disc(30, 20);
  const inside = disc(56, 20 - earlier) + cone(40, 28, 13) + disc(26, 20 + earlier);
  near(volume, outside - inside);
});

describe('profile part', () => {
  test('an outline of lines and arcs, its holes and pocket', () => {
    // A box under a half disc, 0.1 mm smaller all round: (180 + π 15²/2) − 0.1 · length + 0.01 · corners.
    const d = (Math.PI * 14.9 ** 2) / 2 + 29.8 * 5.9;
    const flat = { leadIn: 0, widthSize: 29.8 };
    near(build('profile-part', { ...flat, holes: '' }).volume, 12 * d);
    near(build('profile-part', flat).volume, 12 * d - disc(4.2, 12));
    near(build('profile-part', { ...flat, holes: '', pocket: true }).volume, 12 * d - 18 * 3 * 5);
    near(build('profile-part', { ...flat, holes: '5, 5, 3 deep 4' }).volume, 12 * d - disc(3, 4));
  });
  test('a lip, and another outline at the top', () => {
    const box = { outline: '0, 0; 40, 0; 40, 30; 0, 30', widthSize: 40, holes: '', leadIn: 0 };
    near(build('profile-part', { ...box, lip: true }).volume, 40 * 30 * 12 + (40 * 30 - 36.8 * 26.8) * 3);
    const top = { ...box, top: true, topOutline: '5, 5; 35, 5; 35, 25; 5, 25', straight: 6 };
    // A prismatoid: a sixth of bottom, top and four times the middle.
    const middle = 35 * 25;
    near(build('profile-part', top).volume, 1200 * 6 + (6 / 6) * (1200 + 600 + 4 * middle));
  });
  test('its girth, as a circle’s diameter', () => {
    const { mates } = build('profile-part', { fits: 'around', aroundSize: 28.2 });
    expect(mates[0]!.kind).toBe('girth');
    expect(mates[0]!.size).toBeCloseTo(28.2, 2);
  });
});

describe('socket knob and clip', () => {
  test('a slot for a key adds its box, less what of it the bore has', () => {
    const plain = { socket: 'round', grip: 'round', leadIn: 0 };
    const over = 18.4 - 16.3;
    const bore = build('socket-knob', plain).volume;
    const keyed = build('socket-knob', { ...plain, socket: 'key' }).volume;
    // Between the slot's mouth on the circle and the circle itself lies a segment of the bore.
    const [r, half] = [8.15, 2.6];
    const segment = r * r * Math.asin(half / r) - half * Math.sqrt(r * r - half * half);
    const box = 5.2 * (r + over - Math.sqrt(r * r - half * half)) - segment;
    expect(bore - keyed).toBeCloseTo(box * 9.5, 0);
  });
  test('flutes take circle segments off a round grip', () => {
    const plain = { grip: 'round', leadIn: 0 };
    expect(build('socket-knob', { ...plain, grip: 'flutes' }).volume).toBeLessThan(
      build('socket-knob', plain).volume,
    );
  });
  test('slots of a cap: each a box out of its wall', () => {
    const cap = { tab: false, outerFillet: 0, leadIn: 0 };
    const [whole, slotted] = [
      build('round-cap', cap).volume,
      build('round-cap', { ...cap, slots: 8 }).volume,
    ];
    // A box across a curved wall: within a few parts in a thousand of width × wall × depth.
    expect((whole - slotted) / (8 * 1.2 * 1.6 * 6)).toBeCloseTo(1, 2);
  });

  test('slots in the lip alone take its section times their width, and leave the wall whole', () => {
    const lipped = { style: 'over', lip: 'skirt', tab: false, slotWidth: 2 };
    const recipe = requireRecipe('round-cap');
    const whole = build('round-cap', lipped).volume;
    const slotted = build('round-cap', { ...lipped, slots: 6, slotsIn: 'lip' });
    const rise = (32.04 - 29.9) / 2;
    const section = rise * 2.4 + (rise ** 2 * (1 + Math.sqrt(3))) / 2;
    expect(Math.abs((whole - slotted.volume) / (6 * 2 * section) - 1)).toBeLessThan(0.03);
    const p = { ...recipe.demo.parameters, ...lipped, slots: 6, slotsIn: 'lip' };
    const parted = Object.fromEntries(recipe.surfaces(p).map(m => [m.mate, m.parted ?? false]));
    expect(parted).toEqual({ skirt: false, lip: true });
    expect(slotted.bounds).toEqual(build('round-cap', lipped).bounds);
  });
});

test('drive key: head, cone, round sections and prisms in series', () => {
  // The cone under the shank: half of what the head stands out beyond it, as high as wide.
  const cone = (24 - 11.6) / 4;
  const frustum = (Math.PI / 3) * cone * ((5.8 + cone) ** 2 + (5.8 + cone) * 5.8 + 5.8 ** 2);
  const plain = disc(24, 10) + frustum + disc(11.6, 25 - cone) + 4.85 * 8.6 * 7.5;
  near(build('drive-blade', { headShape: 'round' }).volume, plain);
  near(build('drive-blade', { headShape: 'round', stepped: true }).volume, plain + disc(11, 10));
  near(
    build('drive-blade', { headShape: 'round', tip: 'fork' }).volume,
    // Two segments of the round end beside the slot.
    plain - 4.85 * 8.6 * 7.5 + 7.5 * (disc(11.6, 1) - slab(11.6, 4.2)),
  );
  near(build('drive-blade', { headShape: 'round', socket: 'square' }).volume, plain - 8.2 ** 2 * 7);
  near(
    build('drive-blade', { headShape: 'blade' }).volume,
    disc(11.6, 25) + 4.85 * 8.6 * 7.5 + 5.8 * 9.6 * 8,
  );
});

/** A round of diameter d, between two chords so far apart. */
function slab(d: number, wide: number): number {
  const [r, a] = [d / 2, wide / 2];
  return 2 * (a * Math.sqrt(r * r - a * a) + r * r * Math.asin(a / r));
}

test('lug: a base, an eye with fillets at its root, less the pin and the holes', () => {
  const { volume } = build('hinge-leaf', { style: 'lug', baseWide: 40, length: 12 });
  const [r, root] = [5.4 / 2 + 2.4, 4];
  const eye = 2 * r * (22 - 3) + (Math.PI / 2) * r * r + 2 * (1 - Math.PI / 4) * root * root;
  near(volume, 44 * 40 * 3 + 12 * eye - disc(5.4, 12) - 2 * disc(4.5, 3));
});

test('knuckles: the barrel less its gaps', () => {
  const whole = build('hinge-leaf', {}).volume;
  const parted = build('hinge-leaf', { barrel: 'knuckles', knuckles: 3, gap: 6 }).volume;
  const r = 5.4 / 2 + 2.4;
  // In the gap all of the barrel is gone, its foot, and 0.4 mm of the plate behind it.
  const section = 2 * r * r + (Math.PI / 2) * r * r - (Math.PI / 4) * 5.4 ** 2 + 0.4 * 3;
  near(whole - parted, 2 * 6 * section);
});

test('a second plate at a right angle doubles what is beside the barrel', () => {
  const { bounds } = build('hinge-leaf', { second: true, angle: 90 });
  // Both reach 28 from the pin; the pin is 5.1 above the bed.
  expect(bounds.max[0]).toBeCloseTo(28, 3);
  expect(bounds.max[2]).toBeCloseTo(28 + 5.1, 3);
  const flat = build('hinge-leaf', { second: true, angle: 180 }).bounds;
  expect(flat.min[0]).toBeCloseTo(-28, 3);
});

test('tray: posts with holes instead of rails, a tab, and slots through the floor', () => {
  const tray = (change: Parameters) => build('board-tray', { holds: 'posts', tab: false, ...change }).volume;
  const base = tray({});
  // The floor under the well is cut off by a chord: a slot takes the segment's middle, a prism all but exactly.
  // Posts of 3 under a board that sits 1 below the middle.
  const [R, well] = [47.5 / 2, -1 - 3];
  const [half, long] = [3, 10];
  const depth = half * Math.sqrt(R * R - half * half) + R * R * Math.asin(half / R);
  near(base - tray({ slots: 2 }), 2 * long * (depth + 2 * half * well));
  const [d, high] = [5, -1 - well];
  const thicker = tray({ post: 7 }) - base;
  near(thicker, 4 * (disc(7, high) - disc(d, high)));
  const tab = tray({ tab: true }) - base;
  near(tab, 13 * 16 * 2.6 - disc(6.5, 2.6));
});

test('a coupler: two threads and a web between; both measured', () => {
  const { mates, watertight } = build('threaded-cover', {
    style: 'coupler',
    standardB: 'M64',
    coverThreadB: 64.4,
  });
  expect(watertight).toBe(true);
  expect(mates.map(m => [m.id, Number(m.size.toFixed(1))])).toEqual([
    ['cover', 110],
    ['coverB', 64.4],
  ]);
});
