import { defineRecipe, keyed } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import {
  countName,
  dimensionName,
  has,
  holeName,
  type P,
  parameters,
  SIZES,
  type Size,
  sizeWords,
} from './parameters';
import { refuse } from './refuse';
import { places, solid } from './solid';

const mate = <S extends Size>(size: S) => ({
  name: sizeWords(size, 'Tool in its hole'),
  dimension: dimensionName(size),
  parameter: holeName(size),
  side: 'inside' as const,
  want: 'drop-on' as const,
  active: (p: P) => has.holes(p) && has.size(size)(p),
});

/** A row of places for tools, see sizes.ts. */
export const toolBlock = defineRecipe({
  id: 'tool-block',
  version: 1,
  family: 'mount',
  title: 'Tool block',
  purpose: 'Holds a row of tools: standing in holes, straight, leaning or fanned, or lying in V grooves.',
  guide,
  mates: { hole: mate('A'), holeB: mate('B'), holeC: mate('C'), holeD: mate('D') },
  parameters,
  shown: {
    ...keyed(
      SIZES.flatMap(size => [
        [holeName(size), has.size(size)] as const,
        [countName(size), has.size(size)] as const,
      ]),
    ),
    leans: has.holes,
    lean: has.holes,
    stepped: has.steps,
    blade: has.steps,
    step: p => has.steps(p) && p.blade !== 0,
    long: has.vee,
    floor: has.holes,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'rigger spanners and drivers',
    sizes: { tool: 12, tool_b: 10, tool_c: 8, tool_d: 6, blade_width: 6, reach: 40 },
    parameters: {
      holds: 'hole',
      sizes: 'one',
      leans: 'back',
      hole: 12.7,
      holeB: 10.7,
      holeC: 8.7,
      holeD: 6.7,
      count: 4,
      countB: 2,
      countC: 2,
      countD: 2,
      pitch: 23,
      lean: 15,
      height: 30,
      stepped: false,
      blade: 7,
      step: 15,
      long: 24,
      floor: 3,
      edge: 4,
    },
  },
});
