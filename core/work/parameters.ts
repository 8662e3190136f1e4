import {
  type FitMate,
  fitsOf,
  isSigned,
  type JobDocument,
  type Part,
  type SignedMate,
} from '../job/document';
import { dimensionOf } from '../job/parts';
import { type Expression, evaluateExpression } from '../quantity/expression';
import { ownUnit } from '../quantity/units';
import { PlaceError, resolvedPlace } from '../shape/additions/place';
import { modelReference } from '../shape/model';
import { holesOfText, OutlineTextError, outlineOfText, resolvedText } from '../shape/outline-text';
import { isShown } from '../shape/own-mates';
import { type ParameterSpec, type Parameters, unitOf, usualText } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';
import type { DimensionState } from './dimension';
import type { LedgerState } from './ledger';

/** The part's fits that exist with the current choices. */
export function activeMates(
  document: JobDocument,
  part: Part,
  recipe: Recipe,
  choices: Parameters,
): FitMate[] {
  return fitsOf(document).filter(
    mate => mate.ours.part === part.id && recipe.mates.find(m => m.id === mate.ours.surface)?.active(choices),
  );
}

/** The part's lengths, positions, angles and edges that must be right and exist with the current choices. */
export const activeSigned = (
  document: JobDocument,
  part: Part,
  recipe: Recipe,
  choices: Parameters,
): SignedMate[] =>
  document.mates.filter(
    (mate): mate is SignedMate =>
      isSigned(mate) && mate.ours.part === part.id && isShown(recipe, mate.number, choices),
  );

/** One pass over the graph of names: dimensions and ledger are given; parameters may refer to each other. */
export class ParameterPass {
  private readonly parameters: Record<string, number | string | boolean>;
  private readonly expressions: Record<string, Expression> = {};
  private readonly provisional = new Set<string>();
  private readonly problems: Record<string, string> = {};
  private readonly open: string[] = [];

  constructor(
    private readonly document: JobDocument,
    private readonly part: Part,
    private readonly recipe: Recipe,
    choices: Parameters,
    private readonly dimensions: ReadonlyMap<string, DimensionState>,
    private readonly ledger: LedgerState,
  ) {
    this.parameters = { ...choices };
  }

  run() {
    for (const spec of this.recipe.parameters) {
      if (spec.kind === 'length') this.length(spec);
      else if (spec.kind === 'outline' || spec.kind === 'holes' || spec.kind === 'place') this.written(spec);
      else if (spec.kind === 'words' || spec.kind === 'surface') this.plain(spec);
      else if (spec.kind === 'model') this.model(spec);
      else this.expressions[spec.name] = { text: wordOf(this.parameters[spec.name]!), unit: 'none' };
    }
    const { parameters, expressions, provisional, problems } = this;
    return { parameters, expressions, provisional, problems };
  }

  private length(spec: Extract<ParameterSpec, { kind: 'length' }>): number {
    const known = this.parameters[spec.name];
    if (typeof known === 'number') return known;
    const own: Expression = this.part.parameters[spec.name] ?? {
      text: usualText(spec, this.parameters),
      unit: ownUnit(spec.measure ?? 'length'),
    };
    this.expressions[spec.name] = own;
    this.open.push(spec.name);
    const before = this.provisional.size;
    let provisional = false;
    const outcome = evaluateExpression(own, spec.measure ?? 'length', name => {
      const found = this.look(name);
      if (found?.provisional) provisional = true;
      return found?.value;
    });
    this.open.pop();
    let value = outcome.ok ? outcome.value : Number.NaN;
    const shown = spec.shown?.(this.parameters) ?? true;
    if (!outcome.ok) this.problems[spec.name] = outcome.message;
    else if (shown && value < spec.min)
      this.problems[spec.name] = `${spec.label} must be at least ${spec.min}${unitOf(spec)}.`;
    else if (shown && value > spec.max)
      this.problems[spec.name] = `${spec.label} must be at most ${spec.max}${unitOf(spec)}.`;
    else if (shown && spec.measure === 'count' && !Number.isInteger(value))
      this.problems[spec.name] = `${spec.label} must be a whole number.`;
    if (this.problems[spec.name] || !Number.isFinite(value))
      value = this.recipe.demo.parameters[spec.name] as number;
    if (provisional || this.provisional.size > before) this.provisional.add(spec.name);
    // A hidden parameter has no effect, and neither have its problems.
    if (!shown) {
      delete this.problems[spec.name];
      this.provisional.delete(spec.name);
    }
    this.parameters[spec.name] = value;
    return value;
  }

  /** Used as typed. */
  private plain(spec: Extract<ParameterSpec, { kind: 'words' | 'surface' }>): void {
    const own: Expression = this.part.parameters[spec.name] ?? { text: spec.default, unit: 'none' };
    this.expressions[spec.name] = own;
    const long = spec.kind === 'words' && own.text.length > spec.most;
    if (long) this.problems[spec.name] = `${spec.label}: at most ${spec.most} letters.`;
    this.parameters[spec.name] = long ? own.text.slice(0, spec.most) : own.text;
  }

  /** A body of the job by its id; the solid refers to it by its reference. */
  private model(spec: Extract<ParameterSpec, { kind: 'model' }>): void {
    const own: Expression = this.part.parameters[spec.name] ?? { text: spec.default, unit: 'none' };
    this.expressions[spec.name] = own;
    // Until one is chosen, the recipe's example stands in.
    this.parameters[spec.name] =
      own.text === spec.default ? spec.default : referenceOf(this.document, own.text);
  }

  /** Corners, holes or a place: each of its numbers is an expression of its own. */
  private written(spec: Extract<ParameterSpec, { kind: 'outline' | 'holes' | 'place' }>): void {
    const own: Expression = this.part.parameters[spec.name] ?? { text: spec.default, unit: 'mm' };
    this.expressions[spec.name] = own;
    this.open.push(spec.name);
    let provisional = false;
    const value = (text: string): number => {
      const outcome = evaluateExpression({ text, unit: own.unit }, 'length', name => {
        const found = this.look(name);
        if (found?.provisional) provisional = true;
        return found?.value;
      });
      if (!outcome.ok) throw new OutlineTextError(`In “${text}”: ${outcome.message}`);
      return Number(outcome.value.toFixed(4));
    };
    try {
      this.parameters[spec.name] = checkedText(spec.kind, own.text, value);
      if (provisional) this.provisional.add(spec.name);
    } catch (error) {
      if (!(error instanceof OutlineTextError || error instanceof PlaceError)) throw error;
      this.parameters[spec.name] = this.recipe.demo.parameters[spec.name]!;
      if (spec.shown?.(this.parameters) ?? true) this.problems[spec.name] = error.message;
    }
    this.open.pop();
  }

  private look(name: string): { value: number; provisional: boolean } | undefined {
    const [base, field] = name.split('.');
    const bound = this.part.binds[base!];
    const dimension = this.document.dimensions.find(d => (bound ? d.id === bound : d.name === base));
    if (dimension) {
      if (field === undefined) return this.measured(dimension.id, base!);
      if (field !== 'model') return undefined;
      const signed = this.signedOf(dimension.id);
      if (signed) return signed;
      const specs = this.recipe.mates.filter(m => dimensionOf(this.part, m.dimension) === dimension.id);
      // Two surfaces may fit one size of the object, each in its own way: a number asks for its own surface.
      const asker = specs.find(s => s.parameter === this.open.at(-1));
      const mate =
        this.ledger.mates.find(m => m.mate.ours.surface === asker?.id) ??
        this.ledger.mates.find(
          m => m.dimension.id === dimension.id || specs.some(s => s.id === m.mate.ours.surface),
        );
      if (mate) return { value: mate.model, provisional: false };
      const [spec] = specs;
      const example = spec && this.recipe.demo.parameters[spec.parameter];
      return typeof example === 'number' ? { value: example, provisional: true } : undefined;
    }
    const spec = this.recipe.parameters.find(p => p.name === name);
    if (spec?.kind !== 'length') return undefined;
    if (this.open.includes(name)) {
      this.problems[this.open.at(-1)!] = `“${name}” is made from this number: that goes round in a circle.`;
      return { value: this.recipe.demo.parameters[name] as number, provisional: false };
    }
    const value = this.length(spec);
    return { value, provisional: this.provisional.has(name) };
  }

  /** The ledger's number for a mate judged by an amount; also for a dimension that only such a mate uses. */
  private signedOf(dimension: string): { value: number; provisional: boolean } | undefined {
    const asking = this.open.at(-1);
    const own = this.document.mates.filter(
      (m): m is SignedMate => isSigned(m) && m.ours.part === this.part.id && m.other.dimension === dimension,
    );
    const mate = own.find(m => m.number === asking) ?? (this.isFitted(dimension) ? undefined : own[0]);
    if (!mate) return undefined;
    const row = this.ledger.signed.find(r => r.mate.id === mate.id);
    if (row) return { value: row.model, provisional: false };
    const example = this.recipe.demo.parameters[mate.number];
    return typeof example === 'number' ? { value: example, provisional: true } : undefined;
  }

  private isFitted(dimension: string): boolean {
    return this.recipe.mates.some(m => dimensionOf(this.part, m.dimension) === dimension);
  }

  private measured(id: string, name: string): { value: number; provisional: boolean } | undefined {
    const evaluation = this.dimensions.get(id)?.evaluation;
    if (evaluation) return { value: evaluation.value, provisional: false };
    const surfaces = this.recipe.mates.filter(m => dimensionOf(this.part, m.dimension) === id).map(m => m.id);
    const other = this.ledger.mates.find(m => surfaces.includes(m.mate.ours.surface));
    if (other) return { value: other.reading.value, provisional: false };
    const example = this.recipe.demo.sizes[name];
    return example === undefined ? undefined : { value: example, provisional: true };
  }
}

function checkedText(kind: 'outline' | 'holes' | 'place', text: string, value: (written: string) => number) {
  if (kind === 'place') return resolvedPlace(text, value);
  const resolved = resolvedText(kind, text, value);
  if (kind === 'outline') outlineOfText(resolved);
  else holesOfText(resolved);
  return resolved;
}

export const wordOf = (value: number | string | boolean) =>
  typeof value === 'boolean' ? (value ? 'yes' : 'no') : String(value);

/** Empty where that body does not exist, or none was chosen. */
export function referenceOf(document: JobDocument, id: string): string {
  const model = document.models.find(m => m.id === id);
  return model ? modelReference(model) : '';
}
