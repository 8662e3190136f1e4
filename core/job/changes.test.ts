import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { applyChanges, diff, invert, same } from './changes';

const item = fc.record({
  id: fc.constantFrom('a', 'b', 'c', 'd'),
  size: fc.integer({ min: 0, max: 3 }),
  words: fc.option(fc.constantFrom('x', 'y'), { nil: undefined }),
});
const items = fc.uniqueArray(item, { selector: i => i.id, maxLength: 4 });
const document = fc.record({
  title: fc.constantFrom('one', 'two'),
  list: items,
  map: fc.dictionary(fc.constantFrom('p', 'q'), fc.integer({ min: 0, max: 2 })),
  tags: fc.array(fc.constantFrom('w', 'v'), { maxLength: 2 }),
});
const ids = (d: unknown) => (d as { list: { id: string }[] }).list.map(i => i.id).sort();

describe('changes between documents', () => {
  test('lead from one to the other, and back, up to the order of lists', () => {
    fc.assert(
      fc.property(document, document, (before, after) => {
        const changes = diff(before, after);
        const forward = applyChanges(before, changes);
        expect(forward.ok).toBe(true);
        if (!forward.ok) return;
        expect(diff(forward.document, after)).toEqual([]);
        expect(ids(forward.document)).toEqual(ids(after));
        const back = applyChanges(forward.document, invert(changes));
        expect(back.ok && diff(back.document, before)).toEqual([]);
      }),
      { seed: 21, numRuns: 500 },
    );
  });

  test('survive JSON, in which undefined has no place', () => {
    const before = { list: [{ id: 'a', size: 1 }], map: {} };
    const after = { list: [], map: { p: 1 } };
    const changes = JSON.parse(JSON.stringify(diff(before, after)));
    expect(applyChanges(before, changes)).toEqual({ ok: true, document: after });
    expect(applyChanges(after, invert(changes))).toEqual({ ok: true, document: before });
  });

  test('two edits to different members of a list never meet', () => {
    const start = {
      list: [
        { id: 'a', size: 1 },
        { id: 'b', size: 1 },
      ],
    };
    const mine = diff(start, {
      list: [
        { id: 'a', size: 2 },
        { id: 'b', size: 1 },
      ],
    });
    const both = {
      list: [
        { id: 'a', size: 2 },
        { id: 'b', size: 9 },
      ],
    };
    expect(applyChanges(both, invert(mine))).toEqual({
      ok: true,
      document: {
        list: [
          { id: 'a', size: 1 },
          { id: 'b', size: 9 },
        ],
      },
    });
  });

  test('a value that was changed again since is a conflict, not overwritten', () => {
    const mine = diff({ title: 'one' }, { title: 'two' });
    const outcome = applyChanges({ title: 'three' }, invert(mine));
    expect(outcome).toMatchObject({ ok: false, conflict: { path: ['title'] } });
  });

  test('a member comes back where it stood', () => {
    const before = { list: [{ id: 'a' }, { id: 'b' }, { id: 'c' }] };
    const changes = diff(before, { list: [{ id: 'a' }, { id: 'c' }] });
    const undone = applyChanges({ list: [{ id: 'a' }, { id: 'c' }] }, invert(changes));
    expect(undone).toEqual({ ok: true, document: before });
  });

  test('an absent value and undefined are the same', () => {
    expect(same({ a: 1 }, { a: 1, b: undefined })).toBe(true);
    expect(same([1, 2], [2, 1])).toBe(false);
  });
});
