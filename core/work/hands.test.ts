import { describe, expect, test } from 'vitest';
import { readEdit as read } from '../../testing/read-edit';
import { aPrint, aTry, aVersion } from '../../testing/rows';
import { applyEdit } from '../job/edits';
import { emptyHistory, type History } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP, type Workshop } from '../job/workshop';
import { lessonOfHand } from '../learn/hand';
import type { Evidence } from '../learn/lessons';
import { requireRecipe } from '../shape/recipes';
import { lessonGroups } from './lesson-groups';
import { taughtBy } from './taught';
import { Work } from './work';

const AT = '2026-10-02T10:00:00.000Z';
const document = [read('rim', 31.7), read('rim', 31.71), read('rim_height', 14)].reduce(
  (j, e) => applyEdit(j, e, FIRST_WORKSHOP),
  newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP, 'petg'),
);
const skirt = (work: Work) => work.part('part-1').ledger.mates.find(m => m.mate.id === 'skirt')!;
const lesson = (name: string, mean: number, sd = 0.015): Evidence => ({
  jobId: 'another',
  title: 'Another',
  printerId: null,
  materialId: null,
  surface: lessonOfHand(name),
  mean,
  sd,
  prints: 12,
  // Lessons age.
  at: new Date().toISOString(),
});
/** One job may be chance; three show a hand. */
const often = (name: string, mean: number): Evidence[] =>
  ['a', 'b', 'c'].map(jobId => ({ ...lesson(name, mean), jobId }));
const about = (lessons: readonly Evidence[], history = emptyHistory(), workshop: Workshop = FIRST_WORKSHOP) =>
  Work.of({ id: 'this', document, history }, workshop, lessons);

/** Prints of a cap that were measured and judged by one person, each larger than the rim by the given amount. */
function judged(
  by: string,
  tries: readonly [clearance: number, verdict: 'tight' | 'right' | 'loose'][],
): History {
  const { mate, model, reading, prior } = skirt(about([]));
  const { part, parameters } = about([]).part('part-1');
  const drawn = {
    mateId: mate.id,
    surface: 'skirt',
    want: mate.want,
    reading,
    model,
    prior,
    pRight: 0.5,
    ledger: [],
  };
  const version = aVersion({
    id: 'v1',
    at: AT,
    printerId: part.printerId,
    materialId: part.materialId,
    parameters,
    mates: [drawn],
  });
  return {
    ...emptyHistory(),
    versions: [version],
    prints: tries.map((_, i) => aPrint({ id: `p${i}`, at: AT, versionId: 'v1', number: i + 1 })),
    tries: tries.map(([clearance, verdict], i) =>
      aTry({
        id: `t${i}`,
        at: AT,
        printId: `p${i}`,
        by,
        mates: { skirt: { verdict, printed: { value: reading.value + clearance, u: 0.02 } } },
      }),
    ),
  };
}

describe('whose hand it is', () => {
  test('measured tries of a hand that wants more are a lesson of that hand, and of nobody else', () => {
    const { window } = skirt(about([]));
    const early = window.max + 0.04;
    const history = judged('The boat-keeper', [
      [window.min + 0.02, 'tight'],
      [(window.min + window.max) / 2, 'tight'],
      [early, 'right'],
      [window.max + 0.01, 'right'],
    ]);
    const taught = taughtBy(about([], history), 'this').filter(e => e.surface.startsWith('hand'));
    expect(taught).toHaveLength(1);
    expect(taught[0]).toMatchObject({ surface: 'hand the boat-keeper', printerId: null, prints: 4 });
    expect(taught[0]!.mean).toBeGreaterThan(0.03);
    expect(
      taughtBy(about([], judged('', [[early, 'right']])), 'this').some(e => e.surface.startsWith('hand')),
    ).toBe(false);
  });

  test('the next job is drawn for the hand that will judge it, and says so', () => {
    const [plain, shifted] = [skirt(about([])), skirt(about(often('Ada', 0.08)))];
    expect(shifted.window.min - plain.window.min).toBeGreaterThan(0.05);
    expect(skirt(about([lesson('Ada', 0.08, 0.05)])).window).toEqual(plain.window);
    expect(shifted.model - plain.model).toBeGreaterThan(0.05);
    expect(shifted.reason).toContain('ada calls “tight” 0.0');
    expect(plain.reason).not.toContain('calls');
  });

  test('of two hands the one that judged this job counts; nobody’s word shifts nothing', () => {
    const both = [...often('Ada', 0.08), ...often('Bo', -0.08)];
    const plain = skirt(about([])).window.min;
    expect(skirt(about(both)).window.min).toBeCloseTo(plain, 9);
    const byBo = judged('Bo', [[0.2, 'right']]);
    expect(skirt(about(both, byBo)).window.min).toBeLessThan(plain - 0.05);
  });

  test('a lesson that is muted is not gone by; an unsure one neither; the page names the hand', () => {
    const muted = {
      ...FIRST_WORKSHOP,
      lessonsMuted: [
        { printerId: null, materialId: null, surface: lessonOfHand('Ada'), before: null, reason: 'gloves' },
      ],
    };
    const plain = skirt(about([])).window.min;
    expect(skirt(about(often('Ada', 0.08), emptyHistory(), muted)).window.min).toBeCloseTo(plain, 9);
    expect(skirt(about(often('Ada', 0.05).map(e => ({ ...e, sd: 0.2 })))).window.min).toBeCloseTo(plain, 9);
    const [group] = lessonGroups([lesson('Ada', 0.08)], FIRST_WORKSHOP, AT);
    expect(group).toMatchObject({ hand: 'ada', words: 'The hand of “ada”' });
  });
});
