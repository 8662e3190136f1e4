import { describe, expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import { requireRecipe } from '../shape/recipes';
import { Work } from '../work/work';
import { forAnotherObject } from './again';
import type { JobDocument } from './document';
import { JobDocument as Schema } from './document';
import { applyEdit, type Edit } from './edits';
import { emptyHistory } from './history';
import { newJob } from './new-job';
import { FIRST_WORKSHOP } from './workshop';

const edited = (document: JobDocument, ...edits: Edit[]) =>
  edits.reduce((doc, edit) => applyEdit(doc, edit, FIRST_WORKSHOP), document);
const part = (document: JobDocument) => new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');
const number = (name: string, text: string): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit: 'mm' },
});
const want = {
  name: 'slide' as const,
  window: { min: 0.2, max: 0.45, unit: 'mm' as const },
  prefer: 'loose' as const,
};

describe('a job as a recipe of one’s own', () => {
  const fitted = edited(
    newJob('Cap for the port', requireRecipe('round-cap'), FIRST_WORKSHOP),
    readEdit('rim', 31.7),
    readEdit('rim_height', 14),
    number('wall', '2.4'),
    number('skirtDiameter', '32.11'),
    { kind: 'want', mateId: 'skirt', want },
    { kind: 'brief', brief: { ifItBreaks: 'damage', cautionsRead: ['damage'] } },
    { kind: 'in-service', since: '2026-03-01T00:00:00.000Z' },
  );
  const again = forAnotherObject(fitted, 'Cap for the other port', 'starboard port');

  test('keeps shape, wants and brief, and asks for the readings only', () => {
    expect(Schema.parse(again)).toEqual(again);
    const next = part(again);
    expect(next.parameters.wall).toBe(2.4);
    expect(next.mates[0]!.want).toEqual(want);
    expect(again.brief).toMatchObject({ ifItBreaks: 'damage', cautionsRead: [] });
    expect(again.service).toEqual({ since: null, notes: [] });
    expect(next.ledger.unread.map(m => m.id)).toEqual(['skirt']);
    expect(next.needed.map(d => d.dimension.id)).toEqual(['rim', 'rim_height']);
  });

  test('a number set by hand for the old object follows the new one’s readings', () => {
    const read = part(edited(again, readEdit('rim', 40), readEdit('rim_height', 14)));
    expect(read.parameters.skirtDiameter).toBeGreaterThan(40);
    expect(read.ledger.mates[0]!.model).toBe(read.ledger.mates[0]!.proposed);
  });

  test('a picture that shows where a dimension is read comes along; others and what was traced do not', () => {
    const photo = (id: string) => ({
      id,
      sha256: id.repeat(64).slice(0, 64),
      type: 'image/jpeg' as const,
      label: id,
      width: 40,
      height: 30,
    });
    const pictured: JobDocument = {
      ...fitted,
      photos: [photo('a'), photo('b')],
      dimensions: fitted.dimensions.map((d, i) =>
        i === 0 ? { ...d, mark: { on: 'a', from: [0.1, 0.2], to: [0.8, 0.2] } } : d,
      ),
    };
    const next = forAnotherObject(pictured, 'Other', '');
    expect(next.photos.map(p => p.id)).toEqual(['a']);
    expect(next.dimensions[0]!.mark?.on).toBe('a');
    expect(next.traces).toBeUndefined();
  });

  test('what was decided, not measured, stays', () => {
    const decided = edited(
      fitted,
      {
        kind: 'add-dimension',
        dimension: {
          id: 'room',
          name: 'room',
          label: 'Room',
          kind: 'length',
          critical: false,
          guide: null,
          note: '',
          readings: [],
        },
      },
      readEdit('room', 2.4, { id: 'said', source: 'said', instrumentId: null, u: 0 }),
    );
    const next = forAnotherObject(decided, 'Again', '');
    expect(next.dimensions.find(d => d.id === 'room')!.readings.map(r => r.value)).toEqual([2.4]);
    expect(next.dimensions.find(d => d.id === 'rim')!.readings).toEqual([]);
  });
});

test('a job that was put away is no more away when it is made again', () => {
  const start = newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP);
  const away = edited(start, { kind: 'put-away', away: { how: 'archived', at: '2026-03-01T00:00:00.000Z' } });
  expect(away.away?.how).toBe('archived');
  expect(forAnotherObject(away, 'Again', '').away).toBeUndefined();
  expect(edited(away, { kind: 'put-away', away: null }).away).toBeUndefined();
});
