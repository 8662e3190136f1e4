import { expect, test } from 'vitest';
import type { PosePlan } from './plan';
import { supportFindings } from './support-findings';

const plan = (area: number, ...supported: string[]): Pick<PosePlan, 'supports' | 'mates'> => ({
  supports: { area, volume: 0, onPart: 0 },
  mates: ['Bore', 'Rim'].map(name => ({
    name,
    lies: 'upright',
    supported: supported.includes(name),
    onBed: false,
    seam: false,
    doubt: 1,
  })),
});
const told = (...asked: Parameters<typeof plan>) =>
  supportFindings(plan(...asked)).map(f => [f.code, f.level, f.message] as const);

test('a part without supports, or with a speck of them, has nothing to say', () => {
  expect(told(0)).toEqual([]);
  expect(told(2)).toEqual([]);
});

test('supports beside what must fit are worth knowing', () => {
  expect(told(120.4)).toEqual([['needs-supports', 'note', expect.stringContaining('120 mm²')]]);
});

test('on a surface that must fit they cost a print: by its name', () => {
  expect(told(120, 'Rim')).toEqual([['supports-on-mate', 'warn', expect.stringContaining('“Rim”')]]);
});
