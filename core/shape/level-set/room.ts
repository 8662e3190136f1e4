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
  /** What is looked at: the object may reach out of it. */
  min: Corner;
  max: Corner;
  /** Degrees, on each side. */
  draft: number;
  /** The widest room that will be asked for. */
  reach: number;
  /** Between the points of its grid; of a large space they lie farther apart. */
  cell: number;
}

/** 8 million points are 100 MB while they are worked out, and take seconds. */
const MOST_POINTS = 8e6;
/** Beyond the widest room so many cells are known: a line that is drawn on from outside needs two points there. */
const BEYOND = 3.6;

/** Of an object this long the grid's points are a mm apart, mm. */
const COARSE = 110;
/** A thin edge between the grid's points is found where they lie no farther apart than this much of the room. */
const SEES = 0.9;
/** On a coarser one a small room is drawn in steps, mm. */
const SCREEN_CELL = 1.1;
/** A finer grid of a large object has more points than there is memory for, mm. */
const LEAST_CELL = 0.22;

/**
 * How far apart a grid's points are, for the screen, which is to follow a number at once, and for a file.
 * @param sagitta how far a flat may lie from its true surface
 */
export function cellFor(longest: number, room: number, sagitta: number): number {
  const cell = Math.min(1, Math.max(0.35, longest / COARSE));
  return sagitta < 0.01 ? Math.min(cell, Math.max(LEAST_CELL, SEES * room)) : Math.min(2 * cell, SCREEN_CELL);
}

/** A number that is changed asks for the same space again and again. */
const before = new Recent<Swept>(3);

/** What the object takes up on its way up through a space. Lengths mm. */
export function wayUp({ key, mesh }: Lying, { min, max, draft, reach, cell }: Space): Swept {
  const name = [key, ...min, ...max, draft, reach, cell].join(' ');
  const known = before.get(name);
  if (known) return known;
  const grid = gridOver(min, max, cell, MOST_POINTS);
  const swept = sweptUp(mesh, grid, draft, reach + BEYOND * grid.cell);
  before.put(name, swept);
  return swept;
}

/** A surface of more triangles than this is thinned out by up to a tenth of a millimetre. */
const MOST_TRIANGLES = 40_000;

/**
 * The closed body of all places that are nearer than `room` to the way.
 * @param flare from this height up, each mm is a mm wider on every side
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
