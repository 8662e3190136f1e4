import { same } from '../job/changes';
import {
  type FitMate,
  isFit,
  type JobDocument,
  type Mate,
  type Part,
  type SignedMate,
} from '../job/document';
import { counting, type History, historyOf, type Version } from '../job/history';
import { dimensionOf, recipeOf } from '../job/parts';
import type { Material, Printer, Workshop } from '../job/workshop';
import type { Evidence } from '../learn/lessons';
import type { NextAnswer, NextQuestion } from '../learn/next';
import { settingsOf } from '../print/of-printer';
import type { CheckContext } from '../shape/checks/context';
import type { DrawDimension, Drawing } from '../shape/drawing/drawing';
import { drawnLength } from '../shape/drawing/drawing';
import type { Finding } from '../shape/findings/finding';
import { withOwnMates } from '../shape/own-mates';
import type { Recipe } from '../shape/recipes/recipe';
import type { SolidSpec } from '../shape/solid-key';
import { Answers } from './answers';
import { cautionsOf } from './cautions';
import { choicesOf } from './choices';
import { demandsOf } from './demands';
import type { DimensionState } from './dimension';
import { evaluateDimensions } from './dimensions';
import { type Effect, effectsOf } from './effects';
import { type EffortAdvice, effortAdvice } from './effort';
import { type Grips, gripsOf } from './grips';
import { kindOn } from './kind-on';
import { type LedgerState, ledgerOf, type MateLedger } from './ledger';
import type { OtherSize } from './ledger-input';
import { otherwise } from './made-words';
import { type BothWays, bothWays } from './other-plastic';
import { foremostOf, jobOverview, type Overview, overviewOf } from './overview';
import { ownMatesAsked, ownNumbers, ownSurfaces } from './own';
import { activeMates, activeSigned, ParameterPass } from './parameters';
import { Printers } from './printers';
import { measureAgain, neededDimensions, stillToRead } from './reading-list';
import type { MeasuredSize, ResolvedPart } from './resolved';
import { type Sheet, sheetOf } from './sheet';
import { type Suitability, suitabilityOf } from './suitability';
import { unsaid } from './unsaid';

/**
 * A job worked out once: everything that follows from its document, the workshop and its history, by part. Nothing is
 * computed before it is asked for, and nothing twice. A changed job is another object: see `with`.
 */
export class Work {
  private readonly byPart = new Map<string, PartWork>();
  private readonly recipes = new Map<Part['additions'], Map<string, Recipe>>();
  private evaluated?: ReadonlyMap<string, DimensionState>;
  private readonly ledgers = new Map<string, { part: Part; mates: readonly Mate[]; ledger: LedgerState }>();

  /** Ledgers with the maker's own numbers, by the ledger without them. */
  private readonly owned = new Map<LedgerState, { own: ReadonlyMap<string, number>; ledger: LedgerState }>();

  constructor(
    readonly document: JobDocument,
    readonly workshop: Workshop,
    readonly history: History,
    readonly printers: Printers = new Printers(workshop),
    private readonly answers = new Answers(),
    /** The state before a change; only what the change cannot affect is reused from it. */
    private readonly before: Work | null = null,
  ) {}

  /** A job with what the workshop's other jobs taught: it never counts its own tries twice. */
  static of(
    { id, document, history }: { id: string; document: JobDocument; history: History },
    workshop: Workshop,
    lessons: readonly Evidence[],
  ): Work {
    const others = lessons.filter(e => e.jobId !== id);
    return new Work(document, workshop, history, new Printers(workshop, others));
  }

  /** The job after a change; what the change does not affect is not worked out again. */
  with(change: {
    document?: JobDocument;
    workshop?: Workshop;
    history?: History;
    /** What other jobs taught; the same list while nothing new came. */
    lessons?: readonly Evidence[];
  }): Work {
    const { document = this.document, workshop = this.workshop, history = this.history } = change;
    const { lessons = this.printers.lessons } = change;
    const printers =
      workshop === this.workshop && lessons === this.printers.lessons
        ? this.printers
        : new Printers(workshop, lessons);
    if (document === this.document && history === this.history && printers === this.printers) return this;
    return new Work(document, workshop, history, printers, this.answers, this.alone());
  }

  /** Itself without its predecessors, so that no chain of old states stays in memory. */
  private alone(): Work {
    const alone = new Work(this.document, this.workshop, this.history, this.printers, this.answers);
    alone.evaluated = this.evaluated;
    for (const [id, ledger] of this.ledgers) alone.ledgers.set(id, ledger);
    for (const [proposal, row] of this.owned) alone.owned.set(proposal, row);
    return alone;
  }

  /**
   * A part's ledger: the same object as before when none of its inputs changed, so that typing a number that no mate
   * depends on costs nothing, here and on the screen.
   */
  ledgerOf(part: Part, recipe: Recipe, mates: readonly Mate[], make: () => LedgerState): LedgerState {
    const { document, history, before } = this;
    const kept = before?.ledgers.get(part.id);
    const alike =
      before &&
      kept &&
      before.dimensions === this.dimensions &&
      before.printers === this.printers &&
      before.history === history &&
      sameButNumbers(kept.part, part) &&
      // A mate with another of our parts follows that part's numbers.
      mates.every(m => m.other.of === 'object') &&
      sameKinds(mates, recipe, kept.part, part) &&
      same(kept.mates, mates) &&
      before.document.mates === document.mates;
    const ledger = alike ? kept.ledger : make();
    this.ledgers.set(part.id, { part, mates, ledger });
    return ledger;
  }

  /** The same for a ledger with the maker's own numbers. */
  ledgerWith(proposal: LedgerState, own: ReadonlyMap<string, number>, make: () => LedgerState): LedgerState {
    const kept = this.before?.owned.get(proposal);
    const row = kept && same([...kept.own], [...own]) ? kept : { own, ledger: make() };
    this.owned.set(proposal, row);
    return row.ledger;
  }

  get dimensions(): ReadonlyMap<string, DimensionState> {
    const { before, document, workshop } = this;
    const unchanged =
      before && before.document.dimensions === document.dimensions && before.workshop === workshop;
    this.evaluated ??= unchanged ? before.dimensions : evaluateDimensions(document, workshop);
    return this.evaluated;
  }

  /** @throws RangeError when the job has no such part */
  part(id: string): PartWork {
    const known = this.byPart.get(id);
    if (known) return known;
    const part = this.document.parts.find(p => p.id === id);
    if (!part) throw new RangeError('That part is no longer in the job.');
    const made = new PartWork(this, part, this.answers.next);
    this.byPart.set(id, made);
    return made;
  }

  get parts(): PartWork[] {
    return this.document.parts.map(p => this.part(p.id));
  }

  /** The part with this id or, without an id, the one that waits most urgently for its maker. */
  chosen(id: string | null | undefined): PartWork {
    return this.document.parts.some(p => p.id === id) ? this.part(id!) : this.foremost;
  }

  /** The part whose next step comes first. */
  get foremost(): PartWork {
    return foremostOf(this.parts);
  }

  /** The state of the whole job. */
  get overview(): Overview {
    return jobOverview(this.parts);
  }

  /** The measuring sheet of all parts. */
  get sheet(): Sheet {
    return sheetOf(this.parts);
  }

  /** Example sizes for everything that the parts' guides measure, by the dimensions' names: for a practice object. */
  get exampleSizes(): Record<string, number> {
    return Object.assign({}, ...this.parts.map(p => p.exampleSizes));
  }

  /** The recipe of a version with its additions and its extra mates at the time. */
  recipeOfVersion(version: Version): Recipe {
    const own = version.mates.flatMap(({ surface, own: named }) => (named ? [{ ...named, surface }] : []));
    return withOwnMates(this.recipeOf(version), own);
  }

  /** A recipe with what a maker added: that of a part, or of a version as it was then. */
  recipeOf(made: Pick<Part, 'recipe' | 'additions'>): Recipe {
    const own = this.recipes.get(made.additions) ?? new Map<string, Recipe>();
    const found = own.get(made.recipe) ?? recipeOf(made);
    own.set(made.recipe, found);
    this.recipes.set(made.additions, own);
    return found;
  }
}

/** A number may change a surface's orientation: a hole moved to another face, or one that leans more. */
const sameKinds = (mates: readonly Mate[], recipe: Recipe, a: Part, b: Part): boolean =>
  mates.every(m => !isFit(m) || kindOn(m, recipe, a) === kindOn(m, recipe, b));

/** The ledger depends on how a part is made, not on its other sizes. */
function sameButNumbers(a: Part, b: Part): boolean {
  const { parameters: _, ...one } = a;
  const { parameters: __, ...other } = b;
  return same(one, other);
}

/** One part of a job worked out. */
export class PartWork implements ResolvedPart {
  /** Asked for while it is itself being worked out: two parts that depend on each other have no starting point. */
  private open = false;
  private readonly kept = new Map<string, unknown>();

  constructor(
    readonly work: Work,
    readonly part: Part,
    private readonly next: (question: NextQuestion) => NextAnswer,
  ) {}

  private once<T>(name: string, make: () => T): T {
    if (!this.kept.has(name)) this.kept.set(name, make());
    return this.kept.get(name) as T;
  }

  get document(): JobDocument {
    return this.work.document;
  }
  get workshop(): Workshop {
    return this.work.workshop;
  }
  get printers(): Printers {
    return this.work.printers;
  }
  get dimensions(): ReadonlyMap<string, DimensionState> {
    return this.work.dimensions;
  }
  get history(): History {
    return this.once('history', () => historyOf(this.work.history, this.part.id));
  }
  /** With what the maker added, and the extra mates. */
  get recipe(): Recipe {
    return this.once('recipe', () =>
      withOwnMates(this.work.recipeOf(this.part), ownSurfaces(this.document, this.part)),
    );
  }
  get material(): Material {
    const { materials } = this.workshop;
    return materials.find(m => m.id === this.part.materialId) ?? materials[0]!;
  }
  get printer(): Printer {
    const { printers } = this.workshop;
    return printers.find(p => p.id === this.part.printerId) ?? printers[0]!;
  }

  /** The job's dimension for one of the recipe's guide steps. */
  dimensionAt(step: string): DimensionState | undefined {
    return this.dimensions.get(dimensionOf(this.part, step));
  }

  get measured(): Readonly<Record<string, MeasuredSize>> {
    return this.once('measured', () => {
      const sizes: Record<string, MeasuredSize> = {};
      for (const { key } of this.recipe.guide) {
        const state = this.dimensionAt(key);
        if (state?.evaluation)
          sizes[key] = {
            value: state.evaluation.value,
            u: state.evaluation.standardUncertainty,
            kind: state.dimension.kind,
          };
      }
      return sizes;
    });
  }

  get exampleSizes(): Record<string, number> {
    return Object.fromEntries(
      Object.entries(this.recipe.demo.sizes).flatMap(([step, size]) => {
        const state = this.dimensionAt(step);
        return state ? [[state.dimension.name, size]] : [];
      }),
    );
  }

  get mates(): readonly FitMate[] {
    return this.once('mates', () =>
      activeMates(this.document, this.part, this.recipe, choicesOf(this.recipe, this.part)),
    );
  }

  get signed(): readonly SignedMate[] {
    return this.once('signed', () =>
      activeSigned(this.document, this.part, this.recipe, choicesOf(this.recipe, this.part)),
    );
  }

  /** The ledger with the numbers that are built, including the maker's own. */
  get ledger(): LedgerState {
    return this.once('ledger', () => {
      const own = ownNumbers(this, this.proposal);
      if (own.size === 0) return this.proposal;
      return this.work.ledgerWith(this.proposal, own, () => this.makeLedger(own));
    });
  }

  /** The numbers that follow from readings, wants and tries: parameters may be made from them. */
  private get proposal(): LedgerState {
    return this.once('proposal', () =>
      this.work.ledgerOf(this.part, this.recipe, [...this.mates, ...this.signed], () =>
        this.makeLedger(new Map()),
      ),
    );
  }

  private makeLedger(own: ReadonlyMap<string, number>): LedgerState {
    this.open = true;
    try {
      return ledgerOf({
        part: this.part,
        recipe: this.recipe,
        mates: this.mates,
        signed: this.signed,
        dimensions: this.dimensions,
        printers: this.printers,
        bed: this.part.additions.some(a => a.kind === 'split' && a.on) ? null : this.printer.bed,
        history: this.work.history,
        recipeOf: version => this.work.recipeOfVersion(version),
        madeWords: version => otherwise(version, this),
        sizeOf: other => this.sizeOfOther(other),
        own,
        next: this.next,
      });
    } finally {
      this.open = false;
    }
  }

  private sizeOfOther({ part, surface }: { part: string; surface: string }): OtherSize | null {
    if (!this.document.parts.some(p => p.id === part)) return null;
    const other = this.work.part(part);
    return other.open ? null : other.printedSize(surface);
  }

  /**
   * One of its surfaces as its print will come out: the drawn size plus what the printer does to it. Null while its own
   * number uses an example size.
   */
  printedSize(surface: string): OtherSize | null {
    const spec = this.recipe.mates.find(m => m.id === surface);
    const drawn = spec && this.parameters[spec.parameter];
    if (!spec?.active(this.parameters) || typeof drawn !== 'number') return null;
    if (this.provisional.has(spec.parameter)) return null;
    const mate = this.proposal.mates.find(m => m.mate.ours.surface === surface);
    const ours = { of: 'part' as const, part: this.part.id, surface };
    const kind = kindOn({ side: spec.side, ours }, this.recipe, this.part);
    const belief = this.printers.belief(this.part, spec.side, kind, drawn);
    const bias = mate?.bias ?? belief;
    // A hole prints smaller than drawn, an outside larger.
    const value = drawn + (spec.side === 'inside' ? -bias.mean : bias.mean);
    return {
      value: Number(value.toFixed(4)),
      u: Math.hypot(belief.sd, this.printers.scatter(this.part)),
      label: `${this.part.name}, ${spec.name.toLowerCase()}`,
    };
  }

  private get pass() {
    return this.once('pass', () => {
      const choices = choicesOf(this.recipe, this.part);
      return new ParameterPass(
        this.document,
        this.part,
        this.recipe,
        choices,
        this.dimensions,
        this.proposal,
      ).run();
    });
  }
  get parameters() {
    return this.pass.parameters;
  }
  get expressions() {
    return this.pass.expressions;
  }
  get provisional() {
    return this.pass.provisional;
  }
  get problems() {
    return this.pass.problems;
  }

  /** A size of the object, a model number (`rim.model`) or a number of the part, by its name in expressions. */
  readonly numberNamed = (name: string): number | undefined => {
    const [base, field] = name.split('.');
    const state =
      this.dimensionAt(base!) ?? [...this.dimensions.values()].find(d => d.dimension.name === base);
    const { mates, signed } = this.ledger;
    if (field === 'model')
      return [...mates, ...signed].find(m => m.dimension.id === state?.dimension.id)?.model;
    const own = this.parameters[name];
    return state?.evaluation?.value ?? (typeof own === 'number' ? own : undefined);
  };

  get needed(): readonly DimensionState[] {
    return this.once('needed', () => neededDimensions(this));
  }
  get demands() {
    return this.once('demands', () =>
      demandsOf(this.document, this.part, this.material, this.workshop, this.numberNamed),
    );
  }
  get suitability(): Suitability {
    return this.suitabilityOf(this.material);
  }
  /** How well another plastic would suit this part. */
  suitabilityOf(material: Material): Suitability {
    const mates = this.proposal.mates.map(m => m.mate);
    return suitabilityOf(material, this.document.brief, mates);
  }
  get cautions(): Finding[] {
    const { walls } = settingsOf(this.printer, this.part.quality);
    return cautionsOf(this.document, this.material, this.suitability, walls);
  }
  /** The choices that depend on the object and are not made yet, such as a thread's hand. */
  get unsaid(): Finding[] {
    return this.once('unsaid', () => unsaid(this.recipe, this.parameters, this.part));
  }
  get nextNumber(): number {
    return 1 + Math.max(0, ...this.history.versions.map(v => v.number));
  }
  get overview(): Overview {
    return this.once('overview', () => overviewOf(this));
  }
  get stillToRead(): string[] {
    return stillToRead(this);
  }
  get measureAgain(): DimensionState[] {
    return measureAgain(this);
  }
  /** Its versions that count, oldest first. */
  get versions(): Version[] {
    return counting(this.history).versions;
  }

  effectsOf(ledger: MateLedger): Effect[] {
    return effectsOf(ledger, this, this.document.brief);
  }
  /** What several gripping surfaces ask of plastic and hand together. */
  get grips(): Grips | null {
    return this.once('grips', () => gripsOf(this));
  }
  get effortAdvice(): EffortAdvice[] {
    return effortAdvice(this);
  }
  bothWays(ledger: MateLedger): BothWays | null {
    return bothWays(ledger, this);
  }

  /** The measured lengths, by guide step and by the maker's own dimensions: an angle is never in mm. */
  private get lengths(): Record<string, number> {
    const sizes: Record<string, number> = {};
    for (const { dimension, evaluation } of this.dimensions.values())
      if (dimension.guide === null && dimension.kind !== 'angle' && evaluation)
        sizes[dimension.id] = evaluation.value;
    for (const [key, { value, kind }] of Object.entries(this.measured))
      if (kind !== 'angle') sizes[key] = value;
    return sizes;
  }

  /** What the checks on the finished triangles need. */
  get checkContext(): CheckContext {
    return this.once('context', () => ({
      lineWidth: this.printer.lineWidth,
      bed: this.printer.bed,
      flexible: this.material.flexible,
      density: this.material.density,
      strainLimit: this.material.strainLimit,
      ledger: Object.fromEntries(
        this.ledger.mates.map(({ mate, model, proposed, reading }) => [
          mate.ours.surface,
          { model, proposed, reading: reading.value, theirsGives: mate.soft === 'theirs' },
        ]),
      ),
      measured: this.lengths,
      ownMates: ownMatesAsked([...this.mates, ...this.signed]),
      ...this.demands,
    }));
  }

  /** What its solid is made from: equal solids have equal keys. */
  get solidSpec(): SolidSpec {
    return { recipe: this.part.recipe, additions: this.part.additions, parameters: this.parameters };
  }

  /** The object with this part's guide steps on it. */
  get objectDrawing(): Drawing {
    const sizes = Object.fromEntries(Object.entries(this.measured).map(([key, { value }]) => [key, value]));
    return this.recipe.objectDrawing(sizes, this.parameters);
  }
  get drawing(): Drawing {
    return this.recipe.drawing(this.parameters);
  }
  /** The value of a dimension on the part's drawing, mm. */
  drawnSize(d: DrawDimension): number {
    const name = this.recipe.mates.find(m => m.id === d.key)?.parameter ?? d.key;
    const value = this.parameters[name];
    return typeof value === 'number' ? value : drawnLength(d);
  }
}
