import { describe, expect, test } from 'vitest';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { askedChoices } from './unsaid';
import { Work } from './work';

const job = (recipe: string) => newJob('Thread', requireRecipe(recipe), FIRST_WORKSHOP);
const edit = (document: JobDocument, ...edits: Edit[]) =>
  edits.reduce((next, e) => applyEdit(next, e, FIRST_WORKSHOP), document);
const work = (document: JobDocument) => new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');
const set = (name: string, text: string): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit: 'none' },
});

describe('the hand of a thread', () => {
  test('is asked for; right is drawn until somebody says, and that is said', () => {
    const [found] = work(job('threaded-cover')).unsaid;
    expect(found).toMatchObject({
      code: 'not-said',
      level: 'warn',
      message:
        '“Hand” is not said yet: drawn as “right: clockwise goes on”. Look at the object, and say which it is.',
      remedy: { label: 'Say “right”', parameter: 'hand', text: 'right' },
    });
  });
  test.each(['right', 'left'])('once said to be %s, it is quiet', hand => {
    const said = work(edit(job('threaded-cover'), set('hand', hand)));
    expect(said.unsaid).toEqual([]);
    // It stays visible where the object is measured.
    expect(askedChoices(said.recipe, said.parameters).map(p => p.name)).toEqual(['hand']);
  });
  test('of a coupler is asked at each end', () => {
    const coupler = work(edit(job('threaded-cover'), set('style', 'coupler')));
    expect(coupler.unsaid.map(f => f.parameter)).toEqual(['hand', 'handB']);
  });
  test('of a thread put on a part is asked too, by the addition’s name', () => {
    const addition = { id: 'thread1', kind: 'thread' as const, name: 'Drain thread', on: true };
    const plate = edit(job('round-cap'), { kind: 'add-addition', partId: 'part-1', addition });
    const [found] = work(plate).unsaid;
    expect(found).toMatchObject({ addition: 'thread1', parameter: 'thread1_hand' });
    expect(found!.message).toMatch(/^Drain thread: “Hand” is not said yet/);
    expect(work(edit(plate, set('thread1_hand', found!.remedy!.text))).unsaid).toEqual([]);
  });
  test('nothing is asked of a part without one', () => {
    expect(work(job('round-cap')).unsaid).toEqual([]);
  });
});
