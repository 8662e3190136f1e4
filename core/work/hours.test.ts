import { describe, expect, test } from 'vitest';
import { minutesByStage, stageOfPath, stageOfRow } from './hours';

const at = (minute: number) => new Date(Date.UTC(2026, 0, 3, 10, minute)).toISOString();

describe('how long a maker was at each stage', () => {
  test('the time up to each thing that was done is that thing’s', () => {
    const spent = minutesByStage([
      { at: at(0), stage: 'brief' },
      { at: at(3), stage: 'measure' },
      { at: at(8), stage: 'measure' },
      { at: at(10), stage: 'shape' },
    ]);
    expect(spent).toMatchObject({ brief: 2, measure: 8, shape: 2, print: 0 });
  });
  test('a long pause is nobody’s work, and order does not matter', () => {
    const moments = [
      { at: at(200), stage: 'try' as const },
      { at: at(0), stage: 'print' as const },
      { at: at(203), stage: 'try' as const },
    ];
    expect(minutesByStage(moments)).toMatchObject({ print: 2, try: 5 });
    expect(minutesByStage([...moments].reverse())).toEqual(minutesByStage(moments));
  });
  test('nothing done is no time', () => {
    expect(Object.values(minutesByStage([])).every(m => m === 0)).toBe(true);
  });
});

test('what is changed, and what is written, belongs to a stage', () => {
  expect(stageOfPath(['dimensions', 'rim', 'readings'])).toBe('measure');
  expect(stageOfPath(['mates', 'skirt', 'want'])).toBe('fit');
  expect(stageOfPath(['parts', 'part-1', 'parameters', 'wall'])).toBe('shape');
  expect(stageOfPath(['parts', 'part-1', 'pose'])).toBe('print');
  expect(stageOfPath(['brief', 'purpose'])).toBe('brief');
  expect(stageOfPath(['title'])).toBe('brief');
  expect(stageOfPath([])).toBe('brief');
  expect((['version', 'print', 'try', 'ladder', 'look'] as const).map(stageOfRow)).toEqual([
    'print',
    'print',
    'try',
    'fit',
    'keep',
  ]);
});
