import fc from 'fast-check';
import type { Mate, MeasuredThread, Photo } from '../core/job/document';
import type { Edit } from '../core/job/edits';
import type { Scan } from '../core/job/scans';
import { dimensionsForThread } from '../core/job/threads';
import type { Trace } from '../core/job/traces';
import { AS_DRAWN } from '../core/print/pose';

const at = '2026-01-01T00:00:00.000Z';
const words = fc.constantFrom('a', 'Vent-port cap', '🦆', 'ein längerer Name');
const dimension = fc.constantFrom('rim', 'bore', 'groove', 'own_1', 't1-d');
const readingId = fc.constantFrom('r1', 'r2', 'r3');
const part = fc.constant('part-1');

const THREAD: MeasuredThread = {
  id: 't1',
  label: 'Outlet',
  side: 'external',
  diameter: 't1-d',
  span: 't1-s',
  turns: 5,
  ridgeHeight: 't1-h',
  ridgeWidth: null,
  hand: null,
  taper: null,
  starts: 1,
  crest: null,
  standard: null,
};
const MODEL = {
  id: 'm1',
  sha256: 'b'.repeat(64),
  label: 'charger plug',
  factor: 1 as const,
  size: [12, 8, 20] as [number, number, number],
  triangles: 240,
  hull: false,
};
const SCAN: Scan = { id: 's1', sha256: 'c'.repeat(64), label: 'rim', unit: 'mm', steps: [] };
const TRACE: Trace = {
  id: 'c1',
  photo: 'p1',
  label: 'face',
  by: { kind: 'sheet', paper: 'a4', middle: 'white', f35: 26 },
  thickness: 2,
  broken: 0.1,
  tolerance: 0.1,
  strokes: [],
  tidy: [],
};
const PHOTO: Photo = {
  id: 'p1',
  sha256: 'a'.repeat(64),
  type: 'image/jpeg',
  width: 40,
  height: 30,
  label: 'front',
};

const LENGTH: Mate = {
  id: 'tall',
  name: 'Height over the deck',
  kind: 'length',
  ours: { of: 'part', part: 'part-1', surface: 'tall' },
  other: { of: 'object', dimension: 'rim_height' },
  number: 'skirtDepth',
  rate: 1,
  tolerance: { min: -0.5, max: 0.1 },
  sense: { more: 'too long', less: 'too short' },
};
const PEG: Mate = {
  id: 'peg',
  name: 'Cap in its ring',
  kind: 'fit',
  ours: { of: 'part', part: 'part-1', surface: 'peg' },
  other: { of: 'object', dimension: 'bore' },
  side: 'outside',
  soft: 'none',
  want: { name: 'slide', window: { min: 0.2, max: 0.45, unit: 'mm' }, prefer: 'none' },
  own: { number: 'skirtDiameter', form: 'round', lying: false },
};

/** Edits of every kind, many of which make no sense for the job they meet. */
export const anyEdit = fc.oneof(
  fc.record({
    kind: fc.constant('add-addition' as const),
    partId: part,
    addition: fc.record({
      id: fc.constantFrom('hole1', 'tab1'),
      kind: fc.constantFrom('hole' as const, 'shape' as const, 'words' as const),
      name: words,
      on: fc.boolean(),
    }),
  }),
  fc.record({
    kind: fc.constant('addition' as const),
    partId: part,
    additionId: fc.constantFrom('hole1', 'tab1'),
    change: fc.record({ name: words, on: fc.boolean() }, { requiredKeys: [] }),
  }),
  fc.record({
    kind: fc.constant('move-addition' as const),
    partId: part,
    additionId: fc.constantFrom('hole1', 'tab1'),
    by: fc.constantFrom(1 as const, -1 as const),
  }),
  fc.record({
    kind: fc.constant('remove-addition' as const),
    partId: part,
    additionId: fc.constantFrom('hole1', 'tab1'),
  }),
  fc.record({
    kind: fc.constant('addition-fits' as const),
    partId: part,
    additionId: fc.constantFrom('hole1', 'tab1'),
    dimensionId: fc.constantFrom('rim', 'bore', null),
  }),
  fc.record({
    kind: fc.constant('add-part' as const),
    id: fc.constantFrom('part-2', 'part-3'),
    name: words,
    recipe: fc.constantFrom('round-cap', 'bush'),
    share: fc.boolean(),
  }),
  fc.record({ kind: fc.constant('remove-part' as const), partId: fc.constantFrom('part-1', 'part-2') }),
  fc.record({
    kind: fc.constant('rename-part' as const),
    partId: fc.constantFrom('part-1', 'part-2'),
    name: words,
  }),
  fc.record({
    kind: fc.constant('mate-with' as const),
    mateId: fc.constantFrom('skirt', 'part-2-bore', 'part-2-outside', 'part-2-skirt'),
    other: fc.oneof(
      fc.constant({ of: 'object' as const, dimension: 'rim' }),
      fc.record({
        of: fc.constant('part' as const),
        part: fc.constantFrom('part-1', 'part-2'),
        surface: fc.constantFrom('skirt', 'outside', 'bore'),
      }),
    ),
  }),
  fc.record({
    kind: fc.constant('goes-on' as const),
    partId: part,
    goesOn: fc.constantFrom(null, { from: 'top' as const, distance: 30 }),
  }),
  fc.record({ kind: fc.constant('rename' as const), title: words }),
  fc.record({ kind: fc.constant('describe-object' as const), name: words, leaves: fc.boolean() }),
  fc.record({
    kind: fc.constant('brief' as const),
    brief: fc.record({
      purpose: words,
      ifItBreaks: fc.constantFrom('nuisance' as const, 'injury' as const, null),
      mustHold: fc.subarray(['water' as const, 'air' as const, 'dust' as const]),
    }),
  }),
  fc.record({
    kind: fc.constant('add-reading' as const),
    dimensionId: dimension,
    reading: fc.record({
      id: readingId,
      value: fc.integer({ min: 1, max: 900 }).map(n => n / 10),
      text: fc.constant('x'),
      unit: fc.constant('mm' as const),
      at: fc.constant(at),
      instrumentId: fc.constant(null),
      source: fc.constantFrom('seat' as const, 'old-part' as const, 'said' as const),
      via: fc.constant('typed' as const),
      struck: fc.constant(null),
    }),
  }),
  fc.record({ kind: fc.constant('take-back-reading' as const), dimensionId: dimension, readingId }),
  fc.record({
    kind: fc.constant('strike-reading' as const),
    dimensionId: dimension,
    readingId,
    reason: fc.constantFrom('a slip', null),
  }),
  fc.record({
    kind: fc.constant('add-dimension' as const),
    dimension: fc.constant({
      id: 'own_1',
      name: 'own_1',
      label: 'Own',
      kind: 'length' as const,
      critical: false,
      guide: null,
      note: '',
      readings: [],
    }),
  }),
  fc.record({
    kind: fc.constant('describe-dimension' as const),
    dimensionId: dimension,
    note: words,
    correctJaws: fc.boolean(),
    mark: fc.constantFrom(
      null,
      { on: 'p1', from: [0.1, 0.1], to: [0.4, 0.1] },
      { on: 'drawing', from: [0, 0], to: [9, 0] },
    ),
  }),
  fc.record({
    kind: fc.constant('derive' as const),
    dimensionId: dimension,
    derived: fc.constantFrom(
      null,
      { by: 'expression' as const, expression: { text: 'bore / 2 + 0.4', unit: 'mm' as const } },
      { by: 'expression' as const, expression: { text: 'rim + own_1', unit: 'mm' as const } },
      {
        by: 'formula' as const,
        kind: 'centre-distance',
        inputs: {
          inside: { of: 'dimension' as const, id: 'bore' },
          outside: { of: 'number' as const, value: 44.1, u: 0.02 },
        },
        counts: {},
      },
    ),
  }),
  fc.record({
    kind: fc.constant('add-thread' as const),
    thread: fc.constant(THREAD),
    dimensions: fc.constant(dimensionsForThread(THREAD, 'outlet')),
  }),
  fc.record({
    kind: fc.constant('thread' as const),
    threadId: fc.constantFrom('t1', 't2'),
    change: fc.constantFrom(
      { hand: 'left' as const },
      { turns: 4, standard: 'G 1/4' },
      { starts: 2, taper: true },
    ),
  }),
  fc.record({ kind: fc.constant('remove-thread' as const), threadId: fc.constant('t1') }),
  fc.record({ kind: fc.constant('add-photo' as const), photo: fc.constant(PHOTO) }),
  fc.record({
    kind: fc.constant('label-photo' as const),
    photoId: fc.constantFrom('p1', 'p2'),
    label: words,
  }),
  fc.record({ kind: fc.constant('remove-photo' as const), photoId: fc.constant('p1') }),
  fc.record({ kind: fc.constant('add-model' as const), model: fc.constant(MODEL) }),
  fc.record({
    kind: fc.constant('model' as const),
    modelId: fc.constantFrom('m1', 'm2'),
    change: fc.constantFrom({ label: 'plug' }, { factor: 25.4 as const }),
  }),
  fc.record({ kind: fc.constant('remove-model' as const), modelId: fc.constant('m1') }),
  fc.record({
    kind: fc.constant('add-trace' as const),
    trace: fc.constantFrom(TRACE, { ...TRACE, id: 'c2' }),
  }),
  fc.record({
    kind: fc.constant('trace' as const),
    traceId: fc.constantFrom('c1', 'c2'),
    change: fc.constantFrom<Extract<Edit, { kind: 'trace' }>['change']>(
      { thickness: 3 },
      { tidy: ['square 0.1 0.3'] },
      {
        parting: [
          { as: 'out', at: [10, 20] },
          { as: 'height', at: [30, 20], height: 4 },
        ],
      },
      { inside: [10, 20] },
      { inside: null },
      { trust: { factor: 1.002, u: 0.0005 } },
      { refused: 'taken askew' },
      { refused: null },
      { trust: null },
      {
        strokes: [
          {
            id: 'k1',
            object: false,
            at: [
              [1, 2],
              [3, 4],
            ],
            wide: 20,
          },
        ],
      },
      { by: { kind: 'flatbed', dpi: { x: 600, y: 600 }, from: 'glass' } },
    ),
  }),
  fc.record({ kind: fc.constant('remove-trace' as const), traceId: fc.constantFrom('c1', 'c2') }),
  fc.record({ kind: fc.constant('add-scan' as const), scan: fc.constant(SCAN) }),
  fc.record({
    kind: fc.constant('scan' as const),
    scanId: fc.constantFrom('s1', 's2'),
    change: fc.constantFrom(
      { label: 'rim again' },
      { unit: 'in' as const },
      { trust: { factor: 1.004, u: 0.001 } },
      { trust: null },
      { refused: 'it slipped' },
      { refused: null },
      { steps: [{ id: 'i', kind: 'without-islands' as const, share: 0.01 }] },
    ),
  }),
  fc.record({ kind: fc.constant('remove-scan' as const), scanId: fc.constant('s1') }),
  fc.record({ kind: fc.constant('remove-dimension' as const), dimensionId: dimension }),
  fc.record({
    kind: fc.constant('want' as const),
    mateId: fc.constantFrom('skirt', 'plug', 'nothing'),
    want: fc.constantFrom(
      {
        name: 'snug' as const,
        window: { min: 0.05, max: 0.2, unit: 'mm' as const },
        prefer: 'none' as const,
      },
      {
        name: 'stretch' as const,
        window: { min: 0.01, max: 0.03, unit: 'strain' as const },
        prefer: 'loose' as const,
      },
    ),
  }),
  fc.record({
    kind: fc.constant('parameter' as const),
    partId: part,
    name: fc.constantFrom('style', 'lip', 'wall', 'skirtDepth', 'nothing'),
    expression: fc.constantFrom(
      { text: 'both', unit: 'none' as const },
      { text: 'rim / 4', unit: 'mm' as const },
      { text: '2', unit: 'mm' as const },
      null,
    ),
  }),
  fc.record({
    kind: fc.constant('material' as const),
    partId: part,
    materialId: fc.constantFrom('pla', 'tpu', 'gold'),
  }),
  fc.record({
    kind: fc.constant('printer' as const),
    partId: part,
    printerId: fc.constantFrom('printer', 'other'),
  }),
  fc.record({
    kind: fc.constant('pose' as const),
    partId: part,
    pose: fc.constantFrom(AS_DRAWN, { down: [0, -1, 0] as const, turn: 30 }),
  }),
  fc.record({
    kind: fc.constant('quality' as const),
    partId: part,
    quality: fc.constantFrom('draft' as const, 'fine' as const),
  }),
  fc.record({ kind: fc.constant('in-service' as const), since: fc.constantFrom(at, null) }),
  fc.record({
    kind: fc.constant('service-note' as const),
    id: fc.constantFrom('n1', 'n2'),
    at: fc.constant(at),
    words,
  }),
  fc.record({ kind: fc.constant('look-again' as const), at: fc.constantFrom(at, null) }),
  fc.record({
    kind: fc.constant('put-away' as const),
    away: fc.constantFrom(
      null,
      { how: 'archived' as const, at },
      { how: 'removed' as const, at },
      { how: 'recipe' as const, at },
    ),
  }),
  fc.record({ kind: fc.constant('add-mate' as const), mate: fc.constantFrom(LENGTH, PEG) }),
  fc.record({
    kind: fc.constant('change-mate' as const),
    mateId: fc.constantFrom('tall', 'peg', 'skirt'),
    name: words,
  }),
  fc.record({
    kind: fc.constant('change-mate' as const),
    mateId: fc.constantFrom('tall', 'skirt'),
    tolerance: fc.constantFrom({ min: -1, max: 0.5 }, { min: 0, max: 0.2 }),
  }),
  fc.record({
    kind: fc.constant('drop-mate' as const),
    mateId: fc.constantFrom('tall', 'peg', 'skirt', 'lip'),
    stays: fc.constantFrom(null, { text: '30', unit: 'mm' as const }),
  }),
  fc.record({
    kind: fc.constant('propose-mate' as const),
    partId: part,
    surface: fc.constantFrom('skirt', 'lip', 'none'),
  }),
) as fc.Arbitrary<Edit>;
