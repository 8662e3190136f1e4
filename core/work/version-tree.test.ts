import { expect, test } from 'vitest';
import { aVersion } from '../../testing/rows';
import { baseOf, grown } from './version-tree';

const version = (number: number, follows: string | null = null) =>
  aVersion({ id: `v${number}`, at: `2026-01-0${number}T00:00:00.000Z`, number, follows });
const shape = (versions: ReturnType<typeof version>[]) =>
  grown(versions).map(g => [g.version.number, g.from?.number ?? null, g.lane]);

test('one after the other is one lane, in histories from before too', () => {
  expect(shape([version(1), version(2), version(3)])).toEqual([
    [1, null, 0],
    [2, 1, 0],
    [3, 2, 0],
  ]);
});

test('going on from an earlier one opens a lane of its own, and that goes on too', () => {
  const all = [version(1), version(2, 'v1'), version(3, 'v1'), version(4, 'v3'), version(5, 'v2')];
  expect(shape(all)).toEqual([
    [1, null, 0],
    [2, 1, 0],
    [3, 1, 1],
    [4, 3, 1],
    [5, 2, 0],
  ]);
});

test('one whose own does not count any more goes on from the one before it', () => {
  expect(shape([version(1), version(3, 'v2')])).toEqual([
    [1, null, 0],
    [3, 1, 0],
  ]);
});

test('the next goes on from the newest, unless the maker went back since', () => {
  const all = [version(1), version(2, 'v1')];
  expect(baseOf({}, [])).toBeNull();
  expect(baseOf({}, all)?.number).toBe(2);
  expect(baseOf({ base: { version: 'v1', over: 'v2' } }, all)?.number).toBe(1);
  // That was before version 3.
  expect(baseOf({ base: { version: 'v1', over: 'v2' } }, [...all, version(3, 'v1')])?.number).toBe(3);
  expect(baseOf({ base: { version: 'gone', over: 'v2' } }, all)?.number).toBe(2);
});
