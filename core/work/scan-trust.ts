import type { JobDocument, Reading } from '../job/document';
import type { Scan } from '../job/scans';
import type { Trace } from '../job/traces';
import { coverageFactor } from '../measure/uncertainty';
import { evaluateDimension, type Known } from './dimension';
import { piecesRead, type ReadBothWays, stoodOff } from './scan-piece';

/**
 * The true scale of a scan or a traced photo, from sizes that were both read with calipers and found on it. Only what
 * the maker settles is stored. Lengths mm.
 */
export interface SizeCheck {
  pairs: ReadBothWays[];
  /** True size over scanned size, and its standard uncertainty; null while nothing was read both ways. */
  factor: number | null;
  u: number;
  /** A size that no single factor brings into line: the shape is off there, or one of the readings is wrong. */
  odd: { label: string; off: number } | null;
  verdict: 'nothing-read' | 'true' | 'off' | 'uneven';
  words: string;
}

/** A size that is off by more standard uncertainties than this does not follow the others. */
const ODD = 3;
/**
 * A scan has the right size where its factor is no farther from 1 than this, or than its uncertainty. Common practice,
 * no source.
 */
const AS_GOOD = 0.0015;

export const scanCheck = (scan: Scan, document: JobDocument, workshop: Known): SizeCheck =>
  sizeCheck(
    [...readBothWays(r => r.scanned?.scan === scan.id, document, workshop), ...piecesRead(scan)],
    'scan',
    stoodOff(scan),
  );

/** The same for a traced photo. */
export const traceCheck = (trace: Trace, document: JobDocument, workshop: Known): SizeCheck =>
  sizeCheck(
    readBothWays(r => r.traced?.trace === trace.id, document, workshop),
    'photo',
  );

function readBothWays(
  isOwn: (reading: Reading) => boolean,
  document: JobDocument,
  workshop: Known,
): ReadBothWays[] {
  return document.dimensions.flatMap((d): ReadBothWays[] => {
    if (d.kind === 'angle') return [];
    const own = d.readings.filter(r => isOwn(r) && r.struck === null);
    const hand = evaluateDimension(
      { ...d, readings: d.readings.filter(r => r.source === 'seat') },
      workshop,
    ).evaluation;
    if (own.length === 0 || !hand) return [];
    const scanned = own.reduce((sum, r) => sum + r.value, 0) / own.length;
    const uOwn = Math.max(...own.map(r => r.u ?? 0));
    return [
      { key: d.id, label: d.label, scanned, read: hand.value, u: Math.hypot(hand.standardUncertainty, uOwn) },
    ];
  });
}

function sizeCheck(pairs: ReadBothWays[], what: 'scan' | 'photo', more = ''): SizeCheck {
  if (pairs.length === 0)
    return {
      pairs,
      factor: null,
      u: 0,
      odd: null,
      verdict: 'nothing-read',
      words: `Read one large size of the object with calipers that is found on the ${what} too, better two or three: only that tells whether the ${what} is as large as the object.`,
    };
  const weights = pairs.map(p => (p.scanned / p.u) ** 2);
  const whole = weights.reduce((sum, w) => sum + w, 0);
  const factor = pairs.reduce((sum, p, i) => sum + (p.read / p.scanned) * weights[i]!, 0) / whole;
  const offs = pairs.map(p => ({ label: p.label, off: p.read - factor * p.scanned, sd: p.u }));
  // Sizes that scatter more than their uncertainties explain widen the uncertainty of the factor.
  const chi = offs.reduce((sum, o) => sum + (o.off / o.sd) ** 2, 0) / Math.max(1, pairs.length - 1);
  const u = Math.sqrt(Math.max(1, chi) / whole);
  const worst = [...offs].sort((a, b) => Math.abs(b.off / b.sd) - Math.abs(a.off / a.sd))[0]!;
  const odd = pairs.length > 1 && Math.abs(worst.off) > ODD * worst.sd ? worst : null;
  const share = `${factor > 1 ? 'small' : 'large'} by ${(100 * Math.abs(factor - 1)).toFixed(2)} %`;
  if (odd)
    return {
      pairs,
      factor,
      u,
      odd,
      verdict: 'uneven',
      words: `${odd.label} is ${Math.abs(odd.off).toFixed(2)} mm ${odd.off > 0 ? 'larger' : 'smaller'} than the other sizes suggest: no single factor corrects that. Read it once more; if it stays, the ${what} is ${what === 'scan' ? 'warped' : 'off'} there.${more}`,
    };
  const isTrue = Math.abs(factor - 1) < Math.max(AS_GOOD, coverageFactor(0.95, Infinity) * u);
  return {
    pairs,
    factor,
    u,
    odd: null,
    verdict: isTrue ? 'true' : 'off',
    words: isTrue
      ? `As large as the object, as far as ${pairs.length === 1 ? 'one size tells' : `${pairs.length} sizes tell`}: ± ${(200 * u).toFixed(2)} %.`
      : `Too ${share}, ± ${(200 * u).toFixed(2)} %: correct its size before anything is built on it.`,
  };
}

/** A short text for how a scan is prepared now: what was made from it is compared by this. */
export const preparedAs = ({ unit, steps, trust }: Pick<Scan, 'unit' | 'steps' | 'trust'>): string =>
  [unit, ...steps.map(s => s.id), trust?.factor ?? ''].join(' ').slice(0, 2000);
