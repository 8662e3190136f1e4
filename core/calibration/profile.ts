import { believeLine, type LineBelief, type LinePrior } from './line';
import { type Direction, FEATURES, type Feature, PLATE } from './piece';
import type { SizeKind } from './size-kind';

/**
 * What a printer does to sizes in one plastic with one nozzle and one set of settings, from what was drawn
 * and what was read. Lengths mm.
 */
export interface SizeRow {
  kind: SizeKind;
  drawn: number;
  printed: number;
  /** Standard uncertainty of `printed`. */
  u: number;
  direction: Direction | null;
  label: string;
}

/**
 * Before a piece is read: sizes may be off by a third of a millimetre in either direction, a printer's scale by 0.3 %,
 * and a size scatters about the line by 0.04, known as well as from six readings. Practice, no source.
 */
export const LINE_PRIOR: LinePrior = {
  offset: { mean: 0, sd: 0.3 },
  scale: { mean: 1, sd: 0.003 },
  scatter: { sd: 0.04, worth: 6 },
};

export interface Response extends LineBelief {
  kind: SizeKind;
  rows: readonly SizeRow[];
}

/** The line of one kind; null without a row. */
export function responseOf(kind: SizeKind, rows: readonly SizeRow[]): Response | null {
  const own = rows.filter(r => r.kind === kind);
  if (own.length === 0) return null;
  const points = own.map(r => ({ x: r.drawn, y: r.printed, u: r.u }));
  return { ...believeLine(points, LINE_PRIOR), kind, rows: own };
}

/** The printed size for a drawn one, with the uncertainty of the line there. */
export function printedAt(response: Pick<Response, 'offset' | 'scale' | 'covariance'>, drawn: number) {
  const { offset, scale, covariance } = response;
  return {
    mean: scale.mean * drawn + offset.mean,
    sd: Math.sqrt(Math.max(0, offset.sd ** 2 + (scale.sd * drawn) ** 2 + 2 * drawn * covariance)),
  };
}

/** How the readings of one feature are evaluated: their mean and its standard uncertainty. */
export type JudgeReadings = (readings: readonly number[], feature: Feature) => { value: number; u: number };

/** The piece's readings by feature id, as rows; foot and diagonals are not sizes of a kind. */
export function rowsOfPiece(
  readings: Readonly<Record<string, readonly number[]>>,
  judge: JudgeReadings,
): SizeRow[] {
  return FEATURES.flatMap(f => {
    const own = readings[f.id];
    if (!own?.length || f.kind === 'foot' || f.kind === 'diagonal') return [];
    const { value, u } = judge(own, f);
    return [{ kind: f.kind, drawn: f.size, printed: value, u, direction: f.direction, label: f.label }];
  });
}

export interface WithDoubt {
  value: number;
  u: number;
}

/** What else the piece shows; null where the readings for it are missing. */
export interface Geometry {
  /** How much longer left to right prints than front to back, as a ratio. */
  stretch: WithDoubt | null;
  /** How far the corner at the front left is from square, degrees; positive: more than 90. */
  outOfSquare: WithDoubt | null;
  /** How far the first layer bulges out, per side, mm. */
  bulge: WithDoubt | null;
}

/** An effect beyond twice its uncertainty is real. */
export const isSeen = ({ value, u }: WithDoubt): boolean => Math.abs(value) > 2 * u;

export function geometryOf(
  readings: Readonly<Record<string, readonly number[]>>,
  judge: JudgeReadings,
): Geometry {
  const read = (id: string): WithDoubt | null => {
    const feature = FEATURES.find(f => f.id === id)!;
    const own = readings[id];
    if (!own?.length) return null;
    const { value, u } = judge(own, feature);
    // Sizes differ from each other by the printer's scatter.
    return { value: value - feature.size, u: Math.hypot(u, LINE_PRIOR.scatter.sd / 2) };
  };
  return { stretch: stretchOf(readings, judge), outOfSquare: squareness(read), bulge: bulgeOf(read) };
}

/** From all outsides in each direction; they share one offset, so the long deck decides. */
function stretchOf(readings: Readonly<Record<string, readonly number[]>>, judge: JudgeReadings) {
  const rows = rowsOfPiece(readings, judge).filter(r => r.kind === 'rib');
  const line = (direction: Direction) => {
    const own = rows.filter(r => r.direction === direction);
    // Only a long size can tell a scale from an offset.
    if (own.length < 2 || Math.max(...own.map(r => r.drawn)) < 40) return null;
    return believeLine(
      own.map(r => ({ x: r.drawn, y: r.printed, u: r.u })),
      { ...LINE_PRIOR, scale: { mean: 1, sd: 0.01 } },
    ).scale;
  };
  const [across, along] = [line('left-right'), line('front-back')];
  if (!across || !along) return null;
  return { value: across.mean - along.mean, u: Math.hypot(across.sd, along.sd) };
}

/**
 * A plate out of square by γ has its diagonals longer and shorter by d·γ·sin φ·cos φ, φ the diagonal's
 * direction (plane geometry; 0.48 for a 3-4-5 plate): γ = (d₁ − d₂)/(2·d·0.48). The front left corner is
 * then sharper than a right angle where its own diagonal is the longer one.
 */
function squareness(read: (id: string) => WithDoubt | null): WithDoubt | null {
  const [first, second] = [read('diagonal-1'), read('diagonal-2')];
  if (!first || !second) return null;
  const { width, depth, diagonal } = PLATE;
  const share = (width * depth) / (width ** 2 + depth ** 2);
  const perRadian = 2 * diagonal * share;
  const degrees = 180 / Math.PI;
  return {
    value: ((second.value - first.value) / perRadian) * degrees,
    u: (Math.hypot(first.u, second.u) / perRadian) * degrees,
  };
}

/** The foot's excess over the deck, half of it per side; from both directions where both were read. */
function bulgeOf(read: (id: string) => WithDoubt | null): WithDoubt | null {
  const sides = (['left-right', 'front-back'] as const).flatMap(direction => {
    const [foot, deck] = [read(`foot-${direction}`), read(`deck-${direction}`)];
    return foot && deck ? [{ value: (foot.value - deck.value) / 2, u: Math.hypot(foot.u, deck.u) / 2 }] : [];
  });
  if (sides.length === 0) return null;
  return {
    value: sides.reduce((sum, s) => sum + s.value, 0) / sides.length,
    u: Math.hypot(...sides.map(s => s.u)) / sides.length,
  };
}

/**
 * Share of the scatter's variance that is common to a whole print; the rest is from place to place. Common practice, no
 * source.
 */
const COMMON = 0.5;

/** How far whole pieces differ from each other, sd, mm: a single piece cannot show it. */
export const betweenPieces = (scatter: number): number => Math.sqrt(COMMON) * scatter;

/**
 * How far the next print of a size will differ, sd, mm: the scatter about the lines, pooled over all kinds and with the
 * prior belief, plus what a single piece cannot show.
 * @param prior believed print-to-print sd, mm
 */
export function scatterOf(rows: readonly SizeRow[], prior: number): number {
  const { worth } = LINE_PRIOR.scatter;
  let [sum, free] = [worth * (1 - COMMON) * prior ** 2, worth];
  for (const kind of new Set(rows.map(r => r.kind))) {
    const response = responseOf(kind, rows)!;
    const spare = response.rows.length - 2;
    if (spare <= 0) continue;
    for (const r of response.rows) sum += (r.printed - printedAt(response, r.drawn).mean) ** 2 - r.u ** 2;
    free += spare;
  }
  return Math.hypot(Math.sqrt(Math.max(0, sum / free)), betweenPieces(prior));
}
