import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildWith, type Wish } from '../../../testing/part-with';
import type { Kernels } from '../kernels/kernel';
import { closureOf, volumeOf } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';

/** What additions do, against closed formulas, on a plate of 83 × 50 × 4 and a bush of Ø 13.95 over Ø 8.45. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

const built = (id: string, wishes: readonly Wish[], change: Parameters = {}) => {
  const outcome = buildWith(kernels, id, wishes, { change });
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome;
};
const added = (id: string, wishes: readonly Wish[], change: Parameters = {}) =>
  built(id, wishes, change).part.volume - built(id, [], change).part.volume;
const near = (actual: number, expected: number, share = 0.002) =>
  expect(Math.abs(actual / expected - 1), `${actual} for ${expected}`).toBeLessThan(share);
const disc = (d: number, h: number) => (Math.PI / 4) * d * d * h;
const codes = (outcome: { findings: readonly { code: string }[] }) => outcome.findings.map(f => f.code);

describe('a shape on a face', () => {
  const on = (set: Parameters) => added('wall-plate', [{ kind: 'shape', set }]);

  test('adds its section times its rise, whatever the section', () => {
    near(on({ place: 'top', rise: 10, width: 12, depth: 6 }), 720);
    near(on({ place: 'top', rise: 10, section: 'round', diameter: 8 }), disc(8, 10));
    near(
      on({ place: 'top', rise: 5, section: 'polygon', flats: 10, sides: 6 }),
      5 * (Math.sqrt(3) / 2) * 100,
    );
    near(on({ place: 'right', rise: 7, width: 10, depth: 3 }), 210);
    near(on({ place: 'underside', rise: 2, section: 'slot', width: 12, depth: 4 }), 2 * (8 * 4 + disc(4, 1)));
  });

  test('a draft makes it a frustum; a root fillet adds the rest of a square about a quarter circle', () => {
    const slope = Math.tan((10 * Math.PI) / 180);
    const [a, b] = [144, (12 - 20 * slope) ** 2];
    near(on({ rise: 10, width: 12, depth: 12, draft: 10 }), (10 / 3) * (a + b + Math.sqrt(a * b)));
    // Square corners stay square where they grow: perimeter × (1 − π/4) r², and four corner pieces.
    // In six straight steps the fillet is 4 % fuller than a quarter circle.
    const r = 2;
    const straight = 4 * 12 * (1 - Math.PI / 4) * r * r;
    const corners = 4 * (5 / 3 - Math.PI / 2) * r ** 3;
    near(on({ rise: 10, width: 12, depth: 12, root: r }) - 1440, straight + corners, 0.05);
  });

  test('cut in, it takes its section times its depth; right through, times the plate', () => {
    near(-on({ does: 'cut', width: 12, depth: 6, deep: 2.5 }), 180);
    near(-on({ does: 'cut', width: 12, depth: 6, through: true }), 12 * 6 * 4);
  });

  test('in rows, grids and circles: as many times as there are', () => {
    const one = { place: 'top', rise: 3, width: 4, depth: 4, x: -20 };
    near(on({ ...one, copies: 'row', count: 3, pitch: 8 }), 3 * 48);
    near(on({ ...one, copies: 'grid', count: 3, pitch: 8, rows: 2, rowPitch: 9 }), 6 * 48);
    near(on({ ...one, x: 12, copies: 'ring', count: 5 }), 5 * 48);
    // Longer than the pitch: a row along its length is one bar, a row across it is three.
    const long = { ...one, width: 8, x: 0, copies: 'row', count: 3, pitch: 6 };
    near(on(long), 20 * 4 * 3);
    near(on({ ...long, runs: 'up' }), 3 * 96);
  });

  test('on a round wall it reaches in until it meets it all over', () => {
    const { part, findings } = built('bush', [
      { kind: 'shape', set: { place: 'right', width: 4, depth: 4, rise: 6 } },
    ]);
    expect(findings).toEqual([]);
    expect(closureOf(part.mesh).bodies).toBe(1);
    expect(part.bounds.max[0]).toBeCloseTo(13.95 / 2 + 6, 2);
  });

  test('beside the part, or on a face that is gone, it is left out and says so', () => {
    const beside = built('wall-plate', [{ kind: 'shape', set: { x: 90 } }]);
    expect(beside.findings[0]).toMatchObject({ code: 'addition-gone', level: 'stop', parameter: 'shape1_x' });
    const gone = built('wall-plate', [{ kind: 'shape', set: { place: 'top at 6' } }]);
    expect(gone.findings[0]).toMatchObject({
      code: 'addition-gone',
      addition: 'shape1',
      remedy: { parameter: 'shape1_place', text: 'top at 4' },
    });
    expect(gone.findings[0]!.message).toContain('no such face any more');
    near(gone.part.volume, built('wall-plate', []).part.volume, 1e-6);
  });

  test('follows its face when the part grows', () => {
    const top = (thickness: number) =>
      built('wall-plate', [{ kind: 'shape', set: { rise: 5 } }], { thickness }).part.bounds.max[2];
    expect(top(4)).toBeCloseTo(9, 3);
    expect(top(6)).toBeCloseTo(11, 3);
  });

  test('is a mate where it must fit: measured on the triangles', () => {
    const fits = { dimension: 'd', parameter: 'diameter', side: 'outside', form: 'round' } as const;
    const { part } = built('wall-plate', [
      { kind: 'shape', set: { section: 'round', diameter: 8.2, place: 'front', rise: 12 }, fits },
    ]);
    const mate = part.mates.find(m => m.id === 'shape1')!;
    expect(mate.size).toBeCloseTo(8.2, 2);
    expect(mate.axis).toEqual([0, -1, 0]);
  });

  test.each(['rectangle', 'slot'])('a %s fits by its width or by its depth, whichever is meant', section => {
    for (const [sets, size] of [
      ['width', 14],
      ['depth', 5.3],
    ] as const)
      for (const does of ['add', 'cut'] as const) {
        const side = does === 'add' ? 'outside' : 'inside';
        const set = { does, section, width: 14, depth: 5.3, sets, rise: 8, through: true, y: 8, turn: 30 };
        const fits = { dimension: 'd', parameter: sets, side, form: 'flats' } as const;
        const { part } = built('wall-plate', [{ kind: 'shape', set, fits }]);
        expect(part.mates.find(m => m.id === 'shape1')!.size, `${does} ${sets}`).toBeCloseTo(size, 2);
      }
  });
});

describe('holes', () => {
  const bored = (set: Parameters) =>
    -added('wall-plate', [{ kind: 'hole', set: { extra: 0, x: 0, y: 12, ...set } }]);

  test('for screws: ISO 273 medium, the thread’s minor diameter, four fifths for a pilot', () => {
    near(bored({ use: 'clearance', screw: 'M4' }), disc(4.5, 4));
    near(bored({ use: 'pilot', screw: 'M5' }), disc(4, 4));
    near(bored({ use: 'insert', screw: 'M3' }), disc(4, 4));
    near(bored({ use: 'plain', diameter: 7 }), disc(7, 4));
    near(bored({ use: 'plain', diameter: 7, ends: 'deep', deep: 1.5 }), disc(7, 1.5));
  });

  test('countersunk by ISO 10642: the cone’s frustum on top of the hole', () => {
    const [r, R] = [4.5 / 2, 8.96 / 2];
    const h = R - r;
    near(
      bored({ screw: 'M4', head: 'countersunk' }),
      disc(4.5, 4) + (Math.PI * h * (R * R + R * r + r * r)) / 3 - disc(4.5, h),
    );
  });

  test('counterbored and with a nut let in', () => {
    near(bored({ screw: 'M4', head: 'counterbored', sunk: 2 }), disc(4.5, 2) + disc(7.6, 2));
    const hexagon = (Math.sqrt(3) / 2) * 7.35 ** 2;
    near(bored({ screw: 'M4', head: 'nut', sunk: 2 }), disc(4.5, 2) + 2 * hexagon);
  });

  test('a teardrop is the circle and the square on its upper quarter', () => {
    const r = 2;
    const area = (3 / 4) * Math.PI * r * r + r * r;
    const through = -added('wall-plate', [
      {
        kind: 'hole',
        set: { use: 'plain', diameter: 4, place: 'right', teardrop: true, ends: 'deep', deep: 5 },
      },
    ]);
    // The plate is 4 thick: above and below it there is nothing to take away.
    expect(through).toBeLessThan(area * 5);
    expect(through).toBeGreaterThan(disc(4, 5) * 0.95);
  });

  test('towards a point, ending there', () => {
    const set = {
      use: 'plain',
      diameter: 3,
      place: 'top',
      by: 'aim',
      aimX: 4,
      aimY: 12,
      aimZ: 1,
      ends: 'point',
    };
    const { part, findings } = built('wall-plate', [
      {
        kind: 'hole',
        set: { ...set, x: 0, y: 12 },
        fits: { dimension: 'd', parameter: 'diameter', side: 'inside', form: 'round' },
      },
    ]);
    expect(findings).toEqual([]);
    const { axis } = part.mates.find(m => m.id === 'hole1')!;
    expect(axis[0]).toBeCloseTo(-0.8, 6);
    expect(axis[2]).toBeCloseTo(0.6, 6);
    const along = built('wall-plate', [{ kind: 'hole', set: { ...set, x: 0, y: 12, aimX: 40, aimZ: 3.5 } }]);
    expect(codes(along)).toEqual(['addition-gone']);
  });

  test('a printed thread: its groove runs a coarse pitch, and what is left is closed', () => {
    const { part } = built('wall-plate', [{ kind: 'hole', set: { use: 'threaded', screw: 'M8', y: 12 } }]);
    expect(part.watertight).toBe(true);
    const taken = built('wall-plate', []).part.volume - part.volume;
    // Between the minor diameter’s cylinder and the major one’s.
    expect(taken).toBeGreaterThan(disc(6.85, 4));
    expect(taken).toBeLessThan(disc(8.3, 4));
  });
});

describe('around a round wall', () => {
  test('a square groove is a ring, inside as outside; a band adds one', () => {
    const ring = (a: number, b: number, w: number) => disc(a, w) - disc(b, w);
    near(-added('bush', [{ kind: 'band', set: { z: 6, width: 2, deep: 0.8 } }]), ring(13.95, 12.35, 2));
    near(
      -added('bush', [{ kind: 'band', set: { z: 6, width: 2, deep: 0.8, wall: 'inside' } }]),
      ring(10.05, 8.45, 2),
    );
    near(
      added('bush', [{ kind: 'band', set: { z: 6, width: 2, deep: 1, does: 'add' } }]),
      ring(15.95, 13.95, 2),
    );
  });

  test('flutes take a lens each', () => {
    const [R, r, deep, n] = [13.95 / 2, 1.5, 0.6, 12];
    const d = R - deep + r;
    const lens =
      r * r * Math.acos((d * d + r * r - R * R) / (2 * d * r)) +
      R * R * Math.acos((d * d + R * R - r * r) / (2 * d * R)) -
      0.5 * Math.sqrt((-d + r + R) * (d + r - R) * (d - r + R) * (d + r + R));
    const set = { count: n, deep, diameter: 2 * r, low: 2, high: 9 };
    near(-added('bush', [{ kind: 'flutes', set }]), n * lens * 7, 0.01);
    const crowded = built('bush', [{ kind: 'flutes', set: { ...set, count: 40 } }]);
    expect(crowded.findings[0]).toMatchObject({
      code: 'addition-gone',
      remedy: { parameter: 'grip1_count' },
    });
  });

  test('a lead-in is a cone at the mouth of the mate', () => {
    const h = 1;
    const wide = Math.tan((30 * Math.PI) / 180) * h;
    const [r, R] = [8.45 / 2, 8.45 / 2 + wide];
    const taken = -added('bush', [{ kind: 'lead-in', set: { surface: 'bore', deep: h } }], { leadIn: 0 });
    near(taken, (Math.PI * h * (R * R + R * r + r * r)) / 3 - Math.PI * r * r * h, 0.01);
  });
});

describe('edges', () => {
  test('upright ones rounded: each takes (1 − π/4) r² of the height', () => {
    const square = { outline: '0, 0; 30, 0; 30, 20; 0, 20', leadIn: 0 };
    const taken = -added('profile-part', [{ kind: 'edges', set: { which: 'upright', size: 3 } }], square);
    // 12 high, and the hole's seam is no edge.
    near(taken, 4 * (1 - Math.PI / 4) * 9 * 12, 0.01);
  });

  test('too large a radius is told, with the largest that goes', () => {
    const { findings } = built('wall-plate', [
      { kind: 'edges', set: { place: 'top', which: 'outer', size: 9 } },
    ]);
    expect(findings[0]).toMatchObject({ code: 'addition-gone', parameter: 'edges1_size' });
    const most = Number(findings[0]!.remedy!.text);
    expect(most).toBeGreaterThan(2);
    expect(most).toBeLessThanOrEqual(4);
    expect(
      codes(built('wall-plate', [{ kind: 'edges', set: { place: 'top', which: 'outer', size: most } }])),
    ).toEqual([]);
  });

  test('after letters it is refused with the reason, and the letters stay', () => {
    const { findings, part } = built('wall-plate', [
      { kind: 'words', set: { text: 'BOW' } },
      { kind: 'edges', set: { place: 'top', which: 'outer', size: 1 } },
    ]);
    expect(findings.map(f => f.code)).toEqual(['step-without', 'addition-failed']);
    expect(findings[1]).toMatchObject({ level: 'stop', addition: 'edges2' });
    expect(findings[1]!.message).toContain('Move this addition above');
    expect(part.volume).toBeLessThan(built('wall-plate', []).part.volume);
    expect(
      codes(
        built('wall-plate', [
          { kind: 'edges', set: { place: 'top', which: 'outer', size: 1 } },
          { kind: 'words', set: { text: 'BOW' } },
        ]),
      ),
    ).toEqual(['step-without']);
  });
});

describe('words', () => {
  test('sunk and raised letters take and add the same, on any face', () => {
    const by = (set: Parameters) =>
      added('wall-plate', [{ kind: 'words', set: { text: 'STERN 4', ...set } }]);
    near(by({ does: 'raised', deep: 0.6 }), -by({ does: 'sunk', deep: 0.6 }), 0.01);
    expect(by({ does: 'raised', place: 'front', height: 3, deep: 0.6 })).toBeGreaterThan(3);
  });

  test('a letter the font does not have is told by name', () => {
    const { findings } = built('wall-plate', [{ kind: 'words', set: { text: 'A\u{1F986}' } }]);
    expect(findings[0]!.message).toContain('🦆');
  });
});

describe('the whole part', () => {
  test('the other hand: as much plastic, left and right changed', () => {
    const one: Wish = { kind: 'shape', set: { place: 'top', x: 25, rise: 6 } };
    const a = built('wall-plate', [one]).part;
    const b = built('wall-plate', [one, { kind: 'other-hand' }]).part;
    near(b.volume, a.volume, 1e-5);
    const middle = (part: typeof a) => {
      const { positions: p } = part.mesh;
      const tall = Array.from({ length: p.length / 3 }, (_, i) => i).filter(i => p[3 * i + 2]! > 9.9);
      return tall.reduce((sum, i) => sum + p[3 * i]!, 0) / tall.length;
    };
    expect(middle(a)).toBeCloseTo(25, 3);
    expect(middle(b)).toBeCloseTo(-25, 3);
  });

  test('a mirrored thread is warned of', () => {
    expect(codes(built('threaded-cover', [{ kind: 'other-hand' }]))).toEqual(['addition-mirrored-thread']);
  });

  test('keep clear takes the neighbour and its room', () => {
    const set = { width: 10, depth: 6, height: 20, z: -5, room: 0.5, y: 10 };
    near(-added('wall-plate', [{ kind: 'keep-clear', set }]), 11 * 7 * 4);
    expect(codes(built('wall-plate', [{ kind: 'keep-clear', set: { ...set, x: 200 } }]))).toEqual([
      'addition-idle',
    ]);
  });

  test('a rib is a wedge, or a wall', () => {
    const set = { long: 20, rise: 8, thick: 2 };
    near(added('wall-plate', [{ kind: 'rib', set: { ...set, form: 'level' } }]), 320);
    near(added('wall-plate', [{ kind: 'rib', set }]), (20 * (8 + 0.4) * 2) / 2);
  });

  test('a tie’s slits and tunnel', () => {
    // Two slits of 2 × 5.4 and 3 deep, and between them a tunnel of 2 under the bridge.
    const taken = -added('wall-plate', [
      { kind: 'tie', set: { width: 4.8, thick: 1.2, room: 0.6, bridge: 6, over: 1.2, y: 12 } },
    ]);
    near(taken, 2 * 1.8 * 5.4 * 3 + 6 * 5.4 * 1.8, 0.01);
  });
});

describe('split', () => {
  test('two pieces on the bed, no plastic lost but the dowels’ holes; dowels come with them', () => {
    const whole = built('wall-plate', [], { thickness: 12 }).part.volume;
    const { part, findings } = built(
      'wall-plate',
      [{ kind: 'split', set: { across: 'x', at: 0, joint: 'dowels', diameter: 4, deep: 6 } }],
      { thickness: 12 },
    );
    expect(findings).toEqual([]);
    expect(part.pieces.map(p => p.name)).toEqual(['left', 'right', 'dowel 1', 'dowel 2']);
    expect(closureOf(part.mesh)).toEqual({ openEdges: 0, bodies: 4 });
    const halves = part.pieces.slice(0, 2).reduce((sum, p) => sum + volumeOf(p.mesh), 0);
    near(whole - halves, 2 * disc(4.2, 12.5), 0.01);
    expect(part.bounds.min[2]).toBeCloseTo(0, 6);
  });

  test('glued, screwed, level, and where there is no room', () => {
    for (const joint of ['glue', 'seat', 'screws', 'rod'])
      expect(
        codes(
          built('wall-plate', [{ kind: 'split', set: { across: 'y', at: 0, joint } }], { thickness: 14 }),
        ),
        // It goes through the slots, and reports that.
        joint,
      ).toEqual(['cut-through-mate']);
    const { part } = built('bush', [{ kind: 'split', set: { across: 'z', at: 6, joint: 'glue' } }]);
    near(part.volume, built('bush', []).part.volume, 1e-4);
    const thin = built('wall-plate', [{ kind: 'split', set: { across: 'x', at: 0 } }]);
    expect(thin.findings[0]).toMatchObject({ code: 'addition-gone', parameter: 'split1_diameter' });
    const missed = built('wall-plate', [{ kind: 'split', set: { across: 'x', at: 90 } }]);
    expect(missed.findings[0]).toMatchObject({ remedy: { text: '0', parameter: 'split1_at' } });
  });

  test('a cut through a mate says which, and whether it is left in two halves', () => {
    const along = built('bush', [{ kind: 'split', set: { across: 'x', at: 0, joint: 'glue' } }]);
    expect(codes(along)).toContain('cut-through-mate');
    expect(along.findings[0]!.message).toContain('“Bore over shaft”: it is then made of two halves');
    const across = built('bush', [{ kind: 'split', set: { across: 'z', at: 6, joint: 'glue' } }]);
    expect(across.findings[0]!.message).toContain('each half has a part of its length');
    // Beside a mate it reports nothing.
    expect(
      codes(built('wall-plate', [{ kind: 'split', set: { across: 'x', at: 0, joint: 'glue' } }])),
    ).toEqual([]);
  });

  test('counted from the middle of the part, zero is its middle wherever its own zero is', () => {
    const block = {
      outline: '0, 0; 40, 0; 40, 20; 0, 20',
      widthSize: 40,
      holes: '',
      leadIn: 0,
      thickness: 10,
    };
    const { part } = built(
      'profile-part',
      [{ kind: 'split', set: { across: 'x', at: 0, from: 'middle', joint: 'glue' } }],
      block,
    );
    const [a, b] = part.pieces.map(piece => volumeOf(piece.mesh));
    near(a!, b!, 1e-4);
  });

  test('nothing comes after it', () => {
    const { findings } = built('wall-plate', [
      { kind: 'split', set: { across: 'x', at: 0, joint: 'glue' } },
      { kind: 'hole' },
    ]);
    expect(findings[0]).toMatchObject({ code: 'addition-order', addition: 'hole2' });
  });
});

describe('the list', () => {
  test('numbers that contradict each other leave that one out, and the rest of the part stands', () => {
    const { findings, part } = built('wall-plate', [
      { kind: 'slot', set: { long: 3, width: 6 } },
      { kind: 'hole', set: { use: 'plain', diameter: 5 } },
    ]);
    expect(findings).toMatchObject([
      {
        level: 'stop',
        addition: 'slot1',
        parameter: 'slot1_long',
        remedy: { parameter: 'slot1_long', text: '6' },
      },
    ]);
    near(built('wall-plate', []).part.volume - part.volume, disc(5, 4));
  });

  test('what is switched off is not there; order counts', () => {
    const tab: Wish = { kind: 'shape', set: { place: 'top', rise: 6 } };
    near(built('wall-plate', [{ ...tab, on: false }]).part.volume, built('wall-plate', []).part.volume, 1e-9);
    // Drilled first, the hole's mouth is closed by the tab; drilled after, it goes through the tab.
    const hole: Wish = { kind: 'hole', set: { use: 'plain', diameter: 3, place: 'top' } };
    const after = built('wall-plate', [tab, hole]).part.volume;
    const before = built('wall-plate', [hole, tab]).part.volume;
    expect(before - after).toBeGreaterThan(disc(3, 5.9));
  });
});
