import { beforeAll, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import type { Kernels } from '../kernels/kernel';
import { requireRecipe } from '../recipes';
import { checkOwnMates } from './own-mates';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const cap = requireRecipe('round-cap');
const bare = { ...cap.demo.parameters, tab: false, outerFillet: 0, leadIn: 0 };
const said = (number: string) =>
  checkOwnMates([{ name: 'It', number }], cap, bare, kernels).map(f => f.fields.size);

test.each(['skirtDiameter', 'wall', 'endThickness', 'skirtDepth'])(
  'a size that stands on the solid is found there: %s, across, through, or from face to face',
  number => {
    expect(said(number)).toEqual([]);
  },
);

test('a number that makes no two faces so far apart is told, with what to do', () => {
  // A rounding’s radius is no distance of two faces.
  const [found] = checkOwnMates(
    [{ name: 'Rounding', number: 'outerFillet' }],
    cap,
    { ...bare, outerFillet: 1.2 },
    kernels,
  );
  expect(found).toMatchObject({ code: 'own-mate-not-there', level: 'note', parameter: 'outerFillet' });
  expect(found!.message).toContain('make it a position');
});
