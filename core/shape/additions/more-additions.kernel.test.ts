import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildWith, type Wish } from '../../../testing/part-with';
import { box } from '../../../testing/solids';
import type { Kernels } from '../kernels/kernel';
import { closureOf } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';

/** Drafts, threads, what goes around a lying axis, and room for bodies from files: against closed formulas. */
let kernels: Kernels;
const BLOCK = 'd'.repeat(64);
beforeAll(async () => {
  kernels = await startKernels();
  kernels.models = new Map([[BLOCK, box([10, 6, 2])]]);
});
const built = (id: string, wishes: readonly Wish[], change: Parameters = {}) => {
  const outcome = buildWith(kernels, id, wishes, { change });
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome;
};
const added = (id: string, wishes: readonly Wish[]) =>
  built(id, wishes).part.volume - built(id, []).part.volume;
const near = (actual: number, expected: number, share = 0.003) =>
  expect(Math.abs(actual / expected - 1), `${actual} for ${expected}`).toBeLessThan(share);
const disc = (d: number, h: number) => (Math.PI / 4) * d * d * h;
const frustum = (d: number, e: number, h: number) => (Math.PI / 12) * h * (d * d + d * e + e * e);

describe('draft', () => {
  const tan5 = Math.tan((5 * Math.PI) / 180);
  test('a flat face loses a wedge, from whichever end keeps its size', () => {
    // A block of 20 × 12 × 10 on the plate: its right face is 12 wide and 10 high.
    const block: Wish = { kind: 'shape', set: { width: 20, depth: 12, rise: 10 } };
    for (const keeps of ['low', 'high']) {
      const leaning: Wish = { kind: 'draft', set: { place: 'right at 10', angle: 5, keeps } };
      near(added('wall-plate', [block]) - added('wall-plate', [block, leaning]), (12 * 10 * 10 * tan5) / 2);
    }
  });

  test('a round outside becomes a cone, a bore widens', () => {
    const d = 13.95 - 2 * 8 * tan5;
    near(
      -added('bush', [
        { kind: 'draft', set: { which: 'outside', low: 2, high: 10, angle: 5, keeps: 'low' } },
      ]),
      disc(13.95, 8) - frustum(13.95, d, 8),
    );
    near(
      -added('bush', [{ kind: 'draft', set: { which: 'bore', low: 2, high: 10, angle: 5, keeps: 'high' } }]),
      frustum(8.45 + 2 * 8 * tan5, 8.45, 8) - disc(8.45, 8),
    );
  });

  test('so much that a point is left is refused, and so is a face that is not there', () => {
    const pointed = built('bush', [
      { kind: 'draft', set: { which: 'outside', low: 0, high: 11, angle: 44 } },
    ]);
    expect(pointed.findings[0]).toMatchObject({ code: 'addition-gone', parameter: 'draft1_angle' });
    const gone = built('wall-plate', [{ kind: 'draft', set: { place: 'right at 3' } }]);
    expect(gone.findings[0]!.code).toBe('addition-gone');
  });
});

describe('a thread as an addition', () => {
  const stub: Wish = { kind: 'shape', set: { section: 'round', diameter: 24, rise: 20 } };
  const fits = { dimension: 'd', parameter: 'major', side: 'outside', form: 'round' } as const;

  test('on a stub, standard or odd: closed, as large over its ridges as asked, of its hand', () => {
    const wanted: (Parameters & { major: number })[] = [
      { standard: 'M24', major: 23.8 },
      { standard: 'G 1/2', major: 20.7 },
      { standard: '', major: 26, pitch: 4, ridge: 1.6, hand: 'left', starts: 2 },
    ];
    for (const set of wanted) {
      const { part, findings } = built('wall-plate', [
        stub,
        { kind: 'thread', set: { ...set, low: 6, high: 24 }, id: 'thread1', fits },
      ]);
      expect(
        findings.map(f => f.code),
        String(set.standard),
      ).toEqual(['step-without']);
      expect(closureOf(part.mesh)).toEqual({ openEdges: 0, bodies: 1 });
      const mate = part.mates.find(m => m.id === 'thread1')!;
      expect(mate.kind).toBe('thread');
      expect(mate.size).toBeCloseTo(set.major, 2);
      expect(part.surfaces.find(s => s.mate === 'thread1')!.hand).toBe(set.hand ?? 'right');
    }
  });

  test('in a bore, narrower or wider than it needs', () => {
    for (const diameter of [14, 20]) {
      const inTheBore: Wish = {
        kind: 'thread',
        id: 'thread2',
        set: { wall: 'inside', major: 18, pitch: 3, ridge: 1.4, low: 2, high: 24 },
        fits: { ...fits, side: 'inside' },
      };
      const { part, findings } = built('bush', [inTheBore], {
        boreDiameter: diameter,
        outsideDiameter: 30,
        length: 24,
      });
      expect(
        findings.map(f => f.code),
        String(diameter),
      ).toEqual(['step-without']);
      expect(closureOf(part.mesh)).toEqual({ openEdges: 0, bodies: 1 });
      expect(part.mates.find(m => m.id === 'thread2')!.size).toBeCloseTo(18, 2);
    }
  });

  test('names nobody knows, tapers, and walls too thin are refused in words', () => {
    const of = (set: Parameters) =>
      built('bush', [{ kind: 'thread', set: { low: 1, high: 11, ...set } }]).findings[0]!;
    expect(of({ standard: 'M17.3' }).message).toContain('knows no thread “M17.3”');
    expect(of({ standard: '1/4 NPT' }).message).toContain('taper');
    // The bush’s bore is 8.45.
    expect(of({ standard: 'M10', major: 10 })).toMatchObject({ code: 'addition-gone' });
  });
});

test('edges on the bed let back from the first layer’s bulge, around and in holes', () => {
  // Chamfers of 0.4 around the bush's underside, outside and bore: two rings of half a square, by Pappus; its own
  // chamfers are left out here.
  const set = { which: 'bed', how: 'chamfer', size: 0.4 };
  const plain = built('bush', [], { leadIn: 0 }).part.volume;
  const relieved = built('bush', [{ kind: 'edges', set }], { leadIn: 0 }).part.volume;
  const triangle = 0.4 ** 2 / 2;
  near(plain - relieved, 2 * Math.PI * triangle * (13.95 / 2 - 0.4 / 3 + 8.45 / 2 + 0.4 / 3), 0.01);
});

describe('around an axis that lies', () => {
  test('a groove around a stub on the side', () => {
    const stub: Wish = { kind: 'shape', set: { place: 'right', section: 'round', diameter: 3.6, rise: 20 } };
    const groove: Wish = { kind: 'band', set: { along: 'x', h: 2, y: 0, z: 50, width: 2, deep: 0.5 } };
    near(added('wall-plate', [stub]) - added('wall-plate', [stub, groove]), disc(3.6, 2) - disc(2.6, 2));
  });
});

describe('room for a body from a file', () => {
  const cleared = (set: Parameters) =>
    -added('wall-plate', [
      { kind: 'keep-clear', set: { form: 'model', model: BLOCK, room: 0, z: 3, y: 12, ...set } },
    ]);

  test('takes its volume away, laid and turned as it stands', () => {
    near(cleared({}), 60);
    near(cleared({ turn: 90 }), 60);
    // On its front it is 10 × 2 and stands 6 high.
    near(cleared({ lies: 'front' }), 20);
    near(cleared({ lies: 'left' }), 12);
  });

  test('in another unit, and with room: at least so much, an eighth more at most', () => {
    near(cleared({ model: `${BLOCK}*10`, z: 3.9 }), 0.1 * 83 * 50, 0.5);
    const room = cleared({ room: 0.5 });
    const grown = (by: number) => (10 + 2 * by) * (6 + 2 * by) * (1 + by);
    expect(room).toBeGreaterThan(0.97 * grown(0.5));
    expect(room).toBeLessThan(grown(0.5 * 1.13));
  });

  test('none chosen, or its file gone, is said', () => {
    const of = (model: string) =>
      built('wall-plate', [{ kind: 'keep-clear', set: { form: 'model', model } }]).findings[0]!;
    expect(of('')).toMatchObject({ parameter: 'clear1_model', level: 'stop' });
    expect(of('e'.repeat(64)).message).toContain('not at hand');
  });
});
