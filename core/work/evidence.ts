import { group as grouped } from 'd3-array';
import { type SurfaceKind, surfaceKind } from '../fit/print-bias';
import { clearanceWindow, windowForSize } from '../fit/wants';
import type { FitMate, Part } from '../job/document';
import { counting, type History, type Print, type Rework, type TryMate, type Version } from '../job/history';
import { modelAsSliced } from '../job/history/print';
import { shiftedBy } from '../learn/hand';
import type { Elsewhere, Observation } from '../learn/likelihood';
import type { NextMate } from '../learn/next';
import type { Trial } from '../learn/posterior';
import { doubtOf } from '../learn/signed';
import { MARK_OF } from '../learn/verdict';
import { type VerdictScale, verdictScale } from '../learn/verdict-scale';
import type { Recipe } from '../shape/recipes/recipe';
import type { Made } from './choices';
import type { DimensionState } from './dimension';
import { kindOn } from './kind-on';
import type { LedgerInput } from './ledger-input';
import { outcomeOf } from './outcome';
import { clearanceOfDepth, halfAngleOf } from './wedge';

/**
 * What prints and ladders taught about a part's mates, in the form that the learning engine takes. Lengths mm,
 * clearance across the whole width.
 */

/** A mate, and everything that its next number depends on. */
export type Question = NextMate & {
  mate: FitMate;
  kind: SurfaceKind;
  around: boolean;
  state: DimensionState;
  shift: number;
  growth: number;
};

/** Verdicts carry over only between prints of one printer and material, for one kind of surface. */
export const groupOf = (
  mate: Pick<FitMate, 'side' | 'ours'>,
  recipe: Recipe,
  made: Made & Pick<Part, 'printerId' | 'materialId'>,
) => [kindOn(mate, recipe, made), made.printerId, made.materialId].join('/');

/**
 * The clearance about a reading that a want stands for. Both the number to draw and past verdicts use it. An old part's
 * size already contains its maker's clearance: it is copied, within the width of the want's window, and gets back what
 * it has worn.
 */
export function scaleAbout(
  size: number,
  source: DimensionState['source'],
  want: FitMate['want'],
  { side, soft }: Pick<FitMate, 'side' | 'soft'>,
): VerdictScale {
  const wanted = clearanceWindow(windowForSize(want, size), size, side, soft);
  if (source !== 'old-part') return verdictScale(wanted, want.window.unit);
  const half = (wanted.max - wanted.min) / 2;
  const wear = want.wear ?? 0;
  return verdictScale({ min: -wear - half, max: -wear + half }, want.window.unit);
}

/** Only a clearance has edges that a hand may call early; a strain gives way. */
export const isFelt = ({ window }: FitMate['want']): boolean => window.unit === 'mm';

export const feltScale = (scale: VerdictScale, want: FitMate['want'], early: number): VerdictScale =>
  isFelt(want) ? shiftedBy(scale, early) : scale;

/**
 * Evidence rows: the verdicts on prints that were made as the next one will be. A verdict is about the want by which it
 * was judged. Prints that were made differently tell as much about the object, and are listed by mate.
 */
export function evidenceFor(
  questions: readonly Question[],
  input: Pick<LedgerInput, 'history' | 'recipeOf' | 'printers' | 'madeWords'>,
): { trials: Trial[]; elsewhere: Map<string, Elsewhere[]> } {
  const seen = seenIn(questions, input);
  const parts = [...grouped(seen, s => s.print).values()].flatMap(of => {
    const own = of.filter(s => s.group === s.question.group);
    if (own.length === 0) return [];
    return [{ mates: Object.fromEntries(own.map(s => [s.question.id, s.observation])) }];
  });
  const elsewhere = grouped(
    seen.filter(s => s.group !== s.question.group),
    s => s.question.id,
  );
  return {
    // A ladder comes before the parts that it saves, so the last verdict on a part remains the last word.
    trials: [...rungsOf(questions, input.history), ...parts],
    elsewhere: new Map([...elsewhere].map(([id, all]) => [id, elsewhereOf(all, input)])),
  };
}

/** What one print taught about one mate. */
interface Seen {
  question: Question;
  print: Print;
  version: Version;
  /** The prints with which it shares the printer's behaviour. */
  group: string;
  kind: SurfaceKind;
  observation: Observation;
}

function seenIn(
  questions: readonly Question[],
  { history, recipeOf, printers }: Pick<LedgerInput, 'history' | 'recipeOf' | 'printers'>,
): Seen[] {
  const { versions, prints, ...judged } = counting(history);
  return prints.flatMap(print => {
    const version = versions.find(v => v.id === print.versionId)!;
    const said = outcomeOf(print, version, judged)?.said ?? {};
    return questions.flatMap((q): Seen[] => {
      const own = said[q.id];
      const drawn = version.mates.find(m => m.mateId === q.id);
      if (!own || !drawn || (!own.verdict && !own.printed)) return [];
      // Each try is judged by the edges of the hand that made it.
      const by = judged.tries.findLast(t => t.printId === print.id && t.mates[q.id]?.verdict)?.by ?? '';
      const plain = scaleAbout(q.reading.value, q.state.source, drawn.want, q.mate);
      const scale = feltScale(plain, drawn.want, printers.handShift(by));
      // Where the other side is also ours, it may have been drawn differently at the time: only the difference counts.
      const since = q.mate.other.of === 'part' ? q.reading.value - drawn.reading.value : 0;
      const worked = judged.reworks.filter(r => r.printId === print.id && r.mateId === q.id);
      const gauge = gaugeOf(own, judged);
      // The size of a gauge that was put away is no longer known.
      if (own.gauge && !gauge) return [];
      const recipe = recipeOf(version);
      const depth = wentIn(own, recipe, version, drawn.surface);
      const off = depth ?? missed(own, scale) ?? mendedBy(own, scale, worked);
      // A depth says everything that its verdict says.
      const verdict = depth ? undefined : own.verdict;
      const model = modelAsSliced(drawn.model, q.side, print) + since;
      // A part made by another recipe at the time may have had this surface under another name.
      const then = { ...q.mate, ours: { ...q.mate.ours, surface: drawn.surface } };
      return [
        {
          question: q,
          print,
          version,
          group: groupOf(then, recipe, version),
          kind: kindOn(then, recipe, version),
          observation: { model, verdict, printed: own.printed, off, scale, ...(gauge ? { gauge } : {}) },
        },
      ];
    });
  });
}

/** The verdicts on a mate from prints that were made differently: they tell as much about the object. */
function elsewhereOf(
  seen: readonly Seen[],
  { printers, madeWords }: Pick<LedgerInput, 'printers' | 'madeWords'>,
): Elsewhere[] {
  return [...grouped(seen, s => s.group).values()].map((all): Elsewhere => {
    const { question: q, version, kind } = all[0]!;
    const { mean, sd, growth } = printers.belief(version, q.side, kind, q.reading.value);
    return {
      prior: { mean, sd: Math.hypot(sd, growth, q.growth) },
      scatter: printers.scatter(version),
      seen: all.map(s => s.observation),
      words: madeWords(version),
    };
  });
}

/** The size of the gauge on which it was tried; its latest measurement counts. */
function gaugeOf({ gauge }: TryMate, { gaugeSizes }: Pick<History, 'gaugeSizes'>): Observation['gauge'] {
  const size = gaugeSizes.findLast(g => g.gaugeId === gauge);
  return size && { value: size.value, u: size.u };
}

/** How far a taper went in is a clearance too. */
function wentIn(
  { depth }: TryMate,
  recipe: Recipe,
  { parameters }: Version,
  surface: string,
): Observation['off'] {
  const halfAngle = depth ? halfAngleOf(recipe.surfaces(parameters), surface) : null;
  return depth && halfAngle !== null ? clearanceOfDepth(depth, halfAngle) : undefined;
}

/** “Tight by about a tenth” is a clearance: that far outside the window by which it was judged. */
function missed({ verdict, about }: TryMate, { min, max }: VerdictScale): Observation['off'] {
  if (!about || !verdict || verdict === 'right') return undefined;
  const value = MARK_OF[verdict] === 'tight' ? min - about.amount : max + about.amount;
  return { value, u: doubtOf(about.by, about.amount, 'mm') };
}

/**
 * Handwork that made it sit right shows how far the print was from right: by that much from somewhere in the window.
 * Several goes at one surface add up.
 */
function mendedBy(
  { verdict }: TryMate,
  { min, max }: VerdictScale,
  worked: readonly Rework[],
): Observation['off'] {
  if (!verdict || verdict === 'right' || worked.at(-1)?.after !== 'right') return undefined;
  const amounts = worked.flatMap(r => r.amount ?? []);
  if (amounts.length < worked.length) return undefined;
  const amount = amounts.reduce((sum, a) => sum + a, 0);
  const u = worked.map(r => doubtOf(r.by, r.amount ?? 0, 'mm'));
  const middle = (min + max) / 2;
  return {
    value: MARK_OF[verdict] === 'tight' ? middle - amount : middle + amount,
    u: Math.hypot((max - min) / Math.sqrt(12), ...u),
  };
}

/** Each rung that was tried counts as a print of its own; rungs lie flat. */
function rungsOf(questions: readonly Question[], history: History): Trial[] {
  const { ladders, ladderTries } = counting(history);
  return ladderTries.flatMap(said => {
    const ladder = ladders.find(l => l.id === said.ladderId)!;
    const q = questions.find(x => x.id === ladder.mateId);
    // Rungs are printed upright, whatever the part's orientation.
    const upright = q && [surfaceKind(q.side, 'round', false), ladder.printerId, ladder.materialId].join('/');
    if (!q || upright !== q.group) return [];
    const scale = scaleAbout(q.reading.value, q.state.source, ladder.want, q.mate);
    return ladder.sizes.flatMap((model, i) => {
      const verdict = said.verdicts[i];
      return verdict ? [{ mates: { [q.id]: { model, verdict, scale, rung: true } } }] : [];
    });
  });
}
