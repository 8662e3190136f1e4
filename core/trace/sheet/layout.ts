import type { Point2 } from '../../shape/vector';

/**
 * The reference sheet for photos: a ring of squares, two wide, with a marker in every other one, around a blank middle
 * for the object; next to it two bars to check by caliper. Millimetres from the middle of the sheet, x to the right, y
 * down as the reader sees it.
 */
export interface SheetLayout {
  paper: Point2;
  markers: readonly Marker[];
  /** Where four squares meet: measurements are based on these. */
  corners: readonly Point2[];
  /** Which of the four sides of the ring a corner lies on. */
  sides: readonly ((corner: Point2) => boolean)[];
  /** Half of the blank middle's sizes. */
  blank: Point2;
  bars: Record<'across' | 'along', readonly [Point2, Point2]>;
  /** The centres of the dark squares. */
  dark: readonly Point2[];
}

export interface Marker {
  id: number;
  at: Point2;
}

export const PAPERS = ['a4', 'letter'] as const;
export type Paper = (typeof PAPERS)[number];

/** The middle is dark for white or shiny objects. */
export const MIDDLES = ['white', 'dark'] as const;
export type Middle = (typeof MIDDLES)[number];

export const [SQUARE, MARKER, BAR] = [10, 7, 140];
/** The ring is so many squares wide. */
const RING = 2;

const SIZES: Record<Paper, { paper: Point2; squares: Point2; bars: Point2 }> = {
  a4: { paper: [210, 297], squares: [19, 27], bars: [139.5, 99.5] },
  letter: { paper: [215.9, 279.4], squares: [19, 25], bars: [129.5, 99.5] },
};

function layoutOf({ paper, squares: [nx, ny], bars }: (typeof SIZES)[Paper]): SheetLayout {
  const inRing = (i: number, j: number) => i < RING || j < RING || i >= nx - RING || j >= ny - RING;
  const middleOf = (i: number, j: number): Point2 => [
    (i - (nx - 1) / 2) * SQUARE,
    (j - (ny - 1) / 2) * SQUARE,
  ];
  const cells = Array.from({ length: nx * ny }, (_, k) => [k % nx, Math.floor(k / nx)] as const).filter(
    ([i, j]) => inRing(i, j),
  );
  const isDark = ([i, j]: readonly [number, number]) => (i + j) % 2 === 0;
  const corners: Point2[] = [];
  for (let j = 1; j < ny; j++)
    for (let i = 1; i < nx; i++)
      if ([i - 1, i].every(a => [j - 1, j].every(b => inRing(a, b))))
        corners.push([(i - nx / 2) * SQUARE, (j - ny / 2) * SQUARE]);
  const half = BAR / 2;
  const blank: Point2 = [(nx / 2 - RING) * SQUARE, (ny / 2 - RING) * SQUARE];
  return {
    paper,
    markers: cells.filter(c => !isDark(c)).map(([i, j], id) => ({ id, at: middleOf(i, j) })),
    corners,
    blank,
    sides: [([x]) => x < -blank[0], ([x]) => x > blank[0], ([, y]) => y < -blank[1], ([, y]) => y > blank[1]],
    bars: {
      across: [
        [-half, bars[0]],
        [half, bars[0]],
      ],
      along: [
        [bars[1], -half],
        [bars[1], half],
      ],
    },
    dark: cells.filter(isDark).map(([i, j]) => middleOf(i, j)),
  };
}

export const SHEETS: Record<Paper, SheetLayout> = {
  a4: layoutOf(SIZES.a4),
  letter: layoutOf(SIZES.letter),
};
