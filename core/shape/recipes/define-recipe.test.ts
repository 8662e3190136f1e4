import { describe, expect, test } from 'vitest';
import { Draft } from '../drawing/draft';
import { defineRecipe, type KeysOf, keyed, type Places, placed, type ValuesOf } from './define-recipe';
import { choice, flag, length, Refusals, step } from './fields';

const parameters = [
  choice('style', 'It is', { open: 'open', shut: 'shut' }),
  length('bore', 'Bore', [1, 50], 'shaft.model'),
  length('lid', 'Lid, thickness', [1, 9], '2'),
  flag('rim', 'A rim', false),
];
type P = ValuesOf<typeof parameters>;
const isShut = (p: P) => p.style === 'shut';

const guide = [
  step('shaft', 'Shaft', 'outside-jaws', 'Turn it between readings.'),
  step('gap', 'Gap', 'depth-rod', 'Down to the floor.', { needed: isShut }),
];
type Asked = KeysOf<typeof guide>;

const ring = { kind: 'round', at: [0, 0, 2], axis: [0, 0, 1], from: 0, to: 4 } as const;

const declaration = {
  id: 'ring',
  version: 1,
  family: 'replacement' as const,
  title: 'Ring',
  purpose: 'Goes around.',
  parameters,
  shown: { lid: isShut },
  guide,
  mates: {
    bore: {
      name: 'Bore over shaft',
      dimension: 'shaft' as const,
      parameter: 'bore' as const,
      side: 'inside' as const,
      want: 'slide' as const,
    },
    lid: {
      name: 'Lid in the gap',
      dimension: 'gap' as const,
      parameter: 'lid' as const,
      side: 'outside' as const,
      want: 'snug' as const,
      active: isShut,
    },
  },
  refuse: (p: P) => new Refusals<P>().when(p.lid > p.bore, 'lid', 'The lid is thicker than wide.').list,
  drawing: (p: P) => new Draft<keyof P>().across('bore', 'bore', [0, p.bore], 0, -4).done('From above'),
  objectDrawing: () => new Draft<Asked>().across('shaft', 'shaft', [0, 8], 0, -4).done('The shaft'),
  solid: (): never => {
    throw new Error('Not built here.');
  },
  places: (p: P): Places<'bore' | 'lid'> => ({ bore: ring, lid: isShut(p) ? ring : null }),
  demo: {
    name: 'a shaft',
    sizes: { shaft: 8, gap: 3 },
    parameters: { style: 'open', bore: 8.4, lid: 2, rim: false } satisfies P as P,
  },
};
const recipe = defineRecipe(declaration);
const shut = { ...declaration.demo.parameters, style: 'shut' } as const;

describe('what follows from a declaration', () => {
  test('a mate’s dimension is critical, others are not', () => {
    const critical = defineRecipe({
      ...declaration,
      guide: [...guide, step('depth', 'Depth', 'depth-rod', 'To the floor.')],
      demo: { ...declaration.demo, sizes: { shaft: 8, gap: 3, depth: 5 } },
    }).guide.filter(g => g.critical);
    expect(critical.map(g => g.key)).toEqual(['shaft', 'gap']);
  });
  test('surfaces have their mate’s side, and the size that its parameter says', () => {
    expect(recipe.surfaces(declaration.demo.parameters)).toEqual([
      { ...ring, mate: 'bore', side: 'inside', size: 8.4 },
    ]);
    expect(recipe.surfaces(shut).map(s => [s.mate, s.side, s.size])).toEqual([
      ['bore', 'inside', 8.4],
      ['lid', 'outside', 2],
    ]);
  });
  test('a mate is always there, in the same want with a flexible plastic, unless said', () => {
    expect(recipe.mates.map(m => [m.id, m.active({ style: 'open' }), m.flexibleWant])).toEqual([
      ['bore', true, 'slide'],
      ['lid', false, 'snug'],
    ]);
  });
  test('a parameter is shown always, or when its recipe says', () => {
    const shown = (p: P) => recipe.parameters.filter(s => !s.shown || s.shown(p)).map(s => s.name);
    expect(shown(declaration.demo.parameters)).toEqual(['style', 'bore', 'rim']);
    expect(shown(shut)).toEqual(['style', 'bore', 'lid', 'rim']);
  });
  test('an active mate that is nowhere is an error of the recipe', () => {
    const nowhere = defineRecipe({ ...declaration, places: () => ({ bore: null, lid: null }) });
    expect(() => nowhere.surfaces(shut)).toThrow('ring says nowhere where its mate bore is');
  });
  test('places that are there, and records from entries', () => {
    expect(placed(declaration.places(declaration.demo.parameters)).map(([id]) => id)).toEqual(['bore']);
    expect(keyed([['a', 1] as const, ['b', 2] as const])).toEqual({ a: 1, b: 2 });
  });
});

/**
 * Each line below compiles only because of its comment: the type check of `npm test` fails when the comment is not
 * needed.
 */
describe('a misspelt name does not compile', () => {
  test('in values, refusals, drawings, mates, surfaces and the demo object', () => {
    const p = declaration.demo.parameters as P;
    // @ts-expect-error a parameter
    void p.boor;
    // @ts-expect-error an option
    void (p.style === 'closed');
    // @ts-expect-error a parameter of a refusal
    new Refusals<P>().when(false, 'boor', 'No.');
    // @ts-expect-error what a drawing shows
    new Draft<keyof P>().across('boor', 'bore', [0, 1], 0, 1);
    // @ts-expect-error a drawing’s keys
    defineRecipe({ ...declaration, drawing: () => new Draft<'boor'>().done('') });
    // @ts-expect-error a drawing of the object
    defineRecipe({ ...declaration, objectDrawing: () => new Draft<'shafft'>().done('') });
    const { bore, lid } = declaration.mates;
    const boor = { bore: { ...bore, parameter: 'boor' as const }, lid };
    // @ts-expect-error a mate’s parameter
    defineRecipe({ ...declaration, mates: boor });
    const shafft = { bore: { ...bore, dimension: 'shafft' as const }, lid };
    // @ts-expect-error a mate’s dimension
    defineRecipe({ ...declaration, mates: shafft });
    // @ts-expect-error a surface
    defineRecipe({ ...declaration, places: () => ({ bore: ring, lidd: null }) });
    // @ts-expect-error a parameter that is shown sometimes
    defineRecipe({ ...declaration, shown: { lidd: isShut } });
    // @ts-expect-error a size of the demo object
    defineRecipe({ ...declaration, demo: { ...declaration.demo, sizes: { shafft: 8, gap: 3 } } });
    const demo = { ...declaration.demo, parameters: { ...p, bore: undefined, boor: 8 } };
    // @ts-expect-error a parameter of the demo object
    defineRecipe({ ...declaration, demo });
  });
});
