import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { aPrint, aTry, aVersion } from '../../testing/rows';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type History, type TryMate } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { verdictOfDepth, wedgeOf } from './wedge';
import { Work } from './work';

const recipe = requireRecipe('tube-adapter');
const set = (name: string, text: string): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit: 'deg' },
});
/** An end that goes over a tube and tapers by 2° per side. */
const job = [set('taperA', '2'), read('tube_a', 32), read('bore_b', 36)].reduce(
  (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
  newJob('Drain', recipe, FIRST_WORKSHOP),
);
const AT = '2026-11-02T10:00:00.000Z';

function ledgerAfter(said: TryMate | null) {
  const first = new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');
  const drawn = first.ledger.mates.find(m => m.mate.id === 'overA')!;
  if (!said) return drawn;
  const version = aVersion({
    id: 'v1',
    at: AT,
    recipe: recipe.id,
    recipeVersion: recipe.version,
    printerId: first.part.printerId,
    materialId: first.part.materialId,
    parameters: first.parameters,
    mates: [
      {
        mateId: 'overA',
        surface: 'overA',
        pRight: 0.5,
        ledger: [],
        prior: drawn.prior,
        model: drawn.model,
        want: drawn.mate.want,
        reading: { value: drawn.reading.value, u: drawn.reading.u },
      },
    ],
  });
  const history: History = {
    ...emptyHistory(),
    versions: [version],
    prints: [aPrint({ id: 'p1', at: AT, versionId: 'v1' })],
    tries: [aTry({ id: 't1', at: AT, printId: 'p1', mates: { overA: said } })],
  };
  return new Work(job, FIRST_WORKSHOP, history).part('part-1').ledger.mates.find(m => m.mate.id === 'overA')!;
}

const depth = (value: number, u = 0.3): TryMate => ({
  depth: { value, u, by: 'caliper' },
  verdict: value < 0 ? 'tight' : value > 3 ? 'loose' : 'right',
});

describe('a taper is judged by how far it goes in', () => {
  const slope = 2 * Math.tan((2 * Math.PI) / 180);
  const { parameters } = new Work(job, FIRST_WORKSHOP, emptyHistory()).part('part-1');

  test('its window is one of depths: clearance over twice the tangent', () => {
    const wedge = wedgeOf(recipe.surfaces(parameters), 'overA', { min: -0.05, max: 0.1 })!;
    expect(wedge.halfAngle).toBeCloseTo(2, 6);
    expect(wedge.min).toBeCloseTo(-0.05 / slope, 6);
    expect(wedge.max).toBeCloseTo(0.1 / slope, 6);
    expect([-1, 0, 2].map(d => verdictOfDepth(d, wedge))).toEqual(['tight', 'right', 'loose']);
  });

  test('a straight surface has none', () => {
    expect(wedgeOf(recipe.surfaces({ ...parameters, taperA: 0 }), 'overA', { min: 0, max: 0.1 })).toBeNull();
  });

  test('5 mm short of its place is a clearance: it prints so much tighter than it was drawn', () => {
    const ledger = ledgerAfter(depth(-5));
    const off = ledger.model - ledgerAfter(null).model;
    // Short by 5 mm is too tight by the growth of the taper over 5 mm plus what was expected there, within the
    // printer's uncertainty.
    const before = ledgerAfter(null);
    const told = -5 * slope - before.clearance;
    expect(off).toBeGreaterThan(0);
    expect(off).toBeLessThanOrEqual(-told + 0.02);
    expect(off).toBeGreaterThan(-0.5 * told);
    expect(ledger.sd).toBeLessThan(before.sd);
  });

  test('the number goes with the depth, the other way when it went in too far', () => {
    const models = [-6, -3, 3, 6].map(d => ledgerAfter(depth(d)).model);
    expect(models).toEqual(models.toSorted((a, b) => b - a));
    expect(models[0]! - models[3]!).toBeGreaterThan(0.2);
  });

  test('a depth that was only seen by eye moves it less than one that was measured', () => {
    const before = ledgerAfter(null).model;
    const by = (u: number) => ledgerAfter(depth(-5, u)).model - before;
    expect(by(6)).toBeLessThan(by(0.3));
  });
});
