import { useEffect, useRef } from 'react';
import type { Stage } from '../../core/work/stages';

export const STAGE_LETTERS: Record<Stage, string> = {
  brief: 'b',
  measure: 'm',
  fit: 'f',
  shape: 's',
  print: 'p',
  try: 't',
  keep: 'k',
};
/** The letter must follow `g` within this, ms. */
const SECOND_KEY = 1500;

interface Actions {
  go(stage: Stage): void;
  undo(): void;
  redo(): void;
  keys(): void;
  unit(): void;
}

/** Whether a key belongs to what has the focus. */
export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement | null;
  return Boolean(
    element?.closest(
      'input:not([type="checkbox"], [type="radio"]), textarea, select, [contenteditable], [role="listbox"], [role="dialog"], [role="menu"]',
    ),
  );
}

/** Keys that work anywhere on a job: `g` and a stage's letter, `u`, `?`, and undo and redo. */
export function useJobKeys(actions: Actions): void {
  const latest = useRef(actions);
  latest.current = actions;
  useEffect(() => {
    let goUntil = 0;
    const onKey = (event: KeyboardEvent) => {
      const { go, undo, redo, keys, unit } = latest.current;
      const key = event.key.toLowerCase();
      if ((event.ctrlKey || event.metaKey) && key === 'z' && !isTextual(event.target)) {
        event.preventDefault();
        if (event.shiftKey) redo();
        else undo();
        return;
      }
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      // The reading field takes numbers only: letters typed into it are meant for the page.
      const inReading = (event.target as HTMLElement | null)?.dataset?.reading !== undefined;
      if (isTyping(event.target) && !(inReading && (event.target as HTMLInputElement).value === '')) return;
      if (performance.now() < goUntil) {
        const stage = (Object.keys(STAGE_LETTERS) as Stage[]).find(s => STAGE_LETTERS[s] === key);
        goUntil = 0;
        if (stage) {
          event.preventDefault();
          go(stage);
          return;
        }
      }
      if (key === 'g') goUntil = performance.now() + SECOND_KEY;
      else if (key === 'u') unit();
      else if (event.key === '?') keys();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
}

/** In a field with text in it, undo is the field's own. */
const isTextual = (target: EventTarget | null) => {
  const field = target as HTMLInputElement | null;
  return isTyping(target) && Boolean(field?.value);
};
