import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { buildWith, type Wish } from '../../../testing/part-with';
import { PLAIN_CONTEXT } from '../../../testing/plain-context';
import { box, ring, scaled } from '../../../testing/solids';
import type { BuiltPart } from '../built-part';
import type { Finding } from '../findings/finding';
import { ranked } from '../findings/finding';
import type { Kernels } from '../kernels/kernel';
import { mirroredMesh } from '../mesh/mesh';
import { RECIPES, requireRecipe } from '../recipes';
import type { Parameters } from '../recipes/parameters';
import { loadResults } from '../strength/loads';
import { checkShape, checkWalls } from './check-solid';
import type { CheckContext } from './context';
import { checkHand, handOf } from './hand';
import { checkHoles } from './holes';
import { inspectPart } from './inspect';
import { checkLoads, sharpestRoot } from './loads';
import { checkSize } from './size';
import { checkPlace, firstHit, legsOf, neighbourMesh } from './where-it-goes';

/** Every check: a spoiled solid triggers it, a sound one does not. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const context = (change: Partial<CheckContext> = {}): CheckContext => ({
  ...PLAIN_CONTEXT,
  bed: { width: 220, depth: 220, height: 220 },
  strainLimit: 0.3,
  ...change,
});
const built = (id: string, wishes: readonly Wish[] = [], change: Parameters = {}): BuiltPart => {
  const outcome = buildWith(kernels, id, wishes, { change });
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  return outcome.part;
};
const codes = (findings: readonly Finding[]) => findings.map(f => f.code);

describe.each(RECIPES.map(r => [r.id, r] as const))('the demo object of %s', (id, recipe) => {
  test('is silent but for notes', () => {
    const part = built(id);
    const ledger = Object.fromEntries(
      part.mates.map(m => {
        const spec = recipe.mates.find(s => s.id === m.id)!;
        const model = recipe.demo.parameters[spec.parameter] as number;
        return [m.id, { model, reading: recipe.demo.sizes[spec.dimension] ?? model }];
      }),
    );
    const { findings } = inspectPart(
      recipe,
      recipe.demo.parameters,
      part,
      context({ ledger, measured: recipe.demo.sizes }),
      kernels,
    );
    expect(findings.filter(f => f.level !== 'note' && f.code !== 'stands-in')).toEqual([]);
  });
});

describe('size against the readings', () => {
  const measured = { rim: 31.7 };
  test('a solid 25.4 times too large, or too small', () => {
    expect(codes(checkSize(box([800, 40, 40]), [], { measured, ledger: {} }))).toEqual(['unit-slip']);
    const ledger = { a: { model: 1, reading: 31.7 } };
    expect(codes(checkSize(box([1.4, 1.4, 0.6]), [], { measured, ledger }))).toEqual(['unit-slip']);
    expect(codes(checkSize(box([36, 36, 15]), [], { measured, ledger: {} }))).toEqual([]);
  });

  test('smaller than the surface that must fit: half of it was cut away', () => {
    const bush = requireRecipe('bush');
    const surfaces = bush.surfaces(bush.demo.parameters);
    const ledger = { bore: { model: 8.45, reading: 8.4 }, seat: { model: 13.95, reading: 14 } };
    const sound = ring({ inner: 8.45 / 2, outer: 13.95 / 2, height: 11, segments: 90 });
    expect(codes(checkSize(sound, surfaces, { measured: {}, ledger }))).toEqual([]);
    expect(codes(checkSize(box([6, 6, 11]), surfaces, { measured: {}, ledger }))).toContain(
      'smaller-than-mate',
    );
  });

  test('a height just twice or half a height that was read', () => {
    const guide = requireRecipe('profile-part').guide;
    const of = (height: number) =>
      codes(checkSize(box([30, 20, height]), [], { measured: { seat_depth: 12 }, ledger: {} }, guide));
    expect(of(24)).toEqual(['half-or-double']);
    expect(of(6)).toEqual(['half-or-double']);
    expect(of(12)).toEqual([]);
    expect(of(23)).toEqual([]);
  });
});

describe('hand of a thread', () => {
  const recipe = requireRecipe('threaded-cover');
  test('is read off the triangles, coarse or fine, inside or outside', () => {
    for (const style of ['cover', 'plug'])
      for (const hand of ['right', 'left']) {
        const change = { style, hand };
        const part = built('threaded-cover', [], change);
        const [surface] = recipe.surfaces({ ...recipe.demo.parameters, ...change });
        expect(handOf(part.mesh, surface!), `${style} ${hand}`).toBe(hand);
        expect(codes(checkHand(part.mesh, [surface!]))).toEqual([]);
        expect(codes(checkHand(mirroredMesh(part.mesh), [surface!]))).toEqual(['hand']);
      }
  });
});

describe('holes near an edge', () => {
  const plate = (x: number) =>
    checkHoles(
      built('wall-plate', [{ kind: 'hole', set: { use: 'plain', diameter: 5, x, y: 0 } }]).mesh,
      context(),
    );
  test('a hole by the edge speaks, one further in does not; a ring’s bore is none', () => {
    expect(plate(0)).toEqual([]);
    const [near] = plate(37.6);
    expect(near).toMatchObject({ code: 'hole-near-edge', level: 'note' });
    expect(plate(38.4)[0]).toMatchObject({ level: 'warn' });
    expect(checkHoles(ring({ inner: 3, outer: 3.6, height: 8, segments: 120 }), context())).toEqual([]);
  });
});

describe('loose bodies', () => {
  test('letters beside the part hang in the air, and it is said where', () => {
    const words: Wish = { kind: 'words', set: { text: 'I O', does: 'raised', x: 44, height: 8 } };
    const part = built('wall-plate', [words]);
    const loose = checkShape(part).find(f => f.code === 'loose-bodies')!;
    expect(loose.message).toContain('letters must stand on a face');
    const inside = built('wall-plate', [{ ...words, set: { ...words.set, x: 0, y: 12 } }]);
    expect(codes(checkShape(inside))).not.toContain('loose-bodies');
  });
});

describe('thin walls', () => {
  test('what is left between the strokes of sunk letters is none; a thin wall beside them is', () => {
    const letters: Wish = { kind: 'words', set: { text: 'PORT', height: 4.5, deep: 0.6, y: 12 } };
    expect(codes(checkWalls(built('wall-plate', [letters]).mesh, context()))).toEqual([]);
    const fin: Wish = { kind: 'shape', set: { place: 'top', width: 20, depth: 0.6, rise: 8, y: -12 } };
    expect(codes(checkWalls(built('wall-plate', [letters, fin]).mesh, context()))).toEqual(['thin-wall']);
  });
});

/** A channel of 40 × 34 × 10, open to the front: walls of 5 on three sides. */
const HOOK = 'c'.repeat(64);
const models = new Map([[HOOK, box([40, 34, 10])]]);
beforeAll(() => {
  models.set(HOOK, kernels.mesh.combine('cut', box([40, 34, 10]), box([30, 30, 12], [5, -1, -1])));
});

describe('where it goes', () => {
  const part = box([20, 20, 10]);
  const wall = {
    id: 'w',
    name: 'the wall',
    form: 'box' as const,
    width: 4,
    depth: 60,
    height: 60,
    x: 16,
    y: 10,
    z: -10,
    room: 0,
  };
  const of = (neighbours: CheckContext['neighbours'], goesOn: CheckContext['goesOn'] = null) =>
    codes(checkPlace(part, { neighbours, goesOn }, { ...kernels, models }));

  test('a neighbour where the part is; beside it; with room that is too little', () => {
    expect(of([wall])).toEqual(['in-the-way']);
    expect(of([{ ...wall, x: 23 }])).toEqual([]);
    expect(of([{ ...wall, x: 23, room: 2 }])).toEqual(['in-the-way']);
    expect(of([{ ...wall, form: 'round', width: 8, x: 24.5 }])).toEqual([]);
    expect(of([{ ...wall, form: 'round', width: 8, x: 23 }])).toEqual(['in-the-way']);
  });

  test('the whole way is looked at, not only its end', () => {
    const shelf = { ...wall, name: 'the shelf', x: 10, y: 10, z: 30, width: 10, depth: 10, height: 3 };
    expect(of([shelf])).toEqual([]);
    expect(of([shelf], { from: 'top', distance: 15 })).toEqual([]);
    expect(of([shelf], { from: 'top', distance: 60 })).toEqual(['path-blocked']);
    expect(of([shelf], { from: 'left', distance: 60 })).toEqual([]);
    // It first meets the shelf's upper side on its way down: 33 from home.
    const [leg] = legsOf({ from: 'top', distance: 60 });
    for (const convex of [true, false])
      expect(firstHit(part, neighbourMesh(shelf)!, leg!, convex, kernels.mesh), String(convex)).toBeCloseTo(
        33,
        0,
      );
  });

  test('a thin sheet on a long way is not stepped over', () => {
    const sheet = { ...wall, name: 'the sheet', x: 10, y: 10, z: 640.2, width: 4, depth: 4, height: 0.3 };
    expect(of([sheet], { from: 'top', distance: 600 })).toEqual([]);
    expect(of([sheet], { from: 'top', distance: 1900 })).toEqual(['path-blocked']);
  });

  test('a way around a corner: each piece of it is looked at', () => {
    // In from the left and then down: a lid above does not matter, a post on the left does.
    const lid = { ...wall, name: 'the lid', x: 10, y: 10, z: 60, width: 30, depth: 30, height: 3 };
    const post = { ...wall, name: 'the post', x: -40, y: 10, z: 0, width: 4, depth: 4, height: 60 };
    const corner = { from: 'top', distance: 30, before: { from: 'left', distance: 80 } };
    expect(of([lid], { from: 'top', distance: 80 })).toEqual(['path-blocked']);
    expect(of([lid], corner)).toEqual([]);
    expect(of([post], { from: 'top', distance: 30 })).toEqual([]);
    expect(of([post], corner)).toEqual(['path-blocked']);
    const [finding] = checkPlace(part, { neighbours: [post], goesOn: corner }, kernels);
    // The part’s right side, at 20, meets the post’s left one, at −42, 62 before the corner; 30 more are left.
    expect(finding!.message).toContain('92 mm before it is home');
  });

  test('a neighbour from a file: as it is, laid and turned, with room, and on the way', () => {
    const from = {
      ...wall,
      name: 'the hook',
      form: 'model' as const,
      model: HOOK,
      x: 40.5,
      y: 10,
      z: 0,
      room: 0,
    };
    expect(of([{ ...from, model: '' }])).toEqual(['neighbour-missing']);
    expect(of([from])).toEqual([]);
    expect(of([{ ...from, room: 1 }])).toEqual(['in-the-way']);
    expect(of([{ ...from, x: 38 }])).toEqual(['in-the-way']);
    expect(of([{ ...from, x: 38, turn: 90 }])).toEqual([]);
    // The hook is hollow: what goes into its hollow does not hit it, as a box around it would.
    const over = { ...from, x: 10, z: 30 };
    expect(of([over], { from: 'top', distance: 80 })).toEqual([]);
    expect(of([{ ...over, x: 16 }], { from: 'top', distance: 80 })).toEqual(['path-blocked']);
    expect(
      of([{ ...over, form: 'box', width: 40, depth: 34, height: 10 }], { from: 'top', distance: 80 }),
    ).toEqual(['path-blocked']);
  });

  test('a neighbour’s solid is as large as it says', () => {
    expect(kernels.mesh.facts(neighbourMesh({ ...wall, room: 1 })!)).toMatchObject({
      ok: true,
      facts: { bodies: 1 },
    });
  });
});

describe('strength', () => {
  const asked = {
    id: 'l',
    words: 'a full bag',
    kind: 'force',
    amount: 60,
    towards: 'underside',
    at: 'right',
    held: 'left',
  } as const;
  const strong = { name: 'PETG', along: 40, across: 20 };
  const speak = (mesh: BuiltPart['mesh'], change: Partial<CheckContext> = {}) => {
    const c = context({
      loads: [asked],
      strength: strong,
      margin: { times: 2.5, why: 'damage would follow' },
      ...change,
    });
    return checkLoads(mesh, loadResults(mesh, [], c), c);
  };
  const arm = (height: number) => box([60, 10, height]);

  test('a thin arm is too weak, a thick one is silent', () => {
    const [finding] = speak(arm(4));
    expect(finding).toMatchObject({ code: 'too-weak', level: 'stop', load: 'l' });
    expect(finding!.message).toMatch(
      /bears 0\.\d times this load in PETG, and 2\.5 times is wanted, since damage would follow/,
    );
    expect(finding!.message).toContain('What helps most');
    expect(speak(arm(12))).toEqual([]);
    expect(speak(arm(8))[0]).toMatchObject({ code: 'too-weak', level: 'warn' });
  });

  test('the same arm printed on end opens its layers: turning it is what helps', () => {
    const [finding] = speak(arm(12), { pose: { down: [-1, 0, 0], turn: 0 } });
    expect(finding!.message).toContain('across its layers');
    expect(finding!.message).toContain('print it turned');
  });

  test('where somebody may be hurt a proof test comes with it, strong or not', () => {
    const found = speak(arm(20), { mayHurt: true, margin: { times: 4, why: 'somebody may be hurt' } });
    expect(codes(found)).toEqual(['proof-test']);
    expect(found[0]!.message).toContain('240 N, as much as 24.5 kg pull down');
  });

  test('a sharp inner corner at the root is found on the triangles; a filleted one is none', () => {
    const tab = (root: number): Wish => ({
      kind: 'shape',
      set: { place: 'top', width: 20, depth: 4, rise: 30, root },
    });
    const load = { ...asked, amount: 25, towards: 'back', at: 'top', held: 'underside' };
    const of = (root: number) =>
      codes(speak(built('wall-plate', [tab(root)], { count: 2 }).mesh, { loads: [load] }));
    expect(of(0)).toContain('sharp-root');
    expect(of(2)).not.toContain('sharp-root');
  });

  test('a load on what is gone is said, not left out', () => {
    expect(codes(speak(arm(9), { loads: [{ ...asked, at: 'mate bore' }] }))).toEqual(['load-unknown']);
    expect(codes(speak(arm(9), { strength: null }))).toEqual(['load-unknown']);
  });

  test('no inner edge, no root', () => {
    const result = loadResults(arm(4), [], context({ loads: [asked], strength: strong }))[0]!;
    expect(sharpestRoot(arm(4), result.weakest!)).toBeNull();
  });
});

test('ranked by what they cost', () => {
  const f = (code: Finding['code'], level: Finding['level']): Finding => ({
    code,
    level,
    fields: {},
    message: '',
  });
  expect(
    codes(
      ranked([
        f('part-pass', 'note'),
        f('thin-wall', 'warn'),
        f('mate-off', 'warn'),
        f('bed', 'stop'),
        f('too-weak', 'stop'),
      ]),
    ),
  ).toEqual(['too-weak', 'bed', 'mate-off', 'thin-wall', 'part-pass']);
});

test('a part in inches speaks at once', () => {
  const part = built('bush');
  const small = { ...part, mesh: scaled(part.mesh, 1 / 25.4), whole: scaled(part.whole, 1 / 25.4) };
  const bush = requireRecipe('bush');
  const ledger = { bore: { model: 8.45, reading: 8.4 } };
  const { findings } = inspectPart(
    bush,
    bush.demo.parameters,
    small,
    context({ ledger, measured: { bore: 8.4 } }),
    kernels,
  );
  expect(findings[0]!.level).toBe('stop');
  expect(codes(findings)).toContain('tiny');
});
