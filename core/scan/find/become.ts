import type { FindingKind, FoundSize, ScanFinding } from './findings';
import { besideOf, leanOf } from './relations';

/** Which recipes suit a scanned object, and which findings answer which steps of their guides. */

type Thing = Pick<ScanFinding, 'kind' | 'title' | 'sizes' | 'area' | 'axis' | 'centre' | 'coverage'>;

interface Asks {
  /** Step of the recipe's guide. */
  step: string;
  of: readonly FindingKind[];
  side: FoundSize['kind'];
  /** It lies on the first one's axis, and is smaller by at most this share. */
  on?: { smallerBy: number };
  /** It goes at right angles to the first one. */
  square?: true;
  /** A larger one would be something else, mm. Common practice, no source. */
  upTo?: number;
  /** The recipe makes no sense without it. */
  must?: true;
}

const ROUND: readonly FindingKind[] = ['cylinder'];
const outside = (step: string, more: Partial<Asks> = {}): Asks => ({
  step,
  of: ROUND,
  side: 'outside',
  ...more,
});
const bore = (step: string, more: Partial<Asks> = {}): Asks => ({ step, of: ROUND, side: 'inside', ...more });
const must = { must: true } as const;
/** Both directions across a rectangle. */
const rectangle = (wide: string, deep: string, side: 'outside' | 'inside'): Asks[] => [
  { step: wide, of: ['across'], side, ...must },
  { step: deep, of: ['across'], side, square: true, ...must },
];

/** By recipe; what is on the first one's axis belongs to it. Tried on scans of known objects. */
const ASKED: Readonly<Record<string, readonly Asks[]>> = {
  'round-cap': [
    outside('rim', must),
    outside('groove', { on: { smallerBy: 0.25 } }),
    bore('bore', { on: { smallerBy: 1 } }),
  ],
  'tube-adapter': [outside('tube_a', must), bore('bore_a', { on: { smallerBy: 1 } })],
  'tube-clip': [outside('tube', must)],
  bush: [bore('seat', must)],
  'stepped-sleeve': [bore('bore', must)],
  'board-tray': [bore('tube', must)],
  'tool-block': [outside('tool', must)],
  'socket-knob': [
    { step: 'flats', of: ['hexagon'], side: 'outside', must: true },
    outside('shaft', { on: { smallerBy: 1 } }),
  ],
  'drive-blade': [{ step: 'slot', of: ['slot'], side: 'inside', must: true }],
  'plate-adapter': [{ step: 'across_a', of: ['pitch'], side: 'length', must: true }],
  'wall-plate': [{ step: 'apart', of: ['pitch'], side: 'length', must: true }],
  'section-cap': rectangle('rim_width', 'rim_depth', 'outside'),
  'duct-adapter': rectangle('duct_width_a', 'duct_depth_a', 'outside'),
  'profile-part': rectangle('seat_width', 'seat_height', 'inside'),
  'hinge-leaf': [outside('pin', { upTo: 12, ...must })],
  'screw-handle': [{ step: 'apart', of: ['pitch'], side: 'length', ...must }],
  'rim-fork': [{ step: 'bead', of: ['across'], side: 'outside', upTo: 15, ...must }],
  cradle: [{ step: 'slab_thickness', of: ['across'], side: 'outside', must: true }],
};

export interface Becoming {
  recipe: string;
  /** By step of the guide: the finding, and which of its sizes. */
  takes: { step: string; finding: number; size: number }[];
  /** The share of what was seen that it uses, 0 to 1. */
  share: number;
}

export function becomes(findings: readonly Thing[]): Becoming[] {
  const whole = findings.reduce((sum, f) => sum + (f.kind === 'across' ? 0 : f.area), 0) || 1;
  return Object.keys(ASKED)
    .flatMap(recipe => {
      const takes = takesFor(recipe, findings);
      if (takes.length === 0) return [];
      const used = new Set(takes.map(t => t.finding));
      return [
        {
          recipe,
          takes,
          share: Math.min(1, [...used].reduce((sum, i) => sum + findings[i]!.area, 0) / whole),
        },
      ];
    })
    .sort((a, b) => b.share - a.share || b.takes.length - a.takes.length);
}

/** The findings that answer the steps of one recipe's guide; none where a required one is missing. */
export function takesFor(recipe: string, findings: readonly Thing[]): Becoming['takes'] {
  const takes: Becoming['takes'] = [];
  let first: Thing | undefined;
  for (const ask of ASKED[recipe] ?? []) {
    const found = findings
      .map((thing, index) => ({ thing, index, size: thing.sizes.findIndex(s => s.kind === ask.side) }))
      .filter(
        ({ thing, index, size }) =>
          size >= 0 &&
          ask.of.includes(thing.kind) &&
          takes.every(t => t.finding !== index) &&
          thing.sizes[size]!.value <= (ask.upTo ?? Infinity) &&
          (!ask.square || (first !== undefined && isSquareTo(first, thing))) &&
          (!ask.on || (first !== undefined && isOnAxis(first, thing, ask.on.smallerBy))),
      )
      .sort((a, b) => b.thing.area - a.thing.area)[0];
    if (!found) {
      if (ask.must) return [];
      continue;
    }
    first ??= found.thing;
    takes.push({ step: ask.step, finding: found.index, size: found.size });
  }
  return takes;
}

/** How far beside an axis still counts as on it, mm, and how far it may lean, degrees. */
const [BESIDE, LEANING] = [0.8, 4];

const isSquareTo = (first: Thing, other: Thing): boolean =>
  first.axis !== null && other.axis !== null && leanOf(first.axis, other.axis) > 90 - LEANING;

function isOnAxis(first: Thing, other: Thing, smallerBy: number): boolean {
  if (!first.axis || !other.axis || leanOf(first.axis, other.axis) > LEANING) return false;
  const beside = besideOf({ axis: first.axis, centre: first.centre }, other);
  const [a, b] = [first.sizes[0]!.value, other.sizes[0]!.value];
  return beside < BESIDE && b < a && b > (1 - smallerBy) * a;
}

/** “round outside of 31.8, bore of 24.3”: what it is, the largest first. */
export function wordsFor(findings: readonly Thing[]): string {
  const said = findings
    .filter(f => f.sizes.length > 0 && f.kind !== 'across')
    .sort((a, b) => b.area - a.area)
    .slice(0, 3)
    .map(f => `${f.title.toLowerCase()} of ${f.sizes[0]!.value.toFixed(1)}`);
  return said.join(', ');
}
