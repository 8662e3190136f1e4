import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildWith, type Wish } from '../../../testing/part-with';
import type { Kernels } from '../kernels/kernel';

/** Mates are measured on the triangles, at the place of the mate itself. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const outsideOf = (wishes: readonly Wish[]) => {
  const outcome = buildWith(kernels, 'bush', wishes);
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part.mates.find(m => m.id === 'outside')!;
};

describe('the outside of a bush, Ø 13.95 and 11.8 long', () => {
  test('a groove in the middle is not its size: it is measured beside it, and says where', () => {
    expect(outsideOf([]).at[2]).toBeCloseTo(5.9, 1);
    const grooved = outsideOf([{ kind: 'band', set: { z: 5.9, width: 2.4, deep: 1 } }]);
    expect(grooved.size).toBeCloseTo(13.95, 2);
    expect(Math.abs(grooved.at[2] - 5.9)).toBeGreaterThan(1.2);
  });

  test('spoiled all along it is told as it is', () => {
    const spoiled = outsideOf([{ kind: 'band', set: { z: 5.9, width: 11.4, deep: 1 } }]);
    expect(spoiled.size).toBeCloseTo(11.95, 2);
  });

  test('cut through by a window it is measured by what is left', () => {
    const window: Wish = {
      kind: 'shape',
      set: { does: 'cut', place: 'right', width: 3, depth: 11.8, deep: 4 },
    };
    expect(outsideOf([window]).size).toBeCloseTo(13.95, 2);
  });
});
