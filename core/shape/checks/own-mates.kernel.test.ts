import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import type { Kernels } from '../kernels/kernel';
import { requireRecipe } from '../recipes';
import type { Parameters } from '../recipes/parameters';
import { solidOf } from '../solid';
import type { Point3 } from '../vector';
import type { OwnMateAsked } from './context';
import { checkOwnMates } from './own-mates';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const cap = requireRecipe('round-cap');
const bare: Parameters = { ...cap.demo.parameters, tab: false, outerFillet: 0, leadIn: 0 };

function asked(own: Partial<OwnMateAsked> & { number: string }, p: Parameters = bare, recipe = cap) {
  const outcome = solidOf({ recipe: recipe.id, additions: [], parameters: p }, kernels);
  if (!outcome.ok) throw new Error('It was not built.');
  const mate: OwnMateAsked = { name: 'It', kind: 'length', rate: 1, ...own };
  return checkOwnMates([mate], recipe, p, outcome.part, kernels);
}

test.each(['skirtDiameter', 'wall', 'endThickness', 'skirtDepth'])(
  'a size that stands on the solid is found there: %s, across, through, or from face to face',
  number => {
    expect(asked({ number })).toEqual([]);
  },
);

test('a number that makes no two faces so far apart is told, with what to do', () => {
  // The radius of a rounding is not a distance between two faces.
  const [found] = asked({ number: 'outerFillet' }, { ...bare, outerFillet: 1.2 });
  expect(found).toMatchObject({ code: 'own-mate-not-there', level: 'note', parameter: 'outerFillet' });
  expect(found!.message).toContain('make it a position');
});

test('a place is whatever its number moves; one that moves nothing is told', () => {
  expect(asked({ number: 'skirtDepth', kind: 'position' })).toEqual([]);
  const [found] = asked({ number: 'plugDepth', kind: 'position' });
  expect(found!.message).toContain('moves nothing');
});

test('an angle is two faces that its number turns; a length is none', () => {
  const hinge = requireRecipe('hinge-leaf');
  const bent = { ...hinge.demo.parameters, second: true, angle: 100 };
  expect(asked({ number: 'angle', kind: 'angle' }, bent, hinge)).toEqual([]);
  const [found] = asked({ number: 'plate', kind: 'angle' }, bent, hinge);
  expect(found!.message).toMatch(/turns no two faces/);
});

describe('two faces that were pressed are measured again on the finished triangles', () => {
  // To the open end: from the edge to the outside of the closed end is end + skirt.
  const edge = ({ skirtDiameter, wall, endThickness, skirtDepth }: Parameters) => ({
    places: [
      {
        point: [
          (skirtDiameter as number) / 2 + (wall as number) / 2,
          0,
          (endThickness as number) + (skirtDepth as number),
        ] as Point3,
        normal: [0, 0, 1] as Point3,
      },
      { point: [5, 0, 0] as Point3, normal: [0, 0, -1] as Point3 },
    ],
    size: (endThickness as number) + (skirtDepth as number),
    number: skirtDepth as number,
  });

  test('as the number says it: nothing is told, also when the number was changed', () => {
    const pressed = edge(bare);
    expect(asked({ number: 'skirtDepth', pressed })).toEqual([]);
    const deeper = { ...bare, skirtDepth: (bare.skirtDepth as number) + 1 };
    expect(asked({ number: 'skirtDepth', pressed }, deeper)).toEqual([]);
  });

  test('another number that moved it too is told with both sizes', () => {
    const thicker = { ...bare, endThickness: (bare.endThickness as number) + 0.6 };
    const [found] = asked({ number: 'skirtDepth', pressed: edge(bare) }, thicker);
    expect(found).toMatchObject({ code: 'own-mate-off', level: 'warn' });
    expect(Number(found!.fields.size) - Number(found!.fields.asked)).toBeCloseTo(0.6, 3);
  });

  test('faces that went too far off are told', () => {
    const far = { ...bare, skirtDepth: (bare.skirtDepth as number) + 20 };
    expect(asked({ number: 'skirtDepth', pressed: edge(bare) }, far)[0]).toMatchObject({
      code: 'own-mate-lost',
    });
  });
});
