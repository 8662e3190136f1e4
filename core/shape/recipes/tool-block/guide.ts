import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { dimensionName, has, type P, SIZES, type Size, sizeWords } from './parameters';

const shank = <S extends Size>(size: S) =>
  step(
    dimensionName(size),
    sizeWords(size, 'Tool’s shank, outside'),
    'outside-jaws',
    'The thickest part that goes in; turn it between readings.',
    { needed: p => has.size(size)(p as P) },
  );

export const guide = [
  ...SIZES.map(shank),
  step('blade_width', 'Its blade, widest', 'outside-jaws', 'What must pass the lower part of the hole.', {
    needed: p => p.stepped === true && has.steps(p as P),
  }),
  step('reach', 'Length that lies in the groove', 'step', 'From the handle’s shoulder to the tip.', {
    needed: p => p.holds === 'vee',
  }),
];

export type Asked = KeysOf<typeof guide>;
