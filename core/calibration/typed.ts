import type { SizeKind } from './size-kind';

/** A size of the maker's own test piece: as drawn and as read, mm. */
export interface TypedRow {
  kind: SizeKind;
  drawn: number;
  printed: number;
}

const WORDS: Record<string, SizeKind> = {
  hole: 'hole',
  bore: 'hole',
  inside: 'hole',
  slot: 'slot',
  peg: 'peg',
  pin: 'peg',
  outside: 'peg',
  rib: 'rib',
  wall: 'rib',
  height: 'height',
  step: 'height',
};

/**
 * One line each: “hole 20 19.72” and “peg 20 20.05”, drawn size, then printed. Empty lines are ignored.
 * @returns the rows, and what is wrong with a line, by its number from 1
 */
export function readTyped(text: string): {
  rows: TypedRow[];
  problems: { line: number; message: string }[];
} {
  const rows: TypedRow[] = [];
  const problems: { line: number; message: string }[] = [];
  text.split('\n').forEach((line, i) => {
    const words = line
      .trim()
      .toLowerCase()
      .split(/[\s;]+/)
      .filter(Boolean);
    if (words.length === 0) return;
    const say = (message: string) => problems.push({ line: i + 1, message });
    const kind = WORDS[words[0]!];
    const [drawn, printed] = words.slice(1, 3).map(w => Number(w.replace(',', '.')));
    if (!kind) say(`begin with hole, slot, peg, rib or height, got “${words[0]!.slice(0, 20)}”.`);
    else if (words.length !== 3 || !Number.isFinite(drawn!) || !Number.isFinite(printed!))
      say('two numbers follow: drawn, then printed, in mm.');
    else if (!(drawn! > 0 && drawn! <= 1000 && printed! > 0)) say('sizes are above 0 and at most 1000 mm.');
    else if (!isLikely(drawn!, printed!))
      say(`${printed} for ${drawn} is more than a printer’s error: a slip of the unit or the line?`);
    else rows.push({ kind, drawn: drawn!, printed: printed! });
  });
  return { rows, problems };
}

/** A print that is off by more than this was not read right: 2 mm, or a tenth of a large one. Practice. */
export const isLikely = (drawn: number, printed: number): boolean =>
  Math.abs(printed - drawn) <= Math.max(Math.min(2, drawn / 2), 0.1 * drawn);

export const writeTyped = (rows: readonly TypedRow[]): string =>
  rows.map(r => `${r.kind} ${r.drawn} ${r.printed}`).join('\n');
