import { BOTTLE } from './bottle';
import { ASSOCIATION, UNIFIED, WHITWORTH } from './inch';
import { METRIC, TRAPEZOIDAL } from './metric';
import { HOSE, PARALLEL_PIPE, TAPER_PIPE } from './pipe';
import type { Thread } from './thread';

/** Every thread the shelf knows; where two are equally likely the earlier is named first. */
export const THREADS: readonly Thread[] = [
  ...METRIC,
  ...UNIFIED,
  ...PARALLEL_PIPE,
  ...TAPER_PIPE,
  ...HOSE,
  ...TRAPEZOIDAL,
  ...WHITWORTH,
  ...ASSOCIATION,
  ...BOTTLE,
];

const plain = (designation: string) =>
  designation
    .toLowerCase()
    .replace(/[×*]/g, 'x')
    .replace(/¼/g, '1/4')
    .replace(/½/g, '1/2')
    .replace(/¾/g, '3/4')
    .replace(/,/g, '.')
    .replace(/\s*x\s*/g, 'x')
    .replace(/^no\.?\s*/, '#')
    .replace(/[\s"”-]+/g, '');

const BY_NAME = new Map(THREADS.map(t => [plain(t.designation), t]));

/** A thread by its designation, spelled as people spell it: "M10", "m10 x 1.25", "g1/4", "1/4-20 UNC", "Rc 1/4". */
export function threadNamed(designation: string): Thread | undefined {
  const name = plain(designation);
  return (
    BY_NAME.get(name) ??
    // The coarse pitch may be said: M10x1.5 is M10.
    THREADS.find(t => t.family === 'metric-coarse' && plain(`${t.designation}x${t.pitch}`) === name) ??
    BY_NAME.get(name.replace(/^(rc|rp|bspt)/, 'r')) ??
    BY_NAME.get(name.replace(/^bspp?/, 'g')) ??
    // “1/4-20” can only be a unified one: the coarse series first.
    ['unc', 'unf', 'unef'].map(series => BY_NAME.get(name + series)).find(Boolean)
  );
}
