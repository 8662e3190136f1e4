import { group } from 'd3-array';
import { z } from 'zod';
import { type Moment, minutesByStage } from './hours';

/** What the workshop made, month by month: prints, hours and money, and the price of the parts if bought. */

const Amount = z.number().min(0);
export const Month = z.object({
  /** As “2026-11”, in UTC. */
  month: z.string().regex(/^\d{4}-\d{2}$/),
  /** Pieces that came out, and prints that failed. */
  pieces: Amount,
  failed: Amount,
  /** Hours of the printers, with those of failed prints. */
  printHours: Amount,
  grams: Amount,
  cost: Amount,
  /** Hours of the makers. */
  ownHours: Amount,
  /** Jobs that went into service, and the price of buying their parts, where it is known. */
  jobs: Amount,
  bought: Amount,
});
export type Month = z.infer<typeof Month>;

export interface PrintOfMonth {
  at: string;
  pieces: number;
  failed: boolean;
  hours: number | null;
  grams: number | null;
  cost: number | null;
}

export interface InService {
  since: string;
  /** For all pieces that are wanted; null where not stated. */
  price: number | null;
}

export interface Made {
  prints: readonly PrintOfMonth[];
  /** For each job: what was done and when, or the total where its maker typed it. */
  work: Iterable<{ moments: readonly Moment[]; typedHours: number | null }>;
  inService: readonly InService[];
}

const monthOf = (at: string): string => at.slice(0, 7);

/** This many months up to the current one, the oldest first, as “2026-11”. @param now ISO time */
export function monthNames(now: string, count: number): string[] {
  const [year, month] = monthOf(now).split('-').map(Number) as [number, number];
  return Array.from({ length: count }, (_, i) =>
    monthOf(new Date(Date.UTC(year, month - count + i, 1)).toISOString()),
  );
}

/** What falls into each of these months, including empty months. */
export function monthsOf({ prints, work, inService }: Made, names: readonly string[]): Month[] {
  const months = new Map<string, Month>();
  for (const name of names)
    months.set(name, {
      month: name,
      pieces: 0,
      failed: 0,
      printHours: 0,
      grams: 0,
      cost: 0,
      ownHours: 0,
      jobs: 0,
      bought: 0,
    });
  for (const print of prints) {
    const into = months.get(monthOf(print.at));
    if (!into) continue;
    if (print.failed) into.failed++;
    else into.pieces += print.pieces;
    into.printHours += print.hours ?? 0;
    into.grams += print.grams ?? 0;
    into.cost += print.cost ?? 0;
  }
  for (const { moments, typedHours } of work) {
    const hours = new Map<string, number>();
    for (const [name, within] of group(moments, m => monthOf(m.at)))
      hours.set(name, Object.values(minutesByStage(within)).reduce((sum, m) => sum + m, 0) / 60);
    // A typed total is spread over the months like the recorded work.
    const all = [...hours.values()].reduce((sum, h) => sum + h, 0);
    const times = typedHours === null || all === 0 ? 1 : typedHours / all;
    for (const [name, own] of hours) {
      const into = months.get(name);
      if (into) into.ownHours += times * own;
    }
  }
  for (const { since, price } of inService) {
    const into = months.get(monthOf(since));
    if (!into) continue;
    into.jobs++;
    into.bought += price ?? 0;
  }
  return [...months.values()];
}

/** The power of a filament printer while it prints, kW. Common practice, no source. */
const DRAWS = 0.12;

/** kWh */
export const energyOf = (printHours: number): number => DRAWS * printHours;

/** How many jobs sat right with the first print, the second, and so on. @param a list of marks for each job */
export function printsUntilRight(jobs: readonly (readonly (string | null)[])[]): number[] {
  const counts: number[] = [];
  for (const marks of jobs) {
    const first = marks.indexOf('right');
    if (first < 0) continue;
    while (counts.length <= first) counts.push(0);
    counts[first]!++;
  }
  return counts;
}
