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

/** What was measured of the object. mm, or degrees where its kind is an angle. */
export interface MeasuredSize {
  value: number;
  u: number;
  kind: Dimension['kind'];
}

/** One part of a job, worked out: what every question about it is answered from. */
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
  /** Its mates that are in use with the choices made. */
  mates: readonly FitMate[];
  /** Its lengths, places, angles and edges that must be right. */
  signed: readonly SignedMate[];
  ledger: LedgerState;
  parameters: Parameters;
  /** What each parameter's field holds: the maker's expression or the recipe's default. */
  expressions: Readonly<Record<string, Expression>>;
  /** Parameters that stand on an example size, since something was not measured yet. */
  provisional: ReadonlySet<string>;
  /** What is wrong with an expression, by parameter. */
  problems: Readonly<Record<string, string>>;
  /** Guide dimensions that this part needs, in measuring order, then the maker's own. */
  needed: readonly DimensionState[];
  /** What it has to bear and where it goes. */
  demands: ReturnType<typeof demandsOf>;
  suitability: Suitability;
  /** The number that the next version of this part gets: none is given twice, not even a voided one's. */
  nextNumber: number;
}
