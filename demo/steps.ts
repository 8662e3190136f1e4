import type { World } from '../core/bench/world';
import type { Dimension, MeasuredThread } from '../core/job/document';
import type { Edit } from '../core/job/edits';
import type { AdditionKindName } from '../core/shape/additions/addition';

/** How far a demo job has progressed: each step is done through the app's own paths. */
export type DemoStep =
  | { do: 'read'; dimension: string; times: number; instrument?: string }
  | { do: 'edit'; edit: Edit }
  /** Readings as typed, on a dimension the practice object does not have. */
  | { do: 'type'; dimension: string; values: number[]; instrument?: string }
  /** A scan of the object, and a size that is found on it. */
  | { do: 'scan'; label: string; dimension: string }
  /** A scan of an object that the part follows, with its sizes. */
  | { do: 'follow'; label: string }
  /** A photo of its flat face on the reference sheet, traced; both bars and the thickness read. */
  | { do: 'photo'; label: string }
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

export const parameter = (name: string, text: string, partId = 'part-1'): DemoStep => ({
  do: 'edit',
  edit: {
    kind: 'parameter',
    partId,
    name,
    expression: { text, unit: /^\D+$/.test(text) ? 'none' : 'mm' },
  },
});
export const brief = (change: Extract<Edit, { kind: 'brief' }>['brief']): DemoStep => ({
  do: 'edit',
  edit: { kind: 'brief', brief: change },
});

/** The dehumidifier's outlet, on which a hose may be screwed instead. */
export const OUTLET: MeasuredThread = {
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
export const eyes = (id: string, label: string, more: Partial<Dimension> = {}): DemoStep => ({
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

export const addition = (partId: string, id: string, kind: AdditionKindName, name: string): DemoStep => ({
  do: 'edit',
  edit: { kind: 'add-addition', partId, addition: { id, kind, name, on: true } },
});

/** Which side it is for, sunk into its end below the hole. */
export const lettered = (partId: string, words: string): DemoStep[] => [
  addition(partId, 'words1', 'words', 'Which side'),
  parameter('words1_text', words, partId),
  parameter('words1_height', '4.5', partId),
  parameter('words1_y', '-6', partId),
];
