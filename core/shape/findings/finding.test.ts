import { describe, expect, test } from 'vitest';
import { COSTS } from './define';
import { acceptedAs, finding, isAccepted, ofAddition, ranked } from './finding';
import { FINDINGS } from './register';

const wall = (thickness: number) => finding('thin-wall', 'warn', { thickness, height: 3, line: 0.4 });

describe('a finding', () => {
  test('is a sentence made from its fields', () => {
    expect(wall(0.5).message).toBe(
      'The thinnest wall is 0.5 mm, at 3 mm above the bed: less than two passes of a 0.4 mm line. Make it 0.8 mm or more.',
    );
  });
  test('brings the cure of its kind along, or one that only its finder knows', () => {
    const bound = { name: 'Skirt', parameter: 'skirt', dimension: 'rim', model: 32.04, size: 30 };
    expect(finding('mate-off', 'warn', bound).remedy).toEqual({
      label: 'Use 32.04 from the ledger',
      parameter: 'skirt',
      text: 'rim.model',
    });
    const remedy = { label: 'Make it 2', parameter: 'wall', text: '2' };
    expect(finding('cannot-build', 'stop', { why: 'No.', make: 2 }, { remedy }).remedy).toEqual(remedy);
  });
  test('about an addition has its name, and its parameters by their long names', () => {
    const found = finding(
      'addition-gone',
      'stop',
      { why: 'It is gone.' },
      {
        parameter: 'place',
        remedy: { label: 'Top', parameter: 'place', text: 'top' },
      },
    );
    const about = ofAddition(found, { id: 'hole1', name: 'Vent' }, short => `hole1_${short}`);
    expect(about).toMatchObject({
      message: 'Vent: It is gone.',
      addition: 'hole1',
      parameter: 'hole1_place',
      remedy: { parameter: 'hole1_place' },
    });
  });
  test('every kind has a cost', () => {
    for (const [code, { cost }] of Object.entries(FINDINGS)) expect(COSTS, code).toContain(cost);
  });
  test('stops come first, and what hurts before what looks odd', () => {
    const list = [
      wall(0.5),
      finding('tips', 'note', { weight: 1, towards: 'left', at: 9, easily: false }),
      finding('injury', 'stop', {}),
    ];
    expect(ranked(list).map(f => f.code)).toEqual(['injury', 'thin-wall', 'tips']);
  });
});

describe('what was accepted', () => {
  const accepted = [acceptedAs(wall(0.5), 'a membrane')];
  test('stays so for the same cause only: other numbers, another place, another kind are asked again', () => {
    expect(isAccepted(wall(0.5), accepted)).toBe(true);
    expect(isAccepted(wall(0.5 + 1e-9), accepted)).toBe(true);
    expect(isAccepted(wall(0.49), accepted)).toBe(false);
    expect(isAccepted({ ...wall(0.5), addition: 'hole1' }, accepted)).toBe(false);
    expect(isAccepted({ ...wall(0.5), code: 'part-pass' }, accepted)).toBe(false);
  });
  test('does not depend on how it was said', () => {
    expect(isAccepted({ ...wall(0.5), message: 'Said otherwise.' }, accepted)).toBe(true);
    const gone = (why: string) => finding('addition-gone', 'stop', { why }, { parameter: 'x' });
    expect(isAccepted(gone('In other words.'), [acceptedAs(gone('In words.'), 'r')])).toBe(true);
  });
  test('before fields were kept, it is asked again', () => {
    const { fields: _, ...old } = accepted[0]!;
    expect(isAccepted(wall(0.5), [old])).toBe(false);
  });
});
