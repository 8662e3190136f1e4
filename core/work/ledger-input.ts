import type { FitMate, Part, SignedMate } from '../job/document';
import type { History, Version } from '../job/history';
import type { NextAnswer, NextQuestion } from '../learn/next';
import type { Recipe } from '../shape/recipes/recipe';
import type { DimensionState } from './dimension';
import type { Printers } from './printers';

/** The size of another of our parts that a mate goes with. */
export interface OtherSize {
  value: number;
  u: number;
  label: string;
}

/** The inputs of one part's ledger. */
export interface LedgerInput {
  part: Part;
  recipe: Recipe;
  /** The part's mates that are in use. */
  mates: readonly FitMate[];
  signed: readonly SignedMate[];
  dimensions: ReadonlyMap<string, DimensionState>;
  printers: Printers;
  /** The printer's bed, which must hold it, mm; null where it is printed in pieces. */
  bed: { width: number; depth: number; height: number } | null;
  history: History;
  /** The recipe of a version, with its additions. */
  recipeOf(version: Version): Recipe;
  /** How a version differs in making from the next one: “PLA”, “the other printer”. */
  madeWords(version: Version): string;
  /** For a mate with another of our parts: how large that part prints. */
  sizeOf(other: { part: string; surface: string }): OtherSize | null;
  /** Numbers set by the maker, by mate: they are built instead of the ledger's. */
  own?: ReadonlyMap<string, number>;
  /** The numbers that tries lead to, remembered by callers that ask often. */
  next(question: NextQuestion): NextAnswer;
}
