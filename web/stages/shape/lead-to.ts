import { useEffect } from 'react';
import type { Finding } from '../../../core/shape/findings/finding';

/** What to change about it: the name of a parameter, or the id of a load, a neighbour or an addition. */
export const leadsTo = (f: Finding): string | undefined =>
  f.parameter ?? f.remedy?.parameter ?? f.load ?? f.neighbour ?? f.addition;

/** Whoever comes to Shape for one thing finds it in sight, opened and ready to type in. */
export function useLeadTo(what: string | null) {
  // biome-ignore lint/correctness/useExhaustiveDependencies: on arrival only; what is selected later is in sight already
  useEffect(() => {
    const found = what && document.querySelector(`[data-about="${CSS.escape(what)}"]`);
    const shown = found && (found.firstElementChild as HTMLElement | null);
    if (!shown) return;
    for (let up = found.closest('details'); up; up = up.parentElement?.closest('details') ?? null)
      up.open = true;
    shown.scrollIntoView({ block: 'center' });
    const field = shown.matches('input, button') ? shown : shown.querySelector<HTMLElement>('input, button');
    field?.focus({ preventScroll: true });
  }, []);
}
