import { useEffect, useRef } from 'react';
import { tinykeys } from 'tinykeys';
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
/** The letter must follow `g` within this time, ms. */
const SECOND_KEY = 1500;

interface Actions {
  go(stage: Stage): void;
  undo(): void;
  redo(): void;
  keys(): void;
  unit(): void;
}

/** Whether a key belongs to the focused element. */
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
    // Letters typed into a field belong to the field; the reading field takes numbers only, so its letters are the
    // page's.
    const plain = (run: () => void) => (event: KeyboardEvent) => {
      const field = event.target as HTMLInputElement | null;
      const inReading = field?.dataset?.reading !== undefined;
      if (isTyping(event.target) && !(inReading && field?.value === '')) return;
      event.preventDefault();
      run();
    };
    const revert = (run: () => void) => (event: KeyboardEvent) => {
      if (isTextual(event.target)) return;
      event.preventDefault();
      run();
    };
    const stages = Object.entries(STAGE_LETTERS) as [Stage, string][];
    return tinykeys(
      window,
      {
        '$mod+z': revert(() => latest.current.undo()),
        '$mod+Shift+z': revert(() => latest.current.redo()),
        // Handled here too, so that the letter after it does nothing else.
        g: plain(() => {}),
        ...Object.fromEntries(
          stages.map(([stage, letter]) => [`g ${letter}`, plain(() => latest.current.go(stage))]),
        ),
        u: plain(() => latest.current.unit()),
        // With Shift on most keyboards, without it on some.
        '?': plain(() => latest.current.keys()),
        'Shift+?': plain(() => latest.current.keys()),
      },
      { timeout: SECOND_KEY },
    );
  }, []);
}

/** In a field with text, undo belongs to the field. */
const isTextual = (target: EventTarget | null) => {
  const field = target as HTMLInputElement | null;
  return isTyping(target) && Boolean(field?.value);
};
