import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { PLAIN_CONTEXT } from '../../../../testing/plain-context';
import { buildPart } from '../../build';
import type { Kernels } from '../../kernels/kernel';
import { centroidOf } from '../../mesh/mesh';
import { Path, rectangle } from '../../outline';
import { BED } from '../../vector';
import { cradle } from '.';
import type { P } from './parameters';
import { footEdges, SUNK, sizesOf } from './sizes';
import { checkTipping, tippingOf } from './tipping';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const context = { ...PLAIN_CONTEXT, density: 1.25 };
const built = (change: Partial<P>) => {
  const p = { ...(cradle.demo.parameters as P), stand: 'foot' as const, ...change };
  const outcome = buildPart(cradle, p, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return { p, part: outcome.part };
};

describe('centre of mass', () => {
  test('a box, a cone (a quarter up), a half ball (three eighths up)', () => {
    const at = (x: number) => ({ ...BED, at: [x, 4, 2] as const });
    const of = (body: object) =>
      centroidOf(kernels.part.mesh(body as never, 0.002)).map(x => Number(x.toFixed(2)));
    expect(of(kernels.part.extrude(rectangle(0, 0, 10, 6), 0, 8, at(3)))).toEqual([8, 7, 6]);
    const cone = new Path([0, 0]).to([9, 0]).to([0, 12]).close();
    expect(of(kernels.part.revolve(cone, at(3)))).toEqual([3, 4, 5]);
    const half = new Path([0, 0])
      .to([8, 0])
      .arc([0, 8], [8 * Math.SQRT1_2, 8 * Math.SQRT1_2])
      .close();
    expect(of(kernels.part.revolve(half, at(0)))).toEqual([0, 4, 5]);
    kernels.part.release();
  });
});

describe('tipping', () => {
  test('a slab far heavier than the part: its own middle over the foot’s edge, atan(d / h)', () => {
    const { p, part } = built({ slabWeight: 5000, lean: 0 });
    const s = sizesOf(p);
    // Upright: the slab’s middle is 30 over the floor, back and half its thickness in front of the back.
    const height = 4 + 2.4 + 30 - SUNK;
    const y = -(3 + 12.4 / 2);
    const { front, back } = footEdges(s);
    const degrees = (d: number) => (Math.atan(d / height) * 180) / Math.PI;
    const tips = tippingOf(p, part, 1e-9)!;
    expect(tips.forwards).toBeCloseTo(degrees(y - front), 3);
    expect(tips.backwards).toBeCloseTo(degrees(back - y), 3);
    expect(tips.sideways).toBeCloseTo(degrees(39 + 2.4), 3);
  });
  test('a longer foot and a lean forwards or backwards do what anyone expects', () => {
    const forwards = (change: Partial<P>) => {
      const { p, part } = built(change);
      return tippingOf(p, part, 1.25)!;
    };
    expect(forwards({ footFront: 40 }).forwards).toBeGreaterThan(forwards({}).forwards + 10);
    expect(forwards({ lean: 35 }).backwards).toBeLessThan(forwards({ lean: 5 }).backwards);
  });
  test('a foot too short is warned of, or stopped; a good one is told; a wall needs none', () => {
    const say = (change: Partial<P>) => {
      const { p, part } = built(change);
      return checkTipping(p, part, context).map(f => `${f.code} ${f.level}`);
    };
    expect(say({})).toEqual(['tips note']);
    expect(say({ lean: 25, footBehind: 5, slabWeight: 600 })).toEqual(['tips warn']);
    expect(say({ lean: 40, footBehind: 0, slabWeight: 3000 })).toEqual(['tips stop']);
    expect(say({ stand: 'wall' })).toEqual([]);
  });
});
