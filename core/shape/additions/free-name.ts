import type { Addition } from './addition';

/** What expressions call a new addition: “tab1”, “tab2”. */
export function freeName(short: string, taken: readonly Pick<Addition, 'id'>[]): string {
  for (let n = 1; ; n++) if (!taken.some(a => a.id === `${short}${n}`)) return `${short}${n}`;
}
