import { useEffect, useState } from 'react';

/** WebGL and charts cannot read a CSS variable: a number that changes with the colours, so that they are read again. */
export function useThemeChange(): number {
  const [changes, setChanges] = useState(0);
  useEffect(() => {
    const look = () => setChanges(n => n + 1);
    const watch = new MutationObserver(look);
    watch.observe(document.documentElement, { attributes: true, attributeFilter: ['data-theme'] });
    const system = matchMedia('(prefers-color-scheme: dark)');
    system.addEventListener('change', look);
    return () => {
      watch.disconnect();
      system.removeEventListener('change', look);
    };
  }, []);
  return changes;
}

/** The current value of a named colour. */
export const colourNow = (name: string): string =>
  getComputedStyle(document.documentElement).getPropertyValue(`--${name}`).trim();
