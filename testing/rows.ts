import type { Print, Rework, Try, Version } from '../core/job/history';
import { AS_DRAWN } from '../core/print/pose';

/** Rows of a history with as little content as possible, for tests; each takes the row it is about. */

type Made<T, Needed extends keyof T> = Pick<T, Needed> & Partial<T>;

export const aVersion = (row: Made<Version, 'id' | 'at'>): Version => ({
  voided: null,
  partId: 'part-1',
  number: 1,
  follows: null,
  recipe: 'round-cap',
  recipeVersion: 1,
  kernels: '',
  printerId: 'printer',
  materialId: 'pla',
  pose: AS_DRAWN,
  quality: 'usual',
  expressions: {},
  parameters: {},
  additions: [],
  mates: [],
  signed: [],
  pAllRight: 0.4,
  reasons: [],
  accepted: [],
  volume: 1000,
  files: {},
  without: {},
  ...row,
});

export const aPrint = (row: Made<Print, 'id' | 'at' | 'versionId'>): Print => ({
  voided: null,
  number: 1,
  pieces: 1,
  hours: 1,
  grams: 5,
  cost: 0.1,
  slice: null,
  hand: 'drawn',
  finished: null,
  noted: false,
  expected: null,
  note: '',
  failed: null,
  practice: false,
  spool: '',
  sliced: {},
  photos: [],
  files: {},
  ...row,
});

export const aTry = (row: Made<Try, 'id' | 'at' | 'printId' | 'mates'>): Try => ({
  voided: null,
  happened: [],
  photos: [],
  by: '',
  note: '',
  ...row,
});

export const aRework = (row: Made<Rework, 'id' | 'at' | 'printId' | 'mateId'>): Rework => ({
  voided: null,
  how: 'ream',
  amount: 0.2,
  by: 'caliper',
  after: 'right',
  note: '',
  ...row,
});
