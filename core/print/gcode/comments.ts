import type { GcodeFile, Role } from './file';

/** What slicing programs write into comments: the purpose of the next moves, and their estimates for the print. */

const ROLE = /^\s*(?:TYPE|FEATURE)\s*:\s*(.+)$/i;

/** By words that occur in it, the first match; the order matters. */
const BY_WORD: readonly (readonly [RegExp, Role])[] = [
  [/skirt|brim|raft/i, 'skirt'],
  [/support/i, 'support'],
  [/prime|purge|wipe|custom|tower/i, 'prime'],
  [/outer|external|outside/i, 'outer'],
  [/solid|skin|top|bottom|bridge|ironing/i, 'skin'],
  [/infill|fill/i, 'infill'],
  [/wall|perimeter|inner|shell|gap/i, 'inner'],
];

/** The purpose of the moves after a comment; null where it states none. */
export function roleOfComment(text: string): Role | null {
  const name = ROLE.exec(text)?.[1];
  if (!name) return null;
  return BY_WORD.find(([word]) => word.test(name))?.[1] ?? 'unknown';
}

const TIME = /\b(?:time|print time|printing time)\b[^:=]*[:=]\s*(.+)$/i;
const WEIGHT = /filament.*?(?:\[g\]|\bg\b|weight|gram)[^:=]*[:=]\s*([\d.]+)/i;
const DIAMETER = /filament.?diameter[^:=]*[:=]\s*([\d.]+)/i;

/** What a comment states about the whole print. */
export function saidIn(text: string): Partial<GcodeFile['said']> {
  const diameter = Number(DIAMETER.exec(text)?.[1]);
  if (diameter > 0) return { diameter };
  const grams = Number(WEIGHT.exec(text)?.[1]);
  if (grams > 0) return { grams };
  const minutes = minutesIn(TIME.exec(text)?.[1] ?? '');
  return minutes === null || /layer|elapsed|first/i.test(text) ? {} : { minutes };
}

/** “3723”, “1h 2m 3s”, “01:02:03”, “1 day 2 hours”. */
function minutesIn(text: string): number | null {
  const clock = /^\s*(?:(\d+):)?(\d+):(\d+)\s*$/.exec(text);
  if (clock) return 60 * Number(clock[1] ?? 0) + Number(clock[2]) + Number(clock[3]) / 60;
  if (/^\s*\d+(\.\d+)?\s*$/.test(text)) return Number(text) / 60;
  const of = (unit: string) => Number(new RegExp(`([\\d.]+)\\s*${unit}`, 'i').exec(text)?.[1] ?? 0);
  const minutes = 1440 * of('d') + 60 * of('h') + of('m') + of('s') / 60;
  return minutes > 0 ? minutes : null;
}
