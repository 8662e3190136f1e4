import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { inspected } from '../../../testing/inspected';
import type { Wish } from '../../../testing/part-with';
import { seeded } from '../../bench/random';
import type { Finding } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import { RECIPES, requireRecipe } from '../recipes';
import type { Parameters } from '../recipes/parameters';

/** How many sound jobs of each recipe: `npm test` takes two, `SOUND_RUNS=11` more than two hundred in all. */
const RUNS = Number(process.env.SOUND_RUNS ?? 2);

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

type Added = (random: () => number) => Wish;

/** Typical additions by makers: none of them spoils a part. */
const RAISED: Added[] = [
  () => ({ kind: 'words', set: { place: 'top', text: 'v2', height: 4 } }),
  random => ({
    kind: 'shape',
    set: { place: 'top', section: 'round', diameter: 4 + 3 * random(), rise: 3, root: 0.6 },
  }),
];
const CUT: Added[] = [
  random => ({ kind: 'hole', set: { place: 'top', screw: 'M3', x: 4 * random() - 2, y: 4 * random() - 2 } }),
  () => ({ kind: 'hole', set: { place: 'top', use: 'plain', diameter: 2.2, ends: 'deep', deep: 1 } }),
  random => ({
    kind: 'shape',
    set: { place: 'top', does: 'cut', width: 3 + 2 * random(), depth: 2, deep: 0.6 },
  }),
];

/** Their top is the edge of a wall or a blade: a cut there may leave a sliver, which is rightly stopped. */
const THIN_TOP = ['board-tray', 'drive-blade'];

/** On these a raised addition is in the object's way. */
const FOLLOWS = ['recess', 'contour-foot'];

/** The demo object with slightly different free sizes, and up to two additions. */
function soundJob(id: string, seed: number): { wishes: Wish[]; change: Parameters } {
  const random = seeded(seed);
  const { parameters, demo } = requireRecipe(id);
  const change = Object.fromEntries(
    parameters.flatMap(s => {
      const usual = demo.parameters[s.name];
      if (s.kind !== 'length' || s.measure === 'count' || typeof usual !== 'number' || random() > 0.3)
        return [];
      const value = usual * (0.95 + 0.12 * random());
      return [[s.name, Number(Math.min(s.max, Math.max(s.min, value)).toFixed(2))] as const];
    }),
  );
  const count = Math.floor(3 * random());
  const kinds = THIN_TOP.includes(id) ? RAISED : FOLLOWS.includes(id) ? CUT : [...RAISED, ...CUT];
  const wishes = Array.from({ length: count }, () => kinds[Math.floor(random() * kinds.length)]!(random));
  return { wishes, change };
}

/** A demo is built on an example, and states that. */
const stops = (findings: readonly Finding[]) =>
  findings.filter(f => f.level === 'stop' && f.code !== 'stands-in');
/** Parts that were not built, or lost an addition, report that themselves and do not count as sound jobs. */
const unmade = (f: Finding) =>
  f.addition !== undefined || ['cannot-build', 'kernel', 'not-solid'].includes(f.code);

describe.each(RECIPES.map(r => r.id))('%s', id => {
  test('sound jobs raise no stop', () => {
    let sound = 0;
    for (let seed = 1; sound < RUNS && seed < 6 * RUNS; seed++) {
      const { wishes, change } = soundJob(id, 97 * seed + id.length);
      const found = stops(inspected(kernels, id, wishes, change));
      if (found.some(unmade)) continue;
      sound++;
      expect(
        found.map(f => f.message),
        JSON.stringify({ wishes, change }),
      ).toEqual([]);
    }
    expect(sound, 'so many of them were made').toBe(RUNS);
  });

  test('spoiled ones raise theirs: half, double, too large for the bed, inches for millimetres, far from its reading', () => {
    const recipe = requireRecipe(id);
    const { parameters } = recipe.demo;
    const mate = recipe.mates.find(m => m.active(parameters))!;
    const drawn = parameters[mate.parameter] as number;
    const asking = (by: number) => ({ asked: { ...parameters, [mate.parameter]: drawn * by } });
    const spoiled: Record<string, Finding[]> = {
      'a radius typed for a diameter': inspected(kernels, id, [], {}, asking(2)),
      'a diameter used as a radius': inspected(kernels, id, [], {}, asking(0.5)),
      'inches taken for millimetres': inspected(kernels, id, [], {}, asking(25.4)),
      'another number altogether': inspected(kernels, id, [], {}, asking(1.6)),
      'no bed for it': inspected(kernels, id, [], {}, { bed: { width: 4, depth: 4, height: 4 } }),
    };
    for (const [what, found] of Object.entries(spoiled)) expect(stops(found).length, what).toBeGreaterThan(0);
  });
});

test.each(['round-cap', 'section-cap', 'tube-adapter', 'duct-adapter', 'threaded-cover'])(
  'a wall of %s under one pass is stopped',
  id => {
    const thin = { wall: 0.3, leadIn: 0, outerFillet: 0 };
    expect(stops(inspected(kernels, id, [], thin)).map(f => f.code)).not.toEqual([]);
  },
);
