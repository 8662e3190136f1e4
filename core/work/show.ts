import type { Dimension, JobDocument } from '../job/document';
import { type DisplayUnit, formatLength, formatPercent, formatPlain } from '../quantity/format';
import type { DimensionState } from './dimension';
import type { MateLedger } from './ledger';

/** A dimension's value as it is shown: angles stay in degrees whatever unit lengths have. */
export const showSize = (kind: Dimension['kind'], value: number, unit: DisplayUnit): string =>
  kind === 'angle' ? formatPlain(value, 2) : formatLength(value, unit);

export const showUnit = (kind: Dimension['kind'], unit: DisplayUnit): string =>
  kind === 'angle' ? '°' : ` ${unit}`;

/** “31.70 ± 0.04 mm”, “3.81 ± 0.05°”; empty while there is no value. */
export function valueWords({ evaluation, dimension: { kind } }: DimensionState, unit: DisplayUnit): string {
  if (!evaluation) return '';
  return `${showSize(kind, evaluation.value, unit)} ± ${showSize(kind, evaluation.expandedUncertainty, unit)}${showUnit(kind, unit)}`;
}

/** What the value is based on, in a word or two. */
export function standingOf({ dimension, evaluation, source, counted }: DimensionState): string {
  if (dimension.derived) return evaluation ? 'worked out' : 'cannot be worked out yet';
  if (!evaluation) return 'not read';
  if (source === 'old-part') return 'old part';
  if (source === 'said') return 'said';
  if (source === 'scan') return 'scanned';
  if (source === 'photo') return 'off a photo';
  return counted.length === 1 ? 'read once' : `${counted.length} readings`;
}

/** “version 2”, with the part's name where the job has several: each part numbers its own from 1. */
export function versionWords(number: number, partId: string, { parts }: Pick<JobDocument, 'parts'>): string {
  const part = parts.length > 1 ? parts.find(p => p.id === partId) : undefined;
  return part ? `version ${number} of ${part.name}` : `version ${number}`;
}

/** A mate's chance, or why there is none. */
export const showChance = ({ pRight, tooLarge }: Pick<MateLedger, 'pRight' | 'tooLarge'>): string =>
  tooLarge ? 'larger than the bed' : formatPercent(pRight);
