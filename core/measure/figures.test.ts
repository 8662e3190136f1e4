import { expect, test } from 'vitest';
import { DERIVE_KINDS } from './derive';
import { deriveFigure } from './figures';

test.each(DERIVE_KINDS.map(k => [k.id, k] as const))('%s has a figure that shows its inputs', (id, kind) => {
  const figure = deriveFigure(id);
  expect(figure.shapes.length).toBeGreaterThan(0);
  expect(figure.frame.every(Number.isFinite)).toBe(true);
  // Three points are marked on the figure; everything else is dimensioned.
  if (id === 'circle-through-three') return;
  expect(figure.dimensions.map(d => d.key).sort()).toEqual(kind.slots.map(s => s.key).sort());
});

test('an unknown kind has none', () => expect(() => deriveFigure('guess')).toThrow(/no figure/));
