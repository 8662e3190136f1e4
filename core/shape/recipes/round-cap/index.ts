import type { Recipe } from '../recipe';
import { checkLip } from './checks';
import { capDrawing, portDrawing } from './drawings';
import { GUIDE } from './guide';
import { effortLevers, MATES, PARAMETERS } from './parameters';
import { refuse } from './refuse';
import { capSolid, mateSurfaces } from './solid';

/** A cap over, or a plug into, a round object: hull vent, pipe end, port, tube. */
export const roundCap: Recipe = {
  id: 'round-cap',
  version: 2,
  family: 'replacement',
  title: 'Round cap or plug',
  purpose: 'Closes a round port, pipe or tube: over its rim, into its bore, or both; rigid or flexible.',
  guide: GUIDE,
  mates: MATES,
  parameters: PARAMETERS,
  refuse,
  drawing: capDrawing,
  objectDrawing: portDrawing,
  solid: capSolid,
  surfaces: mateSurfaces,
  checks: checkLip,
  levers: effortLevers,
  demo: {
    name: 'a vent port',
    sizes: {
      rim: 31.7,
      rim_height: 14,
      bore: 24.2,
      groove: 29.4,
      groove_from: 5.6,
      groove_width: 3,
      inner_groove: 25.6,
      neck: 20,
    },
    parameters: {
      style: 'over',
      skirtDiameter: 32.04,
      skirtDepth: 13.8,
      plugDiameter: 23.85,
      plugDepth: 8,
      wall: 1.6,
      plugWall: 1.6,
      endThickness: 2,
      endDiameter: 32,
      lip: 'none',
      lipDiameter: 29.9,
      beadDiameter: 25.3,
      lipFrom: 5.8,
      lipWidth: 2.4,
      leadIn: 0.6,
      outerFillet: 1,
      slots: 0,
      slotDepth: 6,
      slotWidth: 1.2,
      strap: false,
      ringDiameter: 19.4,
      strapLength: 40,
      strapWidth: 5,
      strapThickness: 1.6,
      tab: true,
      tabLength: 12,
      tabWidth: 12,
    },
  },
};
