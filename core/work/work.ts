import { same } from '../job/changes';
import { isFit, type JobDocument, type Mate, type Part } from '../job/document';
import type { History, Version } from '../job/history';
import { recipeOf } from '../job/parts';
import type { Workshop } from '../job/workshop';
import type { Evidence } from '../learn/lessons';
import { withOwnMates } from '../shape/own-mates';
import type { Recipe } from '../shape/recipes/recipe';
import { Answers } from './answers';
import type { DimensionState } from './dimension';
import { evaluateDimensions } from './dimensions';
import { kindOn } from './kind-on';
import type { LedgerState } from './ledger';
import { foremostOf, jobOverview, type Overview } from './overview';
import { PartWork, type WholeJob } from './part-work';
import { Printers } from './printers';
import { type Sheet, sheetOf } from './sheet';

/**
 * A job worked out once: everything that follows from its document, the workshop and its history, by part. Nothing is
 * computed before it is asked for, and nothing twice. A changed job is another object: see `with`.
 */
export class Work implements WholeJob {
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
