import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildWith, type Wish } from '../../../testing/part-with';
import type { Kernels } from '../kernels/kernel';
import { closureOf } from '../mesh/mesh';
import type { Parameters } from '../recipes/parameters';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const built = (id: string, wishes: readonly Wish[], change: Parameters = {}) => {
  const outcome = buildWith(kernels, id, wishes, { change });
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome;
};

describe('whatever passes the kernels is closed', () => {
  test('a profile cut slantwise at both ends, its flats in one plane with the cuts’ edges', () => {
    const cut = (outline: string): Wish => ({
      kind: 'shape',
      set: { does: 'cut', place: 'left', section: 'outline', through: true, outline },
    });
    const { part } = built(
      'profile-part',
      [cut('-20, 25.2; 52.6, 25.2; 52.6, 10'), cut('-20, -25.2; 52.6, -10; 52.6, -25.2')],
      {
        outline:
          '0, 0; 23.5, 0; 17, 6.5; 17, 27; 16, 27; 9.5, 25 via 12.9, 25.511; 3, 25; 3, 103; 9.5, 103; 16, 101 via 12.9, 102.489; 17, 101; 17, 105; 0, 105',
        widthSize: 23.33,
        thickness: 50,
        holes: '',
      },
    );
    expect(closureOf(part.mesh)).toEqual({ openEdges: 0, bodies: 1 });
    expect(part.watertight).toBe(true);
    // By its own closed formula: the outline's area times its height, less the two wedges, is about this.
    expect(part.volume).toBeGreaterThan(20_000);
  });
});

describe('edges', () => {
  test.each(['lobes', 'flutes', 'round'])('the top of a knob with a grip of %s can be rounded', grip => {
    const plain = built('socket-knob', [], { grip });
    const rounded = built('socket-knob', [{ kind: 'edges', set: { size: 1 } }], { grip });
    expect(rounded.findings).toEqual([]);
    expect(rounded.part.volume).toBeLessThan(plain.part.volume - 10);
  });

  test('of the outside leaves the corners of a pocket alone', () => {
    const square: Parameters = {
      outline: '0, 0; 40, 0; 40, 40; 0, 40',
      widthSize: 40,
      thickness: 10,
      holes: '',
      leadIn: 0,
    };
    const pocket: Wish = {
      kind: 'shape',
      set: { does: 'cut', section: 'rectangle', width: 20, depth: 20, deep: 5 },
    };
    const taken = (which: string) =>
      built('profile-part', [pocket], square).part.volume -
      built('profile-part', [pocket, { kind: 'edges', set: { which, size: 3 } }], square).part.volume;
    // Four corners: (4 − π) r² each quarter, ten high; in the pocket they are filled, five high.
    const each = (4 - Math.PI) * 9;
    expect(taken('corners')).toBeCloseTo(10 * each, 0);
    expect(taken('upright')).toBeCloseTo(10 * each - 5 * each, 0);
  });

  test('that are not there are told from edges that cannot be rounded', () => {
    const { findings } = built('wall-plate', [
      { kind: 'edges', set: { which: 'point', pointX: 300, pointY: 300, pointZ: 300 } },
    ]);
    expect(findings[0]!.message).toContain('No sharp edge runs there');
    const { findings: large } = built('wall-plate', [
      { kind: 'edges', set: { place: 'top', which: 'outer', size: 9 } },
    ]);
    expect(large[0]!.message).toContain('cannot be rounded by 9 mm');
  });
});
