import type { World } from '../core/bench/world';
import type { Dimension, MeasuredThread } from '../core/job/document';
import type { Edit } from '../core/job/edits';
import { dimensionsForThread } from '../core/job/threads';
import type { Workshop } from '../core/job/workshop';
import { FIRST_WORKSHOP } from '../core/job/workshop';
import type { AdditionKindName } from '../core/shape/additions/addition';

/** The practice bench draws a printer's hidden ways from its id: this one makes holes small, soft ones more so. */
const PRINTER = 'printer-1164';

/** The boathouse workshop of a small rowing club on a lake. All of it is invented. */
export const BOATHOUSE: Workshop = {
  ...FIRST_WORKSHOP,
  name: 'The boathouse',
  practiceBench: true,
  instruments: [
    {
      id: 'calipers',
      name: 'Bench calipers',
      kind: 'calipers',
      resolution: 0.01,
      maxError: 0.03,
      jawLand: 0.6,
    },
    {
      id: 'old-calipers',
      name: 'Calipers from the trailer',
      kind: 'calipers',
      resolution: 0.05,
      maxError: 0.1,
    },
    { id: 'rule', name: 'Steel rule', kind: 'rule', resolution: 0.5, maxError: 0.2 },
    { id: 'tape', name: 'Sailmaker’s tape', kind: 'tape', resolution: 1, maxError: 0.5 },
    { id: 'protractor', name: 'School protractor', kind: 'protractor', resolution: 0.5, maxError: 0.5 },
  ],
  printers: [
    {
      id: PRINTER,
      name: 'Workshop printer',
      bed: { width: 220, depth: 220, height: 220 },
      nozzle: 0.4,
      lineWidth: 0.4,
    },
  ],
};

/** The piece was printed in PETG after the first plug had taken two prints; its readings are the practice bench's. */
export const CALIBRATION = {
  daysAgo: 12,
  id: 'petg-fine',
  printerId: PRINTER,
  materialId: 'petg',
  nozzle: 0.4,
  layer: 0.2,
  note: 'three walls, fan at half',
  times: 2,
};

/** How far a demo job has come: each step is done through the app's own paths. */
export type DemoStep =
  | { do: 'read'; dimension: string; times: number; instrument?: string }
  | { do: 'edit'; edit: Edit }
  /** Readings as typed, on a dimension the practice object does not have. */
  | { do: 'type'; dimension: string; values: number[]; instrument?: string }
  /** A scan of the object, and a size of it that is found there. */
  | { do: 'scan'; label: string; dimension: string }
  | { do: 'version' }
  | { do: 'print'; hours?: number }
  | { do: 'try'; note: string };

export interface DemoJob {
  title: string;
  object: string;
  materialId: string;
  /** A round cap where left out. */
  recipe?: string;
  /** Days before today on which it began. */
  daysAgo: number;
  world: Omit<World, 'seed'>;
  steps: DemoStep[];
}

const parameter = (name: string, text: string, partId = 'part-1'): DemoStep => ({
  do: 'edit',
  edit: {
    kind: 'parameter',
    partId,
    name,
    expression: { text, unit: /^\D+$/.test(text) ? 'none' : 'mm' },
  },
});
const brief = (change: Extract<Edit, { kind: 'brief' }>['brief']): DemoStep => ({
  do: 'edit',
  edit: { kind: 'brief', brief: change },
});

/** The dehumidifier's outlet, on which a hose may be screwed instead. */
const OUTLET: MeasuredThread = {
  id: 'outlet',
  label: 'Outlet',
  side: 'external',
  diameter: 'outlet-major',
  span: 'outlet-span',
  turns: 10,
  ridgeHeight: null,
  ridgeWidth: null,
  hand: null,
  taper: null,
  starts: 1,
  crest: null,
  standard: null,
};

/** Two eyes beside the rail whose distance calipers cannot reach: worked out. */
const eyes = (id: string, label: string, more: Partial<Dimension> = {}): DemoStep => ({
  do: 'edit',
  edit: {
    kind: 'add-dimension',
    dimension: {
      id,
      name: id,
      label,
      kind: 'length',
      critical: false,
      guide: null,
      note: '',
      readings: [],
      ...more,
    },
  },
});

const addition = (partId: string, id: string, kind: AdditionKindName, name: string): DemoStep => ({
  do: 'edit',
  edit: { kind: 'add-addition', partId, addition: { id, kind, name, on: true } },
});

/** Which side it is for, sunk into its end below the hole. */
const lettered = (partId: string, words: string): DemoStep[] => [
  addition(partId, 'words1', 'words', 'Which side'),
  parameter('words1_text', words, partId),
  parameter('words1_height', '4.5', partId),
  parameter('words1_y', '-6', partId),
];

export const JOBS: DemoJob[] = [
  {
    title: 'Wing knob for the foot-stretcher',
    object: 'worn hexagon bolt, training eight',
    materialId: 'petg',
    recipe: 'socket-knob',
    daysAgo: 6,
    world: { sizes: { flats: 12.86, shaft: 16, stub: 10.2 } },
    steps: [
      brief({
        purpose: 'Adjust the foot-stretcher by hand, with cold fingers.',
        ifItBreaks: 'damage',
        hottestC: 45,
        outdoors: true,
        loads: [{ id: 'load-1', words: 'turned hard by hand', forceN: 60, direction: 'round' }],
      }),
      { do: 'read', dimension: 'flats', times: 3 },
      { do: 'read', dimension: 'stub', times: 1 },
      { do: 'version' },
      { do: 'print', hours: 1.1 },
    ],
  },
  {
    title: 'Cradle for the stroke-rate display',
    object: 'display of the cox’s box, quad',
    materialId: 'petg',
    recipe: 'cradle',
    daysAgo: 2,
    world: { sizes: { slab_width: 77.5, slab_thickness: 12.2, slab_height: 61, screw: 4.1 } },
    steps: [
      { do: 'read', dimension: 'slab_width', times: 3 },
      { do: 'read', dimension: 'slab_thickness', times: 2 },
      { do: 'read', dimension: 'slab_height', times: 1 },
      { do: 'read', dimension: 'screw', times: 1 },
      {
        do: 'edit',
        edit: {
          kind: 'part-loads',
          partId: 'part-1',
          loads: [
            {
              id: 'load-1',
              words: 'the cox leans on its rim',
              kind: 'force',
              amount: 120,
              towards: 'right',
              at: 'top',
              held: 'underside',
            },
          ],
        },
      },
      {
        do: 'edit',
        edit: {
          kind: 'part-neighbours',
          partId: 'part-1',
          neighbours: [
            {
              id: 'bolt',
              name: 'head of the seat bolt',
              form: 'round',
              width: 14,
              depth: 14,
              height: 22,
              x: 58,
              y: 4,
              z: 0,
              room: 1,
            },
          ],
        },
      },
      { do: 'edit', edit: { kind: 'goes-on', partId: 'part-1', goesOn: { from: 'top', distance: 60 } } },
    ],
  },
  {
    title: 'Rubbing strip, end piece',
    object: 'gunwale strip, port side, coach’s launch',
    materialId: 'petg',
    recipe: 'profile-part',
    daysAgo: 4,
    world: { sizes: { seat_width: 30.1, seat_height: 21, seat_around: 89.4, seat_depth: 14 } },
    steps: [
      { do: 'read', dimension: 'seat_width', times: 3 },
      { do: 'read', dimension: 'seat_height', times: 2 },
      { do: 'read', dimension: 'seat_depth', times: 1 },
      parameter(
        'outline',
        '0, 0; seat_width, 0 trim -0.5; seat_width, 6; 0, 6 via seat_width / 2, seat_height',
      ),
      parameter('holes', 'seat_width / 2, 11, 4.2'),
      ...lettered('part-1', 'PORT'),
      // The other side of the boat: the same object, the other hand.
      {
        do: 'edit',
        edit: {
          kind: 'add-part',
          id: 'part-2',
          name: 'Starboard end piece',
          recipe: 'profile-part',
          share: true,
        },
      },
      { do: 'edit', edit: { kind: 'rename-part', partId: 'part-1', name: 'Port end piece' } },
      parameter(
        'outline',
        '0, 0; seat_width, 0 trim -0.5; seat_width, 6; 0, 6 via seat_width / 2, seat_height',
        'part-2',
      ),
      parameter('holes', 'seat_width / 2, 11, 4.2', 'part-2'),
      addition('part-2', 'hand1', 'other-hand', 'Other hand'),
      ...lettered('part-2', 'STBD'),
    ],
  },
  {
    title: 'Dehumidifier to the drain pipe',
    object: 'outlet and pipe do not line up',
    materialId: 'petg',
    recipe: 'tube-adapter',
    daysAgo: 3,
    world: { sizes: { tube_a: 32, bore_b: 36.2 } },
    steps: [
      parameter('run', 'offset'),
      parameter('offset', '28'),
      { do: 'read', dimension: 'tube_a', times: 3 },
      { do: 'read', dimension: 'bore_b', times: 3 },
    ],
  },
  {
    title: 'Trestle foot plug',
    object: 'boat trestle, open tube end',
    materialId: 'petg',
    daysAgo: 34,
    world: {
      sizes: {
        bore: 27.84,
        rim: 31.9,
        rim_height: 20,
        groove: 30,
        groove_from: 6,
        groove_width: 3,
        inner_groove: 29,
      },
      // It had another nozzle then.
      printer: { inside: 0.3, outside: 0.12, repeatability: 0.03 },
    },
    steps: [
      brief({
        purpose: 'Keep the sharp tube end off the hulls and the floor.',
        ifItBreaks: 'nuisance',
        hottestC: 35,
        outdoors: true,
        priceToBuy: 4.5,
      }),
      parameter('style', 'into'),
      parameter('tab', 'no'),
      parameter('plugDepth', '14'),
      {
        do: 'edit',
        edit: {
          kind: 'want',
          mateId: 'plug',
          want: { name: 'snug', window: { min: 0.05, max: 0.2, unit: 'mm' }, prefer: 'tight' },
        },
      },
      { do: 'read', dimension: 'bore', times: 3 },
      { do: 'version' },
      { do: 'print', hours: 0.8 },
      { do: 'try', note: 'stops after a few millimetres' },
      { do: 'version' },
      { do: 'print', hours: 0.8 },
      { do: 'try', note: 'pushed home with the palm' },
      { do: 'edit', edit: { kind: 'in-service', since: '2026-10-28T16:10:00.000Z' } },
      {
        do: 'edit',
        edit: {
          kind: 'service-note',
          id: 'note-1',
          at: '2026-11-09T08:30:00.000Z',
          words: 'Still tight after two weeks on the pontoon. Three more wanted for the other feet.',
        },
      },
    ],
  },
  {
    title: 'Vent-port cap',
    object: 'hull vent port, junior double',
    materialId: 'tpu',
    daysAgo: 9,
    world: {
      sizes: {
        rim: 31.7,
        rim_height: 14,
        bore: 24.2,
        groove: 29.4,
        groove_from: 5.6,
        groove_width: 3,
        inner_groove: 25.6,
      },
    },
    steps: [
      brief({
        purpose: 'Keep spray out of the bow compartment; come off by hand to air it after rowing.',
        ifItBreaks: 'damage',
        mustHold: ['water'],
        hottestC: 55,
        outdoors: true,
        loads: [{ id: 'load-1', words: 'pulled off by the tab, one cold hand', forceN: 30, direction: 'up' }],
        obstacles: [{ id: 'obstacle-1', words: 'deck line beside the port', clear: 22 }],
      }),
      parameter('lip', 'skirt'),
      {
        do: 'edit',
        edit: {
          kind: 'want',
          mateId: 'skirt',
          want: { name: 'own', window: { min: 0.004, max: 0.012, unit: 'strain' }, prefer: 'none' },
        },
      },
      {
        do: 'edit',
        edit: {
          kind: 'want',
          mateId: 'lip',
          want: { name: 'click', window: { min: 0.05, max: 0.3, unit: 'mm' }, prefer: 'loose' },
        },
      },
      { do: 'read', dimension: 'rim', times: 3 },
      { do: 'read', dimension: 'rim_height', times: 1 },
      { do: 'read', dimension: 'groove', times: 2, instrument: 'old-calipers' },
      { do: 'read', dimension: 'groove_from', times: 1 },
      { do: 'read', dimension: 'groove_width', times: 1 },
      { do: 'scan', label: 'port from above', dimension: 'rim' },
      { do: 'version' },
      { do: 'print', hours: 0.7 },
      { do: 'try', note: 'two hands, and it pops off again' },
      { do: 'version' },
      { do: 'print', hours: 0.7 },
    ],
  },
  {
    title: 'Rail end cap',
    object: 'handrail of the slipway steps',
    materialId: 'petg',
    daysAgo: 3,
    world: {
      sizes: {
        rim: 42.4,
        rim_height: 18,
        bore: 36.2,
        groove: 40,
        groove_from: 7,
        groove_width: 3,
        inner_groove: 38,
      },
    },
    steps: [
      brief({
        purpose: 'Close the cut tube so that nobody tears a hand or a blazer.',
        ifItBreaks: 'nuisance',
        hottestC: 45,
        outdoors: true,
      }),
      parameter('tab', 'no'),
      { do: 'read', dimension: 'rim', times: 3 },
      { do: 'read', dimension: 'rim_height', times: 1 },
      eyes('eyes_near', 'Lashing eyes: nearest edges', { kind: 'inside' }),
      eyes('eyes_far', 'Lashing eyes: farthest edges', { kind: 'outside' }),
      eyes('eyes', 'Lashing eyes: distance', {
        derived: {
          by: 'formula',
          kind: 'centre-distance',
          inputs: {
            inside: { of: 'dimension', id: 'eyes_near' },
            outside: { of: 'dimension', id: 'eyes_far' },
          },
          counts: {},
        },
      }),
      { do: 'type', dimension: 'eyes_near', values: [58.42] },
      { do: 'type', dimension: 'eyes_far', values: [82.5] },
      { do: 'version' },
    ],
  },
  {
    title: 'Drain plug',
    object: 'outlet of the boathouse dehumidifier',
    materialId: 'petg',
    daysAgo: 1,
    world: {
      sizes: {
        rim: 22.1,
        rim_height: 11,
        bore: 17.3,
        groove: 20.5,
        groove_from: 4,
        groove_width: 2.6,
        inner_groove: 18.6,
      },
    },
    steps: [
      parameter('style', 'both'),
      { do: 'read', dimension: 'rim', times: 1 },
      {
        do: 'edit',
        edit: { kind: 'add-thread', thread: OUTLET, dimensions: dimensionsForThread(OUTLET, 'outlet') },
      },
      { do: 'type', dimension: OUTLET.diameter, values: [26.3, 26.28] },
      { do: 'type', dimension: OUTLET.span, values: [18.14] },
      { do: 'edit', edit: { kind: 'thread', threadId: OUTLET.id, change: { hand: 'right', taper: false } } },
    ],
  },
  {
    title: 'Oar-tube end plug for the sculls that came back from the regatta without one',
    object: 'handle end of a scull, left pair',
    materialId: 'tpu',
    daysAgo: 0,
    world: {
      sizes: {
        rim: 38.2,
        rim_height: 22,
        bore: 33.6,
        groove: 36,
        groove_from: 8,
        groove_width: 3,
        inner_groove: 35,
      },
    },
    steps: [
      {
        do: 'edit',
        edit: {
          kind: 'describe-object',
          leaves: true,
          toRead: [
            { id: 'photo', words: 'A photo of both ends', done: false },
            { id: 'sleeve', words: 'Whether the sleeve is glued', done: true },
          ],
        },
      },
      { do: 'read', dimension: 'rim', times: 1 },
    ],
  },
];
