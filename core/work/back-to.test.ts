import { expect, test } from 'vitest';
import { readEdit } from '../../testing/read-edit';
import type { JobDocument } from '../job/document';
import { applyEdit, type Edit } from '../job/edits';
import { emptyHistory, type Version } from '../job/history';
import { newJob } from '../job/new-job';
import { FIRST_WORKSHOP } from '../job/workshop';
import { requireRecipe } from '../shape/recipes';
import { partAsIn } from './back-to';
import { Work } from './work';

const edited = (document: JobDocument, ...edits: Edit[]) =>
  edits.reduce((doc, edit) => applyEdit(doc, edit, FIRST_WORKSHOP), document);
const part = (document: JobDocument) => new Work(document, FIRST_WORKSHOP, emptyHistory()).part('part-1');
const number = (name: string, text: string, unit: 'mm' | 'none' = 'mm'): Edit => ({
  kind: 'parameter',
  partId: 'part-1',
  name,
  expression: { text, unit },
});

test('going back to a version brings its shape, and its surfaces follow the ledger still', () => {
  const then = edited(
    newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP),
    readEdit('rim', 31.7),
    readEdit('rim_height', 14),
    number('wall', '2.4'),
    number('style', 'both', 'none'),
  );
  const was = part(then);
  // The fields that a version stores.
  const version: Pick<
    Version,
    'expressions' | 'parameters' | 'additions' | 'materialId' | 'printerId' | 'pose'
  > = {
    expressions: { ...was.expressions },
    parameters: was.parameters,
    additions: was.part.additions,
    materialId: was.part.materialId,
    printerId: was.part.printerId,
    pose: was.part.pose,
  };
  const now = edited(
    then,
    number('wall', '3.6'),
    number('style', 'over', 'none'),
    { kind: 'pose', partId: 'part-1', pose: { down: [0, -1, 0], turn: 0 } },
    {
      kind: 'add-addition',
      partId: 'part-1',
      addition: { id: 'hand1', kind: 'other-hand', name: 'Other hand', on: true },
    },
    readEdit('rim', 31.9),
  );
  const kept = partAsIn(version as Version, was.recipe);
  expect(kept.parameters).toEqual({
    wall: { text: '2.4', unit: 'mm' },
    style: { text: 'both', unit: 'none' },
  });
  const back = part(edited(now, { kind: 'back-to', partId: 'part-1', version: 1, ...kept }));
  expect(back.part).toEqual(was.part);
  expect(back.parameters.wall).toBe(2.4);
  // The rim was read again since then: the skirt follows the new reading.
  expect(back.parameters.skirtDiameter).toBeGreaterThan(was.parameters.skirtDiameter as number);
});
