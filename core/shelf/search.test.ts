import { describe, expect, test } from 'vitest';
import { SHELF } from './items';
import { nearStandard, searchShelf, understandQuestion } from './search';

const first = (text: string) => searchShelf(text)[0]?.item.name;
const names = (text: string) => searchShelf(text).map(f => f.item.name);

describe('the shelf is asked as people ask', () => {
  test.each([
    ['22 outside 8 bore 7 wide', 'bearing 608'],
    ['22x8x7', 'bearing 608'],
    ['bearing 608', 'bearing 608'],
    ['608-2RS', 'bearing 608'],
    ['hole for M4', 'hole for M4'],
    ['hole for m10', 'hole for M10'],
    ['M4 nut', 'M4 nut'],
    ['G 1/4', 'G 1/4'],
    ['13.08 and 19 turns an inch', 'G 1/4'],
    ['13,08 19 tpi', 'G 1/4'],
    ['M10x1.25', 'M10x1.25'],
    ['m5 heat-set insert', 'M5 heat-set insert'],
    ['tap drill M6', 'drill for tapping M6'],
    ['o-ring -014', 'O-ring -014'],
    ['1/4 NPT', '1/4 NPT'],
    ['asa', 'ASA'],
    ['copper tube 15', 'copper tube 15'],
  ])('%s', (question, answer) => {
    expect(first(question)).toBe(answer);
  });

  test('5.5 across flats is the M3 nut and head, and nothing that is 5.5 otherwise', () => {
    const found = searchShelf('what standard thing is 5.5 across flats?');
    expect(found.map(f => f.item.name)).toEqual(expect.arrayContaining(['M3 nut', 'M3 hexagon head']));
    expect(found.every(f => f.matched[0]!.size.role === 'flats')).toBe(true);
  });

  test('a number in inches is understood', () => {
    expect(names('7/16 in across flats')).toContain('1/4 in nut');
  });

  test('what is nowhere is not found', () => {
    expect(searchShelf('bearing 999 outside')).toEqual([]);
    expect(searchShelf('flux capacitor')).toEqual([]);
  });

  test('nothing asked shows the drawer', () => {
    expect(searchShelf('', 'Bearings').every(f => f.item.family === 'Bearings')).toBe(true);
    expect(searchShelf('', 'O-rings').length).toBeGreaterThan(300);
  });

  test('odd texts never throw', () => {
    for (const text of [
      '',
      '   ',
      '1/0',
      '....',
      'x',
      '22x',
      '(((',
      '# #',
      '1 1 1 1 1 1',
      'ü½"',
      'a'.repeat(5000),
    ])
      expect(() => searchShelf(text)).not.toThrow();
    expect(understandQuestion('1 1/4 in outside').numbers).toMatchObject([{ value: 31.75, role: 'outside' }]);
  });
});

test('a reading is recognised within its doubt, and not beyond', () => {
  expect(nearStandard(22.0, 0.05, 'outside').map(f => f.item.name)).toContain('bearing 608');
  expect(nearStandard(42.4, 0.1, 'outside')[0]!.item.name).toBe('steel pipe DN32');
  expect(nearStandard(187.3, 0.02, 'outside')).toEqual([]);
});

test('every item has its own id, a source and sizes above nothing', () => {
  expect(new Set(SHELF.map(i => i.id)).size).toBe(SHELF.length);
  for (const item of SHELF) {
    expect(item.source.length, item.name).toBeGreaterThan(10);
    for (const size of item.sizes) {
      expect(size.value, `${item.name} ${size.label}`).toBeGreaterThan(0);
      expect(size.tolerance, `${item.name} ${size.label}`).toBeGreaterThan(0);
    }
  }
});
