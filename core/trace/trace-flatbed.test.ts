import { describe, expect, test } from 'vitest';
import { THINGS } from '../../testing/trace-scenes';
import { comparedWithTruth } from '../../testing/trace-truth';
import { FlatObject } from '../bench/flat-object';
import { laid } from '../bench/flat-thing';
import { type FlatbedScene, scannedFlat } from '../bench/flatbed';
import { areaOfCurves } from '../shape/curve';
import { circleOf } from './outline';
import { type FlatbedAsked, traceFlatbed } from './trace-flatbed';

const scene = (more: Partial<FlatbedScene> = {}): FlatbedScene => ({
  object: new FlatObject(laid(THINGS.bracket!, 12, [3, -4]), 2, 0),
  dpi: 300,
  size: [110, 130],
  colour: [0.05, 0.05, 0.06],
  scale: [1.002, 0.997],
  skew: 0.0004,
  blur: 0.8,
  noise: 0.006,
  seed: 3,
  ...more,
});

const traced = (by: Partial<FlatbedAsked>, more: Partial<FlatbedScene> = {}) => {
  const answer = traceFlatbed(scannedFlat(scene(more)), {
    dpi: { x: 300, y: 300 },
    known: { x: 1.002, y: 0.997 },
    inside: null,
    tolerance: 0.08,
    from: 'above',
    ...by,
  });
  if (!answer.ok) throw new Error(answer.message);
  return answer.traced;
};

describe('a flatbed scan', () => {
  const read = traced({});
  const shot = { thing: THINGS.bracket!, turn: 12, at: [3, -4] as const };
  // Its frame is the glass: sizes alone are compared, and which way round it is.
  const holes = read.loops.flatMap(l => (l.hole ? [circleOf(l.curves)!] : []));

  test('checked by two readings gives sizes to hundredths', () => {
    const diameters = holes.map(h => h.diameter).sort((a, b) => a - b);
    expect(diameters).toHaveLength(3);
    for (const [i, d] of [8, 8, 10].entries()) expect(Math.abs(diameters[i]! - d)).toBeLessThan(0.05);
    expect(Math.abs(areaOfCurves(read.loops[0]!.curves))).toBeGreaterThan(2000);
  });

  test('is told as seen from above: the glass sees the other hand', () => {
    // From the two holes of the long leg to the one in the foot: a right turn or a left one.
    const turnOf = (of: typeof holes) => {
      const foot = of.find(h => h.diameter > 9)!.centre;
      const [a, b] = of.filter(h => h.diameter < 9).map(h => h.centre);
      const far = (p: readonly number[]) => Math.hypot(p[0]! - foot[0], p[1]! - foot[1]);
      const [top, low] = far(a!) > far(b!) ? [a!, b!] : [b!, a!];
      return Math.sign((low[0] - top[0]) * (foot[1] - top[1]) - (low[1] - top[1]) * (foot[0] - top[0]));
    };
    // On the object: from [-19, 30] down to [-19, 0], then to [18, -29]: to the left.
    expect(turnOf(holes)).toBe(1);
    const glass = traced({ from: 'glass' });
    expect(turnOf(glass.loops.flatMap(l => (l.hole ? [circleOf(l.curves)!] : [])))).toBe(-1);
  });

  test('unchecked is wrong by its scale, and says so', () => {
    const unread = traced({ known: null });
    const size = (t: typeof read) => t.doubt.of(o => circleOf(o[1]!)?.diameter ?? null)!;
    expect(size(unread).u).toBeGreaterThan(size(read).u);
    const compared = comparedWithTruth({ ...shot, turn: 0, at: [0, 0] }, unread.loops, unread.doubt);
    for (const c of compared) expect(Math.abs(c.error)).toBeLessThan(3 * c.u);
  });

  test('of hardly anything is refused', () => {
    const answer = traceFlatbed(
      { width: 40, height: 40, data: new Uint8ClampedArray(6400).fill(255) },
      { dpi: { x: 300, y: 300 }, known: null, inside: null, tolerance: 0.1, from: 'above' },
    );
    expect(answer).toMatchObject({ ok: false, code: 'too-small' });
  });
});
