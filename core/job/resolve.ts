import { type Expression, evaluateExpression } from '../quantity/expression';
import { ownUnit } from '../quantity/units';
import { PlaceError, resolvedPlace } from '../shape/additions/place';
import type { PrintStrength } from '../shape/checks/context';
import { modelReference } from '../shape/model';
import { holesOfText, OutlineTextError, outlineOfText, resolvedText } from '../shape/outline-text';
import { type ParameterSpec, type Parameters, unitOf } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';
import { PRINTED_STRENGTH } from '../shelf/polymers';
import { given } from '../shelf/table';
import { type DimensionState, evaluateDimensions } from './dimensions';
import type { JobDocument, Mate, Part } from './document';
import type { History } from './history';
import { kindOn, type LedgerState, ledgerOf, type OtherSize } from './ledger';
import { dimensionOf, recipeOf } from './parts';
import { printerBelief, printScatter } from './printer-belief';
import { polymerOf } from './suitability';
import type { Material, Printer, Workshop } from './workshop';

/** A job worked out: values, ledger and parameters of one of its parts. A pure function of its inputs. */
export interface ResolvedPart {
  part: Part;
  recipe: Recipe;
  material: Material;
  printer: Printer;
  dimensions: Map<string, DimensionState>;
  ledger: LedgerState;
  parameters: Parameters;
  /** What each parameter's field holds: the maker's expression or the recipe's default. */
  expressions: Record<string, Expression>;
  /** Parameters that stand on an example size, since something was not measured yet. */
  provisional: Set<string>;
  /** What is wrong with an expression, by parameter. */
  problems: Record<string, string>;
  /** What it has to bear and where it goes. */
  demands: ReturnType<typeof demandsOf>;
}

export function resolvePart(
  document: JobDocument,
  partId: string,
  workshop: Workshop,
  history: History,
  /** Parts that are being worked out already, since this one goes with them. */
  open: readonly string[] = [],
): ResolvedPart {
  const part = document.parts.find(p => p.id === partId);
  if (!part) throw new RangeError('That part is no longer in the job.');
  const recipe = recipeOf(part);
  const dimensions = evaluateDimensions(document, workshop);
  const choices = choicesOf(recipe, part);
  const active = activeMates(document, part, recipe, choices);
  const others = new Map<string, ResolvedPart>();
  const sizeOf = (other: { part: string; surface: string }): OtherSize | null => {
    // Two parts that go with each other both ways have no beginning.
    if (open.includes(other.part) || !document.parts.some(p => p.id === other.part)) return null;
    const resolvedOther =
      others.get(other.part) ?? resolvePart(document, other.part, workshop, history, [...open, partId]);
    others.set(other.part, resolvedOther);
    return printedSize(resolvedOther, other.surface, workshop);
  };
  const ledger = ledgerOf(document, part.id, active, dimensions, workshop, history, sizeOf);
  const work = new Work(document, part, recipe, choices, dimensions, ledger);
  const material = workshop.materials.find(m => m.id === part.materialId) ?? workshop.materials[0]!;
  return {
    part,
    recipe,
    material,
    demands: demandsOf(document, part, material, workshop),
    printer: workshop.printers.find(p => p.id === part.printerId) ?? workshop.printers[0]!,
    dimensions,
    ledger,
    ...work.run(),
  };
}

/**
 * A surface of another of our parts, as its print will come out: what is drawn, and what the printer does to it.
 * Null while its own number stands on an example.
 */
function printedSize(other: ResolvedPart, surface: string, workshop: Workshop): OtherSize | null {
  const spec = other.recipe.mates.find(m => m.id === surface);
  const drawn = spec && other.parameters[spec.parameter];
  if (!spec?.active(other.parameters) || typeof drawn !== 'number') return null;
  if (other.provisional.has(spec.parameter)) return null;
  const mate = other.ledger.mates.find(m => m.mate.ours.surface === surface);
  const { part, recipe } = other;
  const kind = kindOn({ side: spec.side, ours: { of: 'part', part: part.id, surface } }, recipe, part.pose);
  const belief = printerBelief(workshop, part, spec.side, kind, drawn);
  const bias = mate?.bias ?? belief;
  // A hole prints smaller than drawn, an outside larger.
  const value = drawn + (spec.side === 'inside' ? -bias.mean : bias.mean);
  return {
    value: Number(value.toFixed(4)),
    u: Math.hypot(belief.sd, printScatter(workshop, part)),
    label: `${part.name}, ${spec.name.toLowerCase()}`,
  };
}

export function activeMates(document: JobDocument, part: Part, recipe: Recipe, choices: Parameters): Mate[] {
  return document.mates.filter(
    mate => mate.ours.part === part.id && recipe.mates.find(m => m.id === mate.ours.surface)?.active(choices),
  );
}

/** Choices and flags first: they decide which mates and parameters there are, and stand on nothing else. */
function choicesOf(recipe: Recipe, part: Part): Parameters {
  const choices: Record<string, string | boolean> = {};
  for (const spec of recipe.parameters) {
    const text = part.parameters[spec.name]?.text;
    if (spec.kind === 'choice') {
      choices[spec.name] = spec.options.find(o => o.value === text)?.value ?? spec.default;
    } else if (spec.kind === 'flag') {
      choices[spec.name] = text === undefined ? spec.default : text === 'yes';
    }
  }
  return choices;
}

/** One pass over the graph of names: dimensions and ledger are given, parameters may name each other. */
class Work {
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
      text: spec.default,
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
    // A hidden parameter is of no consequence: neither are its problems.
    if (!shown) {
      delete this.problems[spec.name];
      this.provisional.delete(spec.name);
    }
    this.parameters[spec.name] = value;
    return value;
  }

  /** Taken as it was typed. */
  private plain(spec: Extract<ParameterSpec, { kind: 'words' | 'surface' }>): void {
    const own: Expression = this.part.parameters[spec.name] ?? { text: spec.default, unit: 'none' };
    this.expressions[spec.name] = own;
    const long = spec.kind === 'words' && own.text.length > spec.most;
    if (long) this.problems[spec.name] = `${spec.label}: at most ${spec.most} letters.`;
    this.parameters[spec.name] = long ? own.text.slice(0, spec.most) : own.text;
  }

  /** A body of the job by its id; the solid knows it by its reference. */
  private model(spec: Extract<ParameterSpec, { kind: 'model' }>): void {
    const own: Expression = this.part.parameters[spec.name] ?? { text: spec.default, unit: 'none' };
    this.expressions[spec.name] = own;
    this.parameters[spec.name] = referenceOf(this.document, own.text);
  }

  /** Corners, holes or a place: each number is an expression of its own. */
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
      const specs = this.recipe.mates.filter(m => dimensionOf(this.part, m.dimension) === dimension.id);
      const mate = this.ledger.mates.find(
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

/** Guide dimensions that this part needs, in measuring order, then the maker's own. */
export function neededDimensions(
  document: JobDocument,
  resolved: Pick<ResolvedPart, 'part' | 'recipe' | 'parameters' | 'dimensions'>,
): DimensionState[] {
  const { part, recipe, parameters, dimensions } = resolved;
  return document.dimensions.flatMap(d => {
    const step = recipe.guide.find(g => dimensionOf(part, g.key) === d.id);
    // Another part's guide asks for it, or this part does not need it as it is.
    if (d.guide !== null && !step?.needed(parameters)) return [];
    if (d.guide !== null && goesWithAnother(document, part, d.id)) return [];
    return [dimensions.get(d.id)!];
  });
}

/** Whether all mates that stand on a dimension go with another of our parts: then nobody reads it. */
function goesWithAnother(document: JobDocument, part: Part, dimension: string): boolean {
  const specs = recipeOf(part).mates.filter(m => dimensionOf(part, m.dimension) === dimension);
  const mates = document.mates.filter(
    m => m.ours.part === part.id && specs.some(s => s.id === m.ours.surface),
  );
  return mates.length > 0 && mates.every(m => m.other.of === 'part');
}

/** What the checks on the finished triangles need to know. */
export function checkContext(resolved: ResolvedPart) {
  const measured: Record<string, number> = {};
  for (const [id, state] of resolved.dimensions) if (state.evaluation) measured[id] = state.evaluation.value;
  // Recipes know their dimensions by the guide's keys.
  for (const [key, id] of Object.entries(resolved.part.binds)) {
    const bound = measured[id];
    if (bound === undefined) delete measured[key];
    else measured[key] = bound;
  }
  return {
    lineWidth: resolved.printer.lineWidth,
    bed: resolved.printer.bed,
    flexible: resolved.material.flexible,
    density: resolved.material.density,
    strainLimit: resolved.material.strainLimit,
    ledger: Object.fromEntries(
      resolved.ledger.mates.map(m => [m.mate.ours.surface, { model: m.model, reading: m.reading.value }]),
    ),
    measured,
    ...resolved.demands,
  };
}

/** Empty where that body is not there, or none was chosen. */
function referenceOf(document: JobDocument, id: string): string {
  const model = document.models.find(m => m.id === id);
  return model ? modelReference(model) : '';
}

/** How many times its load a part should bear, by what happens when it breaks. Common practice, no source. */
const MARGINS = {
  unsaid: { times: 2.5, why: 'nobody said yet what happens when it breaks' },
  nuisance: { times: 1.5, why: '' },
  damage: { times: 2.5, why: 'damage would follow' },
  injury: { times: 4, why: 'somebody may be hurt' },
};

/** The way layers are stacked in the part's own coordinates. */
const STACKED: Record<Part['pose'], readonly [number, number, number]> = {
  'as-drawn': [0, 0, 1],
  'turned-over': [0, 0, -1],
  // Laid on its front.
  'on-side': [0, 1, 0],
};

/** What the part has to bear and where it goes, for the checks. */
function demandsOf(document: JobDocument, part: Part, material: Material, workshop: Workshop) {
  const strengthOf = (m: Material): PrintStrength | null => {
    const row = PRINTED_STRENGTH.find(r => r.key === polymerOf(m)?.key);
    return row ? { name: m.name, along: given(row, 'along'), across: given(row, 'across') } : null;
  };
  return {
    loads: part.loads,
    strength: strengthOf(material),
    otherStrengths: workshop.materials.flatMap(m => {
      const strength = m.id === material.id || m.flexible !== material.flexible ? null : strengthOf(m);
      return strength ? [strength] : [];
    }),
    margin: MARGINS[document.brief.ifItBreaks ?? 'unsaid'],
    mayHurt: document.brief.ifItBreaks === 'injury',
    stacked: STACKED[part.pose],
    neighbours: part.neighbours.map(n =>
      n.form === 'model' ? { ...n, model: referenceOf(document, n.model ?? '') } : n,
    ),
    goesOn: part.goesOn,
  };
}
