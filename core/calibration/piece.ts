import type { DrawPoint } from '../shape/drawing/drawing';
import type { SizeKind } from './size-kind';

/**
 * The calibration piece: a flat plate with holes, slots, pegs, ribs and steps of several sizes in both
 * directions of the bed. It is printed and read once for each printer, nozzle, plastic and setting.
 * Lengths mm, x left to right and y front to back on the bed, z up. Pegs and ribs stand on the plate and holes are
 * relieved below, so that the first layer's bulge touches none of them.
 */
export const PLATE = {
  width: 80,
  depth: 60,
  /** The foot lies on the bed and bulges; the deck on top of it is smaller all round and does not. */
  foot: 0.6,
  thickness: 1.8,
  inset: 1,
  /** Across the deck's cut corners, whose flats are square to the diagonals (a 3-4-5 plate). */
  diagonal: 92,
  /** Pegs and ribs above the deck. */
  proud: 5,
  /** Holes and slots are this much wider on each side below. */
  relief: 0.6,
  text: { height: 3, proud: 0.4 },
} as const;

export type Direction = 'left-right' | 'front-back';

export interface Feature {
  id: string;
  kind: SizeKind | 'foot' | 'diagonal';
  /** The size to be read, as drawn. */
  size: number;
  /** The direction in which it is measured; null for round features, heights and diagonals. */
  direction: Direction | null;
  label: string;
  how: string;
  /** For a round feature: its centre. */
  centre?: DrawPoint;
  /** For others: the corner nearest the front left, and the opposite one. */
  box?: readonly [number, number, number, number];
  /** The size raised beside it, its middle. */
  text?: DrawPoint;
}

const round = (
  kind: 'hole' | 'peg',
  size: number,
  centre: DrawPoint,
  text: DrawPoint = [centre[0] + size / 2 + (size > 9 ? 3.4 : 2.2), centre[1]],
): Feature => ({
  id: `${kind}-${size}`,
  kind,
  size,
  direction: null,
  label: `${kind === 'hole' ? 'Hole' : 'Peg'} ${size}`,
  how:
    kind === 'hole'
      ? 'Inside jaws, from above, opened to the widest. Turn a quarter between readings.'
      : 'Jaw tips halfway up, below the last layer. Turn a quarter between readings.',
  centre,
  text,
});

/** Slots and ribs side by side, in growing width, starting from a corner. */
function row(
  kind: 'slot' | 'rib',
  direction: Direction,
  sizes: readonly number[],
  from: DrawPoint,
  gap: number,
  textSide: 1 | -1,
): Feature[] {
  const long = 10;
  let at = direction === 'left-right' ? from[0] : from[1];
  return sizes.map(size => {
    const box =
      direction === 'left-right'
        ? ([at, from[1], at + size, from[1] + long] as const)
        : ([from[0], at, from[0] + long, at + size] as const);
    at += size + gap;
    const words = direction === 'left-right' ? 'left to right' : 'front to back';
    return {
      id: `${kind}-${size}-${direction}`,
      kind,
      size,
      direction,
      label: `${kind === 'slot' ? 'Slot' : 'Rib'} ${size}, ${words}`,
      how:
        kind === 'slot'
          ? `Inside jaws from above, across its width, ${words}; at its middle, not at the rounded ends of the jaws.`
          : `Jaw tips across its thickness, ${words}, halfway up.`,
      box,
      text:
        direction === 'left-right'
          ? [(box[0] + box[2]) / 2, textSide > 0 ? box[3] + 2.4 : box[1] - 2.4]
          : [box[2] + 2.6, (box[1] + box[3]) / 2],
    };
  });
}

/** Steps along the right edge; all are read from the underside. */
const steps = [4, 6, 8, 10].map(
  (size, i): Feature => ({
    id: `height-${size}`,
    kind: 'height',
    size,
    direction: null,
    label: `Step ${size} high`,
    how: 'Outside jaws from the plate’s underside to the step’s top, in from the right edge.',
    box: [71, 14 + 7 * i, 78, 21 + 7 * i],
    text: [67.6, 17.5 + 7 * i],
  }),
);

const { width, depth, inset } = PLATE;
const across = (
  id: string,
  kind: Feature['kind'],
  size: number,
  direction: Direction | null,
  label: string,
  how: string,
  box: Feature['box'],
): Feature => ({ id, kind, size, direction, label, how, box });

const DECK = [inset, inset, width - inset, depth - inset] as const;
const FOOT = [0, 0, width, depth] as const;

/** In reading order. */
export const FEATURES: readonly Feature[] = [
  round('hole', 20, [14, 46], [14, 33.6]),
  round('hole', 12, [33.5, 50]),
  round('hole', 8, [50.5, 52]),
  round('hole', 4, [62, 54]),
  round('peg', 12, [36, 34.5], [45, 31.5]),
  round('peg', 8, [50, 40]),
  round('peg', 4, [60, 39], [60, 43]),
  ...row('slot', 'left-right', [3, 5, 8], [3.5, 21], 3, -1),
  ...row('slot', 'front-back', [3, 5, 8], [33, 4], 3, 1),
  ...row('rib', 'left-right', [2, 4, 8], [3.5, 3], 6.5, 1),
  ...row('rib', 'front-back', [2, 4, 8], [50, 4], 6.5, 1),
  ...steps,
  across(
    'deck-left-right',
    'rib',
    width - 2 * inset,
    'left-right',
    'Deck, left to right',
    'Jaw tips on the upper edge, above the rim that lay on the bed.',
    DECK,
  ),
  across(
    'deck-front-back',
    'rib',
    depth - 2 * inset,
    'front-back',
    'Deck, front to back',
    'Jaw tips on the upper edge, above the rim that lay on the bed.',
    DECK,
  ),
  across(
    'foot-left-right',
    'foot',
    width,
    'left-right',
    'Foot, left to right',
    'Jaws across the rim that lay on the bed; the largest you find.',
    FOOT,
  ),
  across(
    'foot-front-back',
    'foot',
    depth,
    'front-back',
    'Foot, front to back',
    'Jaws across the rim that lay on the bed; the largest you find.',
    FOOT,
  ),
  across(
    'diagonal-1',
    'diagonal',
    PLATE.diagonal,
    null,
    'Diagonal from the front left',
    'Jaw tips on the deck’s cut corners: front left to back right.',
    DECK,
  ),
  across(
    'diagonal-2',
    'diagonal',
    PLATE.diagonal,
    null,
    'Diagonal from the front right',
    'Jaw tips on the deck’s cut corners: front right to back left.',
    DECK,
  ),
];

export const featureOf = (id: string): Feature | undefined => FEATURES.find(f => f.id === id);

/** The middle of the word that marks the edge at the front of the bed. */
export const FRONT_AT: DrawPoint = [70.5, 5.6];

/** A rectangle around the plate's middle with corners cut square to the diagonals, `reach` from there. */
export function cutCorners(halfWidth: number, halfDepth: number, reach: number): DrawPoint[] {
  const long = Math.hypot(halfWidth, halfDepth);
  // The corner's flat: x·cos + y·sin = reach, met with the two sides.
  const [c, s] = [PLATE.width / 100, PLATE.depth / 100];
  if (reach >= long) throw new RangeError('The cut does not reach the corner.');
  const onRight = (reach - halfWidth * c) / s;
  const onBack = (reach - halfDepth * s) / c;
  const [cx, cy] = [PLATE.width / 2, PLATE.depth / 2];
  const corner: DrawPoint[] = [
    [halfWidth, onRight],
    [onBack, halfDepth],
  ];
  const turn = ([x, y]: DrawPoint, sx: number, sy: number): DrawPoint => [cx + sx * x, cy + sy * y];
  return [
    ...corner.map(p => turn(p, 1, 1)),
    ...[...corner].reverse().map(p => turn(p, -1, 1)),
    ...corner.map(p => turn(p, -1, -1)),
    ...[...corner].reverse().map(p => turn(p, 1, -1)),
  ];
}

/** Foot and deck as seen from above. */
export const plateOutlines = () => ({
  foot: cutCorners(width / 2, depth / 2, PLATE.diagonal / 2 + inset),
  deck: cutCorners(width / 2 - inset, depth / 2 - inset, PLATE.diagonal / 2),
});
