import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../kernels/node';
import type { AdditionKindName } from '../shape/additions/addition';
import { buildPart } from '../shape/build';
import type { Kernels } from '../shape/kernels/kernel';
import { centroidOf, volumeOf } from '../shape/mesh/mesh';
import { requireRecipe } from '../shape/recipes';
import { Work } from '../work/work';
import { applyEdit, type Edit } from './edits';
import { emptyHistory } from './history';
import type { SidesChanged } from './mirrored-addition';
import { newJob } from './new-job';
import { FIRST_WORKSHOP } from './workshop';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});

/** A plate with an addition off its middle, and with its mirror image. */
function mirrored(
  kind: AdditionKindName,
  short: string,
  texts: Record<string, string>,
  mirror: SidesChanged,
) {
  const begins = Object.fromEntries(
    Object.entries(texts).map(([name, text]) => [
      name,
      { text, unit: name === 'count' ? ('none' as const) : ('mm' as const) },
    ]),
  );
  const edits: Edit[] = [
    { kind: 'parameter', partId: 'part-1', name: 'style', expression: { text: 'screwed', unit: 'none' } },
    {
      kind: 'add-addition',
      partId: 'part-1',
      addition: { id: `${short}1`, kind, name: 'One', on: true },
      begins,
    },
    { kind: 'copy-addition', partId: 'part-1', additionId: `${short}1`, id: `${short}2`, mirror },
  ];
  const start = newJob('Plate', requireRecipe('wall-plate'), FIRST_WORKSHOP);
  const built = (list: Edit[]) => {
    const job = list.reduce((j, e) => applyEdit(j, e, FIRST_WORKSHOP), start);
    const part = new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');
    const outcome = buildPart(part.recipe, part.parameters, kernels, 'file');
    if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
    expect(outcome.findings.filter(f => f.level === 'stop')).toEqual([]);
    return { mesh: outcome.part.mesh, text: (name: string) => job.parts[0]!.parameters[name]?.text };
  };
  const [plain, one, both] = [edits.slice(0, 1), edits.slice(0, 2), edits].map(built);
  return { plain: plain!, one: one!, both: both! };
}

describe('a mirror image of an addition', () => {
  test.each([
    ['hole', 'hole', { place: 'top', x: '11', y: '6', diameter: '4' }, 'left-right', 0],
    ['hole', 'hole', { place: 'top', x: '11', y: '6', diameter: '4' }, 'front-back', 1],
    [
      'shape',
      'shape',
      { place: 'top', x: '9', y: '-4', width: '6', depth: '3', rise: '5', turn: '30' },
      'left-right',
      0,
    ],
    [
      'shape',
      'shape',
      { place: 'right', x: '7', y: '0', width: '6', depth: '2', rise: '5' },
      'left-right',
      0,
    ],
    [
      'shape',
      'shape',
      { place: 'front', x: '12', y: '0', width: '6', depth: '2', rise: '5' },
      'front-back',
      1,
    ],
    [
      'hole',
      'hole',
      { place: 'top', x: '4', y: '3', diameter: '3', copies: 'row', count: '3', pitch: '5' },
      'left-right',
      0,
    ],
  ] as const)('%s, %s %j, %s', (kind, short, texts, mirror, axis) => {
    const { plain, one, both } = mirrored(kind, short, texts, mirror);
    const by = volumeOf(one.mesh) - volumeOf(plain.mesh);
    expect(Math.abs(by)).toBeGreaterThan(1);
    expect((volumeOf(both.mesh) - volumeOf(plain.mesh)) / by).toBeCloseTo(2, 2);
    // The plate is symmetric, and with both additions it is symmetric again.
    expect(centroidOf(both.mesh)[axis]).toBeCloseTo(centroidOf(plain.mesh)[axis], 3);
    expect(Math.abs(centroidOf(one.mesh)[axis] - centroidOf(plain.mesh)[axis])).toBeGreaterThan(0.005);
  });

  test('what is written stays readable, and refers to the copy', () => {
    const { both } = mirrored(
      'shape',
      'shape',
      { place: 'right at width / 2', x: 'shape1_width + 2', y: '0', width: '4', depth: '2', rise: '5' },
      'left-right',
    );
    expect(both.text('shape2_place')).toBe('left at -(width / 2)');
    expect(both.text('shape2_x')).toBe('-(shape2_width + 2)');
  });
});
