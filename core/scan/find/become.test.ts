import { expect, test } from 'vitest';
import { RECIPES } from '../../shape/recipes';
import { becomes, takesFor, wordsFor } from './become';

const round = (title: string, side: 'outside' | 'inside', value: number, area: number, x = 0) => ({
  kind: 'cylinder' as const,
  title,
  sizes: [{ of: 'diameter', kind: side, value, u: 0.02 }],
  area,
  axis: [0, 0, 1] as const,
  centre: [x, 0, 0] as const,
  coverage: 360,
});
const port = [
  round('Bore', 'inside', 24.3, 1000),
  round('Round outside', 'outside', 31.8, 1200),
  round('Round outside', 'outside', 29.5, 280),
  round('Round outside', 'outside', 12, 300, 40),
];

test('a rim with a groove and a bore could be a cap, an adapter or a clip; each with its readings', () => {
  const recipes = becomes(port).map(b => b.recipe);
  expect(recipes).toEqual(expect.arrayContaining(['round-cap', 'tube-adapter', 'tube-clip']));
  expect(recipes).not.toContain('socket-knob');
  const named = Object.fromEntries(
    takesFor('round-cap', port).map(t => [t.step, port[t.finding]!.sizes[t.size]!.value]),
  );
  expect(named).toEqual({ rim: 31.8, groove: 29.5, bore: 24.3 });
});
test('what lies elsewhere is no groove of it', () => {
  const steps = takesFor('round-cap', [port[1]!, port[3]!]).map(t => t.step);
  expect(steps).toEqual(['rim']);
});
test('every step is one that its recipe asks for, and the kind of size agrees', () => {
  const all = [
    ...port,
    { ...round('Hexagon', 'outside', 17, 300), kind: 'hexagon' as const },
    { ...round('Slot', 'inside', 6, 100), kind: 'slot' as const },
    {
      ...round('2 holes in rows', 'outside', 64, 100),
      kind: 'pitch' as const,
      sizes: [{ of: 'pitch', kind: 'length' as const, value: 64, u: 0.02 }],
    },
    { ...round('Between two faces', 'outside', 6, 3000), kind: 'across' as const },
    { ...round('Between two faces', 'outside', 9, 2000), kind: 'across' as const, axis: [1, 0, 0] as const },
    { ...round('Gap', 'inside', 40, 900), kind: 'across' as const },
    { ...round('Gap', 'inside', 30, 800), kind: 'across' as const, axis: [0, 1, 0] as const },
    round('Pin', 'outside', 5, 60, 90),
  ];
  for (const { recipe, takes } of becomes(all)) {
    const { guide } = RECIPES.find(r => r.id === recipe)!;
    for (const { step, finding, size } of takes)
      expect(guide.find(g => g.key === step)?.kind, `${recipe} ${step}`).toBe(
        all[finding]!.sizes[size]!.kind,
      );
  }
});
test('a rectangle is asked for by both ways across it, at right angles; a thick slab is no rim', () => {
  const across = (value: number, axis: readonly [number, number, number], side: 'outside' | 'inside') => ({
    ...round('Between two faces', side, value, 10 * value),
    kind: 'across' as const,
    axis,
  });
  const duct = [across(110, [1, 0, 0], 'outside'), across(54, [0, 1, 0], 'outside')];
  const values = (recipe: string, of: typeof duct) =>
    takesFor(recipe, of).map(t => of[t.finding]!.sizes[t.size]!.value);
  expect(values('duct-adapter', duct)).toEqual([110, 54]);
  expect(values('section-cap', duct)).toEqual([110, 54]);
  expect(values('rim-fork', duct)).toEqual([]);
  expect(values('profile-part', duct)).toEqual([]);
  expect(values('profile-part', [across(40, [1, 0, 0], 'inside'), across(30, [0, 1, 0], 'inside')])).toEqual([
    40, 30,
  ]);
  // Side by side they are two slabs.
  expect(
    values('section-cap', [across(110, [1, 0, 0], 'outside'), across(54, [1, 0, 0], 'outside')]),
  ).toEqual([]);
  expect(values('rim-fork', [across(6, [1, 0, 0], 'outside')])).toEqual([6]);
  expect(takesFor('hinge-leaf', [round('Round outside', 'outside', 31.8, 1200)])).toEqual([]);
  expect(takesFor('hinge-leaf', [round('Round outside', 'outside', 5, 300)])).toHaveLength(1);
});
test('what it is, in words', () => {
  expect(wordsFor(port)).toBe('round outside of 31.8, bore of 24.3, round outside of 12.0');
});
