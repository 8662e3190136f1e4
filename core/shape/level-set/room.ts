import type { MeshKernel } from '../kernels/kernel';
import type { TriangleMesh } from '../mesh/mesh';
import { Recent } from '../recent';
import { contourOf } from './contour';
import { gridOver } from './grid';
import { type Swept, sweptUp } from './swept';

/** An object where it lies; equal keys are equal triangles at the same place. */
export interface Lying {
  key: string;
  mesh: TriangleMesh;
}

type Corner = readonly [number, number, number];

interface Space {
  /** The region that is examined: the object may reach out of it. */
  min: Corner;
  max: Corner;
  /** Degrees, on each side. */
  draft: number;
  /** The widest clearance that will be asked for. */
  reach: number;
  /** Spacing of its grid; of a large space it is wider. */
  cell: number;
}

/** 8 million points take 100 MB while they are worked out, and seconds. */
const MOST_POINTS = 8e6;
/**
 * This many cells beyond the widest clearance are known: a line that is extrapolated from outside needs two points
 * there.
 */
const BEYOND = 3.6;

/** For an object of this length the spacing is a mm, mm. */
const COARSE = 110;
/** A thin edge between the grid's points is found if the spacing is no more than this share of the clearance. */
const SEES = 0.9;
/** On a coarser grid a small clearance shows steps, mm. */
const SCREEN_CELL = 1.1;
/** A finer grid of a large object has more points than fit into memory, mm. */
const LEAST_CELL = 0.22;

/**
 * Spacing of a grid, for the screen, which must follow a number at once, and for a file.
 * @param sagitta how far a flat may be from its true surface
 */
export function cellFor(longest: number, room: number, sagitta: number): number {
  const cell = Math.min(1, Math.max(0.35, longest / COARSE));
  return sagitta < 0.01 ? Math.min(cell, Math.max(LEAST_CELL, SEES * room)) : Math.min(2 * cell, SCREEN_CELL);
}

/** Changing one number asks for the same space again and again. */
const before = new Recent<Swept>(3);

/** The space that the object sweeps on its way up. Lengths mm. */
export function wayUp({ key, mesh }: Lying, { min, max, draft, reach, cell }: Space): Swept {
  const name = [key, ...min, ...max, draft, reach, cell].join(' ');
  const known = before.get(name);
  if (known) return known;
  const grid = gridOver(min, max, cell, MOST_POINTS);
  const swept = sweptUp(mesh, grid, draft, reach + BEYOND * grid.cell);
  before.put(name, swept);
  return swept;
}

/** A surface with more triangles than this is simplified by up to a tenth of a millimetre. */
const MOST_TRIANGLES = 40_000;

/**
 * The closed body of all places nearer than `room` to the swept space.
 * @param flare from this height up, it gets a mm wider on every side per mm
 */
export function roomOf(swept: Swept, room: number, kernel: MeshKernel, flare = Infinity): TriangleMesh {
  const { grid, values, lowest } = swept;
  const layer = grid.count[0] * grid.count[1];
  const heights = Float64Array.from({ length: grid.count[2] }, (_, k) => grid.from[2] + k * grid.cell);
  const field = {
    grid,
    values: values.map((v, at) => v - room - Math.max(0, heights[Math.floor(at / layer)]! - flare)),
  };
  const isBlind = (at: number) => heights[Math.floor(at / layer)]! >= lowest[at % layer]!;
  return kernel.reduced(contourOf(field, isBlind), MOST_TRIANGLES);
}
