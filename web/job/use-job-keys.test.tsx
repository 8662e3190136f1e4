// @vitest-environment jsdom
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { STAGE_LETTERS, useJobKeys } from './use-job-keys';

const actions = { go: vi.fn(), undo: vi.fn(), redo: vi.fn(), keys: vi.fn(), unit: vi.fn() };

function Page() {
  useJobKeys(actions);
  return (
    <>
      <input aria-label="note" />
      <input aria-label="reading" data-reading />
    </>
  );
}

beforeEach(() => {
  for (const action of Object.values(actions)) action.mockReset();
  render(<Page />);
});
afterEach(cleanup);

/** Presses keys one after another on an element, like a keyboard. */
const press = (target: Element, ...keys: (string | KeyboardEventInit)[]) => {
  for (const key of keys) fireEvent.keyDown(target, typeof key === 'string' ? { key } : key);
};

describe('keys of a job', () => {
  test('g and a letter goes to each stage; a letter alone goes nowhere', () => {
    press(document.body, 's');
    expect(actions.go).not.toHaveBeenCalled();
    for (const letter of Object.values(STAGE_LETTERS)) press(document.body, 'g', letter);
    expect(actions.go.mock.calls.map(([stage]) => stage)).toEqual(Object.keys(STAGE_LETTERS));
  });

  test('? opens the keys with Shift and without; u changes the unit', () => {
    press(document.body, '?', { key: '?', shiftKey: true }, 'u');
    expect(actions.keys).toHaveBeenCalledTimes(2);
    expect(actions.unit).toHaveBeenCalledTimes(1);
  });

  test('letters in a field are the field’s; in an empty reading they are the page’s', () => {
    const reading = screen.getByLabelText<HTMLInputElement>('reading');
    press(screen.getByLabelText('note'), 'g', 'm', 'u', '?');
    expect(actions.go).not.toHaveBeenCalled();
    press(reading, 'g', 'm');
    expect(actions.go).toHaveBeenCalledWith('measure');
    reading.value = '31';
    press(reading, 'u');
    expect(actions.unit).not.toHaveBeenCalled();
  });

  test('undo and redo, but not out of a field with text in it', () => {
    const note = screen.getByLabelText<HTMLInputElement>('note');
    const undo = { key: 'z', ctrlKey: true };
    press(document.body, undo, { ...undo, shiftKey: true });
    press(note, undo);
    expect(actions.undo).toHaveBeenCalledTimes(2);
    expect(actions.redo).toHaveBeenCalledTimes(1);
    note.value = 'half a word';
    press(note, undo);
    expect(actions.undo).toHaveBeenCalledTimes(2);
  });
});
