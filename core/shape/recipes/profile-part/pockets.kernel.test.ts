import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { buildPart } from '../../build';
import type { Kernels } from '../../kernels/kernel';
import { requireRecipe } from '..';
import type { Parameters } from '../parameters';

const recipe = requireRecipe('profile-part');
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
/** A plate of 40 × 30, 12 thick, fitted to just that. */
const PLATE = {
  outline: '0, 0; 40, 0; 40, 30; 0, 30',
  topOutline: '5, 5; 35, 5; 35, 25; 5, 25',
  widthSize: 40,
  thickness: 12,
  holes: '',
  leadIn: 0,
  pocket: true,
  pocketShape: 'wall',
};
const at = (change: Parameters): Parameters => ({ ...recipe.demo.parameters, ...PLATE, ...change });
function volume(change: Parameters): number {
  const outcome = buildPart(recipe, at(change), kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part.volume;
}
/** Of a frustum between two rectangles whose middles lie over each other (prismoidal formula). */
const prismoid = ([a, b]: [number, number], [c, d]: [number, number], h: number) =>
  (h / 6) * (a * b + (a + c) * (b + d) + c * d);

test('a pocket that leaves a wall follows the outline', () => {
  expect(volume({ pocketWall: 2, pocketDepth: 9 })).toBeCloseTo(40 * 30 * 12 - 36 * 26 * 9, 1);
  expect(volume({ pocketWall: 3, pocketDepth: 12 })).toBeCloseTo(40 * 30 * 12 - 34 * 24 * 12, 1);
  // Wider where the size that fits is wider.
  expect(volume({ pocketWall: 2, pocketDepth: 9, widthSize: 41 })).toBeCloseTo(41 * 31 * 12 - 37 * 27 * 9, 1);
});

test('a shelled taper keeps its wall on the way up', () => {
  const outside = 40 * 30 * 4 + prismoid([40, 30], [30, 20], 8);
  const inside = 36 * 26 * 2 + prismoid([36, 26], [26, 16], 8);
  expect(volume({ top: true, straight: 4, pocketWall: 2, pocketDepth: 10 })).toBeCloseTo(outside - inside, 0);
  // A floor within the slope: half-way up it.
  const half = prismoid([31, 21], [26, 16], 4);
  expect(volume({ top: true, straight: 4, pocketWall: 2, pocketDepth: 4 })).toBeCloseTo(outside - half, 0);
});

test('a wall that leaves no pocket, or none around it, is refused at its number', () => {
  const [found] = recipe.refuse(at({ pocketWall: 16 }));
  expect(found?.parameter).toBe('pocketWall');
  const [lip] = recipe.refuse(at({ pocketWall: 1, lip: true, lipWidth: 1.6 }));
  expect(lip?.parameter).toBe('pocketWall');
});
