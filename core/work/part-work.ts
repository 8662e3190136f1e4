import type { FitMate, JobDocument, Mate, Part, SignedMate } from '../job/document';
import { counting, type History, historyOf, type Version } from '../job/history';
import { dimensionOf } from '../job/parts';
import type { Material, Printer, Workshop } from '../job/workshop';
import type { NextAnswer, NextQuestion } from '../learn/next';
import { settingsOf } from '../print/of-printer';
import type { CheckContext } from '../shape/checks/context';
import type { DrawDimension, Drawing } from '../shape/drawing/drawing';
import { drawnLength } from '../shape/drawing/drawing';
import type { Finding } from '../shape/findings/finding';
import { withOwnMates } from '../shape/own-mates';
import type { Recipe } from '../shape/recipes/recipe';
import type { SolidSpec } from '../shape/solid-key';
import { cautionsOf } from './cautions';
import { choicesOf } from './choices';
import { demandsOf } from './demands';
import type { DimensionState } from './dimension';
import { type Effect, effectsOf } from './effects';
import { type EffortAdvice, effortAdvice } from './effort';
import { type Grips, gripsOf } from './grips';
import { kindOn } from './kind-on';
import { type LedgerState, ledgerOf, type MateLedger } from './ledger';
import type { OtherSize } from './ledger-input';
import { otherwise } from './made-words';
import { type BothWays, bothWays } from './other-plastic';
import { type Overview, overviewOf } from './overview';
import { ownMatesAsked, ownNumbers, ownSurfaces } from './own';
import { activeMates, activeSigned, ParameterPass } from './parameters';
import type { Printers } from './printers';
import { measureAgain, neededDimensions, stillToRead } from './reading-list';
import type { MeasuredSize, ResolvedPart } from './resolved';
import { type Suitability, suitabilityOf } from './suitability';
import { unsaid } from './unsaid';

/** What one part needs of its whole job. */
export interface WholeJob {
  readonly document: JobDocument;
  readonly workshop: Workshop;
  readonly history: History;
  readonly printers: Printers;
  readonly dimensions: ReadonlyMap<string, DimensionState>;
  part(id: string): PartWork;
  recipeOf(made: Pick<Part, 'recipe' | 'additions'>): Recipe;
  recipeOfVersion(version: Version): Recipe;
  ledgerOf(part: Part, recipe: Recipe, mates: readonly Mate[], make: () => LedgerState): LedgerState;
  ledgerWith(proposal: LedgerState, own: ReadonlyMap<string, number>, make: () => LedgerState): LedgerState;
}

/** One part of a job worked out. */
export class PartWork implements ResolvedPart {
  /** Asked for while it is itself being worked out: two parts that depend on each other have no starting point. */
  private open = false;
  private readonly kept = new Map<string, unknown>();

  constructor(
    readonly work: WholeJob,
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
