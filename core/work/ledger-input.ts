import type { FitMate, Part, SignedMate } from '../job/document';
import type { History, Version } from '../job/history';
import type { NextAnswer, NextQuestion } from '../learn/next';
import type { Recipe } from '../shape/recipes/recipe';
import type { DimensionState } from './dimension';
import type { Printers } from './printers';

/** What another of our parts comes to where a mate goes with it. */
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
  /** What must hold it, mm; null where it is printed in pieces. */
  bed: { width: number; depth: number; height: number } | null;
  history: History;
  /** The recipe of a version, with its additions. */
  recipeOf(version: Version): Recipe;
  /** What of a version is made otherwise than the next one: “PLA”, “the other printer”. */
  madeWords(version: Version): string;
  /** Where a mate goes with another of our parts: how large that prints. */
  sizeOf(other: { part: string; surface: string }): OtherSize | null;
  /** Numbers of the maker's own, by mate: they are built instead of what the ledger would draw. */
  own?: ReadonlyMap<string, number>;
  /** The numbers that tries lead to, remembered by whoever asks often. */
  next(question: NextQuestion): NextAnswer;
}
