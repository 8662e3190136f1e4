import { phi } from '../fit/probability';
import { VERDICTS, type Verdict } from './verdict';

/** Hands do not feel an edge sharply: blur, sd, mm. Common practice, no source. */
const FEEL_BLUR = 0.02;
/** The share of verdicts that are slips of the tongue or of the thumb. Common practice, no source. */
const SLIPS = 0.03;
/** Beyond the window by this much, mm, tight turns into "won't go" and loose into "drops off". Practice. */
const MM_BEYOND = 0.25;
/** The same for a strain window, in window widths: 0.25 over the usual width of 0.20. Practice. */
const WIDTHS_BEYOND = 1.25;

/** A want in clearance, mm, with how far beyond it the outer verdicts begin. */
export interface VerdictScale {
  min: number;
  max: number;
  beyond: number;
}

export function verdictScale(window: { min: number; max: number }, unit: 'mm' | 'strain'): VerdictScale {
  return { ...window, beyond: unit === 'mm' ? MM_BEYOND : WIDTHS_BEYOND * (window.max - window.min) };
}

/** The four clearances at which one verdict changes into the next, rising. */
const edgesOf = ({ min, max, beyond }: VerdictScale) => [min - beyond, min, max, max + beyond] as const;

/** The verdict on a clearance without any blur or slip. */
export function verdictFor(clearance: number, scale: VerdictScale): Verdict {
  const above = edgesOf(scale).filter(edge => clearance >= edge).length;
  return VERDICTS[above]!;
}

/**
 * Chance of a verdict on a print whose clearance is normal about `mean` with `sd`, both mm.
 */
export function chanceOfVerdict(verdict: Verdict, mean: number, sd: number, scale: VerdictScale): number {
  const spread = Math.hypot(sd, FEEL_BLUR);
  const edges = edgesOf(scale);
  const index = VERDICTS.indexOf(verdict);
  const upTo = index === 4 ? 1 : phi((edges[index]! - mean) / spread);
  const below = index === 0 ? 0 : phi((edges[index - 1]! - mean) / spread);
  return (1 - SLIPS) * Math.max(0, upTo - below) + SLIPS / VERDICTS.length;
}
