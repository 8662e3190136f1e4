import { formatPlain } from '../quantity/format';
import type { Doubt } from './uncertainty';
import { combine } from './uncertainty';

/**
 * What cannot be measured directly, from what can. Each kind is a formula over named quantities; its uncertainty is
 * propagated by the law of JCGM 100:2008, 5.1.2, with sensitivities from small central differences (5.1.3, note 2).
 * Lengths mm, angles degrees.
 */
export interface DerivedQuantity {
  value: number;
  u: number;
}

export interface DeriveSlot {
  key: string;
  label: string;
  /** How it is read, in a few words. */
  how: string;
}

export interface DeriveCount {
  key: string;
  label: string;
  default: number;
  min: number;
  max: number;
  /** Whole numbers only; else a fraction may be given. */
  whole: boolean;
}

export interface DeriveKind {
  id: string;
  title: string;
  /** When to use it. */
  purpose: string;
  result: 'length' | 'angle';
  slots: readonly DeriveSlot[];
  counts: readonly DeriveCount[];
  /** The formula with the slots' names in it, for `worked` to fill with numbers. */
  formula: string;
  /** @throws RangeError with words for an impossible input */
  compute(q: Readonly<Record<string, number>>): number;
}

const slot = (key: string, label: string, how: string): DeriveSlot => ({ key, label, how });
const DEGREES = 180 / Math.PI;

function requireThat(holds: boolean, message: string): void {
  if (!holds) throw new RangeError(message);
}

export const DERIVE_KINDS: readonly DeriveKind[] = [
  {
    id: 'radius',
    title: 'Radius from a diameter',
    purpose: 'A drawing asks for the radius; calipers read diameters.',
    result: 'length',
    slots: [slot('diameter', 'diameter', 'outside or inside jaws across the middle')],
    counts: [],
    formula: 'diameter / 2',
    compute: q => q.diameter! / 2,
  },
  {
    id: 'diameter-from-tape',
    title: 'Diameter from a tape round the outside',
    purpose: 'Too big for the jaws, or soft: a tape gives the mean diameter.',
    result: 'length',
    slots: [
      slot('around', 'around', 'tape once round, pulled snug, read where it meets itself'),
      slot('tape', 'tape thickness', 'jaws on the tape itself'),
    ],
    counts: [],
    formula: 'around / π − tape',
    compute: q => q.around! / Math.PI - q.tape!,
  },
  {
    id: 'centre-distance',
    title: 'Centre distance, inside and outside',
    purpose: 'Two holes or two pins: nearest and farthest edges, no diameters needed.',
    result: 'length',
    slots: [
      slot('inside', 'nearest edges', 'between the two, the smallest gap'),
      slot('outside', 'farthest edges', 'over both, the largest'),
    ],
    counts: [],
    formula: '(inside + outside) / 2',
    compute: q => {
      requireThat(
        q.outside! > q.inside!,
        'The farthest edges must be farther apart than the nearest: have they changed places?',
      );
      return (q.inside! + q.outside!) / 2;
    },
  },
  {
    id: 'centre-distance-from-gap',
    title: 'Centre distance, gap and diameters',
    purpose: 'When only the gap between two round things can be reached.',
    result: 'length',
    slots: [
      slot('inside', 'gap', 'between the two, the smallest'),
      slot('first', 'first diameter', 'outside jaws'),
      slot('second', 'second diameter', 'outside jaws'),
    ],
    counts: [],
    formula: 'inside + (first + second) / 2',
    compute: q => q.inside! + (q.first! + q.second!) / 2,
  },
  {
    id: 'radius-from-chord',
    title: 'Radius from chord and height',
    purpose: 'A curved edge of which only a piece is there.',
    result: 'length',
    slots: [
      slot('chord', 'chord', 'straight across the piece, end to end'),
      slot('height', 'height', 'from the chord to the arc in the middle'),
    ],
    counts: [],
    formula: 'chord² / (8 · height) + height / 2',
    compute: q => {
      requireThat(q.height! > 0, 'The height must be above 0: a straight edge has no radius.');
      return q.chord! ** 2 / (8 * q.height!) + q.height! / 2;
    },
  },
  {
    id: 'circle-through-three',
    title: 'Circle through three points',
    purpose: 'A round edge you can only reach at three places, or read off a scan on a flatbed.',
    result: 'length',
    slots: ['1', '2', '3'].flatMap(n => [
      slot(`x${n}`, `x of point ${n}`, 'from any corner, along'),
      slot(`y${n}`, `y of point ${n}`, 'from the same corner, up'),
    ]),
    counts: [],
    formula: 'a · b · c / (2 · area of the triangle)',
    compute: q => circleThrough([q.x1!, q.y1!], [q.x2!, q.y2!], [q.x3!, q.y3!]),
  },
  {
    id: 'across-corners',
    title: 'Across corners from across flats',
    purpose: 'A hexagon’s corners are worn; its flats are not.',
    result: 'length',
    slots: [slot('flats', 'across flats', 'jaws on two facing flats')],
    counts: [{ key: 'sides', label: 'sides', default: 6, min: 4, max: 60, whole: true }],
    formula: 'flats / cos(180° / sides)',
    compute: q => q.flats! / Math.cos(Math.PI / evenSides(q.sides!)),
  },
  {
    id: 'flats-from-corners',
    title: 'Across flats from across corners',
    purpose: 'The flats cannot be reached, two sharp corners can.',
    result: 'length',
    slots: [slot('corners', 'across corners', 'jaws on two facing corners, the largest')],
    counts: [{ key: 'sides', label: 'sides', default: 6, min: 4, max: 60, whole: true }],
    formula: 'corners · cos(180° / sides)',
    compute: q => q.corners! * Math.cos(Math.PI / evenSides(q.sides!)),
  },
  {
    id: 'taper',
    title: 'Half-angle of a taper',
    purpose: 'A cone that two sizes and the length between them give.',
    result: 'angle',
    slots: [
      slot('large', 'large end', 'jaws at the large end'),
      slot('small', 'small end', 'jaws at the small end'),
      slot('length', 'length between', 'along the axis, between the two places'),
    ],
    counts: [],
    formula: 'atan((large − small) / (2 · length))',
    compute: q => {
      requireThat(q.length! > 0, 'The length between the two places must be above 0.');
      return Math.atan((q.large! - q.small!) / (2 * q.length!)) * DEGREES;
    },
  },
  {
    id: 'taper-stop',
    title: 'Where a bore stops on a taper',
    purpose: 'How far from the large end a ring of a known bore comes to rest.',
    result: 'length',
    slots: [
      slot('large', 'large end', 'jaws at the large end'),
      slot('small', 'small end', 'jaws at the small end'),
      slot('length', 'length between', 'along the axis'),
      slot('bore', 'bore of the ring', 'inside jaws'),
    ],
    counts: [],
    formula: '(large − bore) / (large − small) · length',
    compute: q => {
      requireThat(q.large! > q.small!, 'The large end must be larger than the small one.');
      requireThat(
        q.bore! <= q.large! && q.bore! >= q.small!,
        'The bore must lie between the two ends, or the ring never stops on this taper.',
      );
      return ((q.large! - q.bore!) / (q.large! - q.small!)) * q.length!;
    },
  },
  {
    id: 'pitch',
    title: 'Pitch from a span over turns',
    purpose: 'One turn is too short to read well: measure over as many as the jaws reach.',
    result: 'length',
    slots: [slot('span', 'span', 'from one ridge to the same place on another')],
    counts: [{ key: 'turns', label: 'turns between', default: 5, min: 0.25, max: 500, whole: false }],
    formula: 'span / turns',
    compute: q => {
      requireThat(q.turns! > 0, 'Count at least one turn.');
      return q.span! / q.turns!;
    },
  },
  {
    id: 'wall',
    title: 'Wall from outside and inside',
    purpose: 'A wall the jaws do not reach round.',
    result: 'length',
    slots: [
      slot('outside', 'outside', 'outside jaws'),
      slot('inside', 'inside', 'inside jaws, at the same place'),
    ],
    counts: [],
    formula: '(outside − inside) / 2',
    compute: q => {
      requireThat(
        q.outside! > q.inside!,
        'The outside must be larger than the inside: have they changed places?',
      );
      return (q.outside! - q.inside!) / 2;
    },
  },
  {
    id: 'depth-step',
    title: 'A step between two depths',
    purpose: 'A ledge deep in a hole: two depths from the same edge.',
    result: 'length',
    slots: [
      slot('deep', 'deeper depth', 'depth rod from the edge'),
      slot('shallow', 'shallower depth', 'depth rod from the same edge'),
    ],
    counts: [],
    formula: 'deep − shallow',
    compute: q => q.deep! - q.shallow!,
  },
  {
    id: 'angle-from-offsets',
    title: 'Angle from two offsets',
    purpose: 'A slope without a protractor: its height at two places.',
    result: 'angle',
    slots: [
      slot('near', 'first height', 'from a straight edge to the slope'),
      slot('far', 'second height', 'the same, farther along'),
      slot('between', 'distance between', 'along the straight edge'),
    ],
    counts: [],
    formula: 'atan((far − near) / between)',
    compute: q => {
      requireThat(q.between! > 0, 'The two places must be apart.');
      return Math.atan((q.far! - q.near!) / q.between!) * DEGREES;
    },
  },
  {
    id: 'bolt-circle',
    title: 'Bolt circle from neighbouring holes',
    purpose: 'Holes on a circle whose middle cannot be reached.',
    result: 'length',
    slots: [slot('chord', 'between neighbours', 'centre distance of two neighbouring holes')],
    counts: [{ key: 'holes', label: 'holes', default: 5, min: 3, max: 100, whole: true }],
    formula: 'chord / sin(180° / holes)',
    compute: q => q.chord! / Math.sin(Math.PI / q.holes!),
  },
  {
    id: 'in-between-size',
    title: 'A size between two of a family',
    purpose: 'The missing size: between the two you have.',
    result: 'length',
    slots: [
      slot('below', 'size below', 'the smaller neighbour'),
      slot('above', 'size above', 'the larger neighbour'),
    ],
    counts: [
      { key: 'step', label: 'how far between (0.5 is midway)', default: 0.5, min: 0, max: 1, whole: false },
    ],
    formula: 'below + step · (above − below)',
    compute: q => q.below! + q.step! * (q.above! - q.below!),
  },
  {
    id: 'small-bore',
    title: 'Small bore under flat inside jaws',
    purpose: 'The jaws have flats, called lands, and span a chord: a small bore reads short.',
    result: 'length',
    slots: [
      slot('reading', 'reading', 'inside jaws, the largest'),
      slot(
        'land',
        'jaw land',
        'width of the flat on the tip of one inside jaw, both together if they lie side by side',
      ),
    ],
    counts: [],
    formula: '√(reading² + land²)',
    compute: q => Math.hypot(q.reading!, q.land!),
  },
];

function evenSides(sides: number): number {
  requireThat(
    sides % 2 === 0,
    `A shape of ${formatPlain(sides)} sides has no facing flats: the count must be even.`,
  );
  return sides;
}

function circleThrough(
  a: readonly [number, number],
  b: readonly [number, number],
  c: readonly [number, number],
): number {
  const length = (p: readonly [number, number], q: readonly [number, number]) =>
    Math.hypot(p[0] - q[0], p[1] - q[1]);
  const cross = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  const [x, y, z] = [length(a, b), length(b, c), length(c, a)];
  const longest = Math.max(x, y, z);
  // Relative to the triangle's own size: points that are nearly in line do not determine a circle.
  requireThat(
    Math.abs(cross) > 1e-6 * longest ** 2,
    'The three points lie in a line or on each other: take them farther apart.',
  );
  return (x * y * z) / Math.abs(cross);
}

export const deriveKind = (id: string) => DERIVE_KINDS.find(k => k.id === id);

export interface Derived {
  value: number;
  u: number;
  /** The share of each input, mm or degrees. */
  budget: Doubt[];
  /** The formula with the numbers in it. */
  worked: string;
}

/** The step of a sensitivity relative to the quantity's own size. */
const STEP = 1e-6;

/**
 * @param quantities by the kind's slot keys @param counts by the kind's count keys, defaults where left out
 * @throws RangeError for a missing or impossible input, in words
 */
export function derive(
  kind: DeriveKind,
  quantities: Readonly<Record<string, DerivedQuantity>>,
  counts: Readonly<Record<string, number>> = {},
): Derived {
  const numbers: Record<string, number> = {};
  for (const { key, label } of kind.slots) {
    const q = quantities[key];
    if (!q || !Number.isFinite(q.value)) throw new RangeError(`The ${label} is missing: measure it first.`);
    if (!(q.u >= 0)) throw new RangeError(`The uncertainty of the ${label} must be 0 or more.`);
    numbers[key] = q.value;
  }
  for (const c of kind.counts) {
    const value = counts[c.key] ?? c.default;
    if (!(value >= c.min && value <= c.max) || (c.whole && !Number.isInteger(value))) {
      throw new RangeError(
        `The number of ${c.label} must be ${c.whole ? 'a whole number ' : ''}from ${c.min} to ${c.max}, got ${value}.`,
      );
    }
    numbers[c.key] = value;
  }
  const value = kind.compute(numbers);
  const budget = kind.slots.map(({ key, label }) => ({
    name: label,
    u: Math.abs(sensitivity(kind.compute, numbers, key)) * quantities[key]!.u,
    degreesOfFreedom: Infinity,
  }));
  return { value, u: combine(budget), budget, worked: worked(kind, numbers, value) };
}

/** ∂f/∂x by a central difference; from one side where the other is impossible. */
export function sensitivity(
  f: (q: Record<string, number>) => number,
  at: Record<string, number>,
  key: string,
): number {
  const h = STEP * Math.max(1, Math.abs(at[key]!));
  const beside = (by: number) => {
    try {
      return f({ ...at, [key]: at[key]! + by });
    } catch (error) {
      if (error instanceof RangeError) return undefined;
      throw error;
    }
  };
  const [low, high] = [beside(-h), beside(h)];
  if (low !== undefined && high !== undefined) return (high - low) / (2 * h);
  const here = f(at);
  if (high !== undefined) return (high - here) / h;
  if (low !== undefined) return (here - low) / h;
  return 0;
}

/** “(28.40 + 44.10) / 2 = 36.25”: each name replaced by its number. */
function worked(kind: DeriveKind, numbers: Readonly<Record<string, number>>, value: number): string {
  const names = [...kind.slots, ...kind.counts].map(s => s.key).sort((a, b) => b.length - a.length);
  const filled = kind.formula.replace(new RegExp(`\\b(${names.join('|')})\\b`, 'g'), name =>
    formatPlain(numbers[name]!, 3),
  );
  return `${filled} = ${formatPlain(value, 3)}${kind.result === 'angle' ? '°' : ' mm'}`;
}
