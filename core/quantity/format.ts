import { factorOf } from './units';

export type DisplayUnit = 'mm' | 'in';

/** Readings and model numbers: two decimals in mm, four in inches, with a true minus sign. */
export function formatLength(valueMm: number, unit: DisplayUnit = 'mm', decimals?: number): string {
  const shown = valueMm / factorOf(unit);
  return plainMinus(shown.toFixed(decimals ?? (unit === 'mm' ? 2 : 4)));
}

/** A step of the ledger, always with its sign. */
export function formatSigned(valueMm: number, unit: DisplayUnit = 'mm', decimals?: number): string {
  const text = formatLength(Math.abs(valueMm), unit, decimals);
  if (Number(text) === 0) return `±${text}`;
  return `${valueMm < 0 ? '−' : '+'}${text}`;
}

/** A number without trailing zeros, at most `decimals` of them: for parameters and sentences. */
export function formatPlain(value: number, decimals = 2): string {
  return plainMinus(String(Number(value.toFixed(decimals))));
}

/** "78 %"; never 0 or 100 unless exact, since nothing here is certain. */
export function formatPercent(ratio: number): string {
  if (ratio > 0 && ratio < 0.01) return 'under 1 %';
  if (ratio < 1 && ratio > 0.99) return 'over 99 %';
  return `${Math.round(ratio * 100)} %`;
}

/** Decimals that a reading's resolution supports: 0.01 gives 2, 0.05 gives 2, 0.5 gives 1. */
export function decimalsOf(resolution: number): number {
  for (let decimals = 0; decimals < 6; decimals++) {
    const scaled = resolution * 10 ** decimals;
    if (Math.abs(scaled - Math.round(scaled)) < 1e-9) return decimals;
  }
  return 6;
}

const plainMinus = (text: string) => (Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−'));

/** Words with a capital, to begin a sentence. */
export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1);

/** “41 min”, “3 h 20 min”, “26 h”. */
export function formatHours(hours: number): string {
  const minutes = Math.max(1, Math.round(60 * hours));
  if (minutes < 90) return `${minutes} min`;
  if (hours >= 24) return `${Math.round(hours)} h`;
  const tens = Math.round(minutes / 5) * 5;
  return tens % 60 === 0 ? `${tens / 60} h` : `${Math.floor(tens / 60)} h ${tens % 60} min`;
}

/** “35–48 min”, “2.5–4 h”; in minutes where the middle value is given in them. */
export function formatHoursBetween(from: number, to: number): string {
  if (Math.sqrt(from * to) < 1.5) return `${Math.max(1, Math.round(60 * from))}–${Math.round(60 * to)} min`;
  const half = (h: number) => String(Math.max(0.5, Math.round(2 * h) / 2));
  return `${half(from)}–${half(to)} h`;
}
