import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';
import type { Parameters } from '../parameters';

/** Tools of up to four sizes: each has its own dimension, number and count. */
export const SIZES = ['A', 'B', 'C', 'D'] as const;
export type Size = (typeof SIZES)[number];
const WORDS = { A: 'first', B: 'second', C: 'third', D: 'fourth' } as const;

export const dimensionName = <S extends Size>(size: S) =>
  (size === 'A' ? 'tool' : `tool_${size.toLowerCase()}`) as S extends 'A' ? 'tool' : `tool_${Lowercase<S>}`;
export const holeName = <S extends Size>(size: S) =>
  (size === 'A' ? 'hole' : `hole${size}`) as S extends 'A' ? 'hole' : `hole${S}`;
export const countName = <S extends Size>(size: S) =>
  (size === 'A' ? 'count' : `count${size}`) as S extends 'A' ? 'count' : `count${S}`;
export const sizeWords = (size: Size, thing: string) =>
  size === 'A' ? thing : `${thing}, ${WORDS[size]} size`;

const hole = <S extends Size>(size: S) =>
  length(
    holeName(size),
    sizeWords(size, 'Hole, or tool in its V'),
    [1.5, 120],
    `${dimensionName(size)}.model`,
    {
      // A V takes any tool: not a fit, only a size.
      defaultFor: (p: Parameters) => dimensionName(size) + (p.holds === 'vee' ? '' : '.model'),
    },
  );
const count = <S extends Size>(size: S, usual: string) =>
  length(countName(size), sizeWords(size, 'How many'), [1, 16], usual, { measure: 'count' });

export const parameters = [
  choice('holds', 'It holds them', { hole: 'standing in holes', vee: 'lying in V grooves' }),
  choice('sizes', 'The tools are', {
    one: 'all of one size',
    two: 'of two sizes',
    three: 'of three sizes',
    four: 'of four sizes',
  }),
  choice('leans', 'The holes lean', {
    back: 'back',
    side: 'to the right',
    fan: 'apart, like a fan',
  }),
  hole('A'),
  count('A', '4'),
  hole('B'),
  count('B', '2'),
  hole('C'),
  count('C', '2'),
  hole('D'),
  count('D', '2'),
  length('pitch', 'Apart, centre to centre (first size)', [3, 200], 'hole + 10', {
    defaultFor: p => (p.holds === 'vee' ? 'max(hole + 10; hole * 1.42 + 3)' : 'hole + 10'),
  }),
  length('lean', 'They lean by', [0, 45], '0', { measure: 'angle' }),
  length('height', 'Height of the block', [4, 200], '30'),
  flag('stepped', 'Narrow below, for a blade', false),
  length('blade', 'Lower hole (0 is none)', [0, 110], '0', {
    defaultFor: p => (p.stepped === true ? 'blade_width + 1' : '0'),
  }),
  length('step', 'Upper hole is deep', [2, 180], 'height * 0.5'),
  length('long', 'Grooves are long', [4, 300], 'reach * 0.6'),
  length('floor', 'Floor (0 is open)', [0, 60], '3', { group: 'more' }),
  length('edge', 'Around the holes', [1.2, 60], '4', {
    group: 'more',
    defaultFor: p => (p.holds === 'vee' ? 'max(4; hole * 0.21 + 2)' : '4'),
  }),
];

export type P = ValuesOf<typeof parameters>;
export type Mate = ReturnType<typeof holeName>;

const HOW_MANY = { one: 1, two: 2, three: 3, four: 4 } as const;

/** The features that a set of parameters asks for. */
export const has = {
  size: (size: Size) => (p: P) => SIZES.indexOf(size) < HOW_MANY[p.sizes],
  holes: (p: P) => p.holds === 'hole',
  vee: (p: P) => p.holds === 'vee',
  /** Only a block for tools of one size is stepped. */
  steps: (p: P) => p.holds === 'hole' && p.sizes === 'one',
};
