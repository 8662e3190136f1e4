// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeAll, expect, test } from 'vitest';
import { readCorners } from '../../../../core/shape/outline-text';
import { PageBench } from '../../../../testing/page-bench';
import { OutlineDrawing } from './OutlineDrawing';

beforeAll(() => {
  globalThis.ResizeObserver ??= class {
    observe() {}
    unobserve() {}
    disconnect() {}
  };
});
afterEach(cleanup);

function drawn(text: string) {
  const kept: string[] = [];
  new PageBench([], 'profile-part').show(
    <OutlineDrawing
      label="Outline"
      corners={readCorners(text)}
      onDraft={() => {}}
      onKeep={next => kept.push(next)}
    />,
  );
  return kept;
}
const at = (name: string) => screen.getByRole('button', { name, hidden: true });
const SQUARE = '0, 0; 40, 0; 40, 25; 0, 25';

test('a corner goes with the arrow keys, by half a millimetre or with Shift by a tenth', async () => {
  const kept = drawn(SQUARE);
  at('Corner 3').focus();
  await userEvent.keyboard('{ArrowRight}{Shift>}{ArrowDown}{/Shift}');
  expect(kept).toEqual(['0, 0; 40, 0; 40.5, 25; 0, 25', '0, 0; 40, 0; 40, 24.9; 0, 25']);
});

test('the numbers of what is held are beside it', async () => {
  const kept = drawn(SQUARE);
  at('Corner 2').focus();
  const x = await screen.findByRole('textbox', { name: 'x' });
  await userEvent.clear(x);
  await userEvent.type(x, 'seat_width{Enter}');
  expect(kept).toEqual(['0, 0; seat_width, 0; 40, 25; 0, 25']);
  await userEvent.click(screen.getByRole('button', { name: 'Take it out' }));
  expect(kept.at(-1)).toBe('0, 0; 40, 25; 0, 25');
});

test('a whole edge goes out by a typed amount, in below 0; what is no size stays and says so', async () => {
  const kept = drawn(SQUARE);
  at('Edge to corner 3').focus();
  const by = await screen.findByRole('textbox', { name: 'Move it out by, mm' });
  await userEvent.type(by, 'wide{Enter}');
  expect(screen.getByRole('alert').textContent).not.toBe('');
  await userEvent.clear(by);
  await userEvent.type(by, '-0.4{Enter}');
  expect(kept).toEqual(['0, 0; 39.6, 0; 39.6, 25; 0, 25']);
  await userEvent.type(screen.getByRole('textbox', { name: 'Trim, mm outwards' }), '0.3{Enter}');
  expect(kept.at(-1)).toBe('0, 0; 40, 0; 40, 25 trim 0.3; 0, 25');
  await userEvent.click(screen.getByRole('button', { name: 'A corner in its middle' }));
  expect(kept.at(-1)).toBe('0, 0; 40, 0; 40, 12.5; 40, 25; 0, 25');
});

test('a corner made from sizes stays, at its example until it is read; what cannot be read is not drawn', async () => {
  const kept = drawn('0, 0; seat_width, seat_height; 0, 25');
  at('Corner 2').focus();
  await userEvent.keyboard('{ArrowRight}');
  expect(at('Corner 2').hasAttribute('data-fixed')).toBe(true);
  expect(kept).toEqual([]);
  cleanup();
  drawn('0, 0; nothing, 3; 0, 25');
  expect(screen.getByText(/once each corner has two numbers/)).toBeDefined();
});
