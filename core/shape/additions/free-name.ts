import type { Addition } from './addition';

/** The name of a new addition in expressions: “tab1”, “tab2”. */
export function freeName(short: string, taken: readonly Pick<Addition, 'id'>[]): string {
  for (let n = 1; ; n++) if (!taken.some(a => a.id === `${short}${n}`)) return `${short}${n}`;
}
