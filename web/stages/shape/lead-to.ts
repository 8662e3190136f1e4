import { useEffect } from 'react';
import { useLocation } from 'react-router';
import type { Finding } from '../../../core/shape/findings/finding';

/** What to change: the name of a parameter, or the id of a load, a neighbour or an addition. */
export const leadsTo = (f: Finding): string | undefined =>
  f.parameter ?? f.remedy?.parameter ?? f.load ?? f.neighbour ?? f.addition;

/**
 * What the maker came to Shape for, by a button that leads there; null for a plain visit. A mere selection does not
 * count: the keyboard's next shortcut would be typed into its number.
 */
export function useLead(): string | null {
  const { state } = useLocation();
  return (state as { leadTo?: string } | null)?.leadTo ?? null;
}

/** The thing that the maker came for is scrolled into view, opened and ready for typing. */
export function leadTo(what: string): void {
  const found = document.querySelector(`[data-about="${CSS.escape(what)}"]`);
  const shown = found?.firstElementChild as HTMLElement | null | undefined;
  if (!found || !shown) return;
  for (let up = found.closest('details'); up; up = up.parentElement?.closest('details') ?? null)
    up.open = true;
  shown.scrollIntoView({ block: 'center' });
  const field = shown.matches('input, button') ? shown : shown.querySelector<HTMLElement>('input, button');
  field?.focus({ preventScroll: true });
}

export function useLeadTo(what: string | null) {
  // Once, on arrival: typing afterwards does not scroll.
  useEffect(() => {
    if (what) leadTo(what);
  }, [what]);
}
