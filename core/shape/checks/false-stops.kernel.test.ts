import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { inspected } from '../../../testing/inspected';
import type { Wish } from '../../../testing/part-with';
import { kindOf } from '../additions';
import type { Kernels } from '../kernels/kernel';
import { RECIPES, requireRecipe } from '../recipes';
import type { Parameters } from '../recipes/parameters';

/** A false stop costs trust in all others: these are sound parts that once got one. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

/** Stops of a part whose mates have their drawn sizes, with the readings of its demo object. */
function stops(id: string, wishes: readonly Wish[], change: Parameters = {}): string[] {
  // An unknown name would leave the addition as it was.
  for (const wish of wishes)
    for (const name of Object.keys(wish.set ?? {}))
      expect(kindOf(wish.kind).parameters.map(p => p.name)).toContain(name);
  const { demo } = requireRecipe(id);
  const found = inspected(kernels, id, wishes, change, { asked: { ...demo.parameters, ...change } });
  return found.filter(f => f.level === 'stop').map(f => `${f.code}: ${f.message}`);
}

/** A screw hole straight through the middle of the part, from a face. */
const through = (place: string, set: Parameters = {}): Wish => ({
  kind: 'hole',
  set: { place, use: 'plain', ends: 'through', diameter: 3.6, ...set },
});

describe('additions that leave a mate as it is', () => {
  test('a screw hole through the middle of a width does not become it', () => {
    const block = {
      outline: '-15, -10; 15, -10; 15, 10; -15, 10',
      widthSize: 29.8,
      holes: '',
      thickness: 20,
    };
    expect(stops('profile-part', [through('left')], block)).toEqual([]);
  });
  test('a coaxial step of a bore leaves the bore below it', () => {
    expect(
      stops(
        'bush',
        [{ kind: 'hole', set: { place: 'top', use: 'plain', ends: 'deep', deep: 6, diameter: 11 } }],
        {
          length: 12,
        },
      ),
    ).toEqual([]);
  });
  test('a screw hole along a wide thin blade, out through one of its flats, leaves the flats beside it', () => {
    const aside: Wish = { kind: 'hole', set: { place: 'top', screw: 'M3', x: 0, y: -1.62 } };
    expect(stops('drive-blade', [aside], { bladeWidthB: 9.79 }).filter(s => s.includes('mate'))).toEqual([]);
  });
  test('stubs on a hub, all along it, do not widen it', () => {
    const stub: Wish = {
      kind: 'shape',
      set: { place: 'left', section: 'rectangle', width: 3, depth: 14, rise: 8, does: 'add' },
    };
    expect(stops('bush', [stub], { length: 12 })).toEqual([]);
  });
  test('what stands out beyond a width all along leaves its ends', () => {
    const block = {
      outline: '-15, -10; 15, -10; 15, 10; -15, 10',
      widthSize: 29.8,
      holes: '',
      thickness: 12,
    };
    const fin: Wish = {
      kind: 'shape',
      set: { place: 'right', section: 'rectangle', width: 6, depth: 14, rise: 6, does: 'add' },
    };
    expect(stops('profile-part', [fin], block)).toEqual([]);
  });
  test('a strap that lies flat is judged in layers, not in passes', () => {
    expect(stops('round-cap', [], { strap: true, strapThickness: 0.7 })).toEqual([]);
  });
});

describe('a mate that is spoiled stays so', () => {
  test('a bore that a wide hole has taken is missed', () => {
    const wide: Wish = { kind: 'hole', set: { place: 'top', use: 'plain', ends: 'through', diameter: 11 } };
    expect(stops('bush', [wide]).join()).toMatch(/slip|mate|measures|surface/);
  });
});

describe.each(RECIPES.map(r => r.id))('%s', id => {
  test('with a screw hole from above it is not stopped', () => {
    const said = stops(id, [through('top', { x: 0.3, y: 0.2 })]);
    expect(said.filter(s => /^(slip|mate-missing|smaller-than-mate)/.test(s))).toEqual([]);
  });
});
