import type { Dimension, FitMate, JobDocument, Part, SignedMate } from '../job/document';
import type { History } from '../job/history';
import type { Material, Printer, Workshop } from '../job/workshop';
import type { Expression } from '../quantity/expression';
import type { Parameters } from '../shape/recipes/parameters';
import type { Recipe } from '../shape/recipes/recipe';
import type { demandsOf } from './demands';
import type { DimensionState } from './dimension';
import type { LedgerState } from './ledger';
import type { Printers } from './printers';
import type { Suitability } from './suitability';

/** A measured size of the object. mm, or degrees where its kind is an angle. */
export interface MeasuredSize {
  value: number;
  u: number;
  kind: Dimension['kind'];
}

/** One part of a job, worked out: every question about it is answered from this. */
export interface ResolvedPart {
  document: JobDocument;
  workshop: Workshop;
  /** This part's versions, prints, tries and ladders. */
  history: History;
  part: Part;
  recipe: Recipe;
  material: Material;
  printer: Printer;
  printers: Printers;
  dimensions: ReadonlyMap<string, DimensionState>;
  /** By the recipe's guide steps. */
  measured: Readonly<Record<string, MeasuredSize>>;
  /** Its fits that are in use with the current choices. */
  mates: readonly FitMate[];
  /** Its lengths, positions, angles and edges that must be right. */
  signed: readonly SignedMate[];
  ledger: LedgerState;
  parameters: Parameters;
  /** The text of each parameter's field: the maker's expression or the recipe's default. */
  expressions: Readonly<Record<string, Expression>>;
  /** Parameters that use an example size, since something was not measured yet. */
  provisional: ReadonlySet<string>;
  /** What is wrong with an expression, by parameter. */
  problems: Readonly<Record<string, string>>;
  /** The guide dimensions that this part needs, in measuring order, then the maker's own. */
  needed: readonly DimensionState[];
  /** The loads it has to bear and its surroundings. */
  demands: ReturnType<typeof demandsOf>;
  suitability: Suitability;
  /** The number of this part's next version: none is used twice, not even a voided one's. */
  nextNumber: number;
}
