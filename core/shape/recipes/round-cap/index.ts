import { defineRecipe } from '../define-recipe';
import type { EffortLever, RoundGrip } from '../recipe';
import { checkLip } from './checks';
import { capDrawing, portDrawing } from './drawings';
import { type Asked, guide } from './guide';
import { has, type P, parameters, slottedWall } from './parameters';
import { refuse } from './refuse';
import { capSolid, LIP_SLOPES, type Mate, places, sizesOf } from './solid';

type Lever = EffortLever & { mate: Mate; parameter: 'wall' | 'plugWall' | 'leadIn' };

/** A ring's push is proportional to its wall (p = E·ε·t/r); the chamfer only eases it on. */
function effortLevers(p: P): Lever[] {
  const levers: Lever[] = [];
  for (const mate of has.skirt(p) ? (['skirt', 'lip'] as const) : [])
    levers.push(
      { mate, parameter: 'wall', label: 'skirt wall', acts: 'grip', power: 1, least: 0.8, most: 6 },
      { mate, parameter: 'leadIn', label: 'entry chamfer', acts: 'entry', power: 0, least: 0, most: 3 },
    );
  // A solid plug (wall 0) gives nowhere: there is nothing to change.
  for (const mate of has.plug(p) && p.plugWall !== 0 ? (['plug', 'bead'] as const) : [])
    levers.push(
      { mate, parameter: 'plugWall', label: 'plug wall', acts: 'grip', power: 1, least: 0.8, most: 6 },
      { mate, parameter: 'leadIn', label: 'entry chamfer', acts: 'entry', power: 0, least: 0, most: 3 },
    );
  return levers;
}

type Grip = RoundGrip & { mate: Mate; passes?: { dimension: Asked } };

function grips(p: P): Grip[] {
  const s = sizesOf(p);
  const fingers = (wall: 'skirt' | 'plug') =>
    s.slots && has.wallSlots(p) && slottedWall(p) === wall
      ? { fingers: { count: s.slots.count, width: s.slots.width, length: p.slotDepth } }
      : {};
  const found: Grip[] = [];
  if (s.skirt) found.push({ mate: 'skirt', wall: p.wall, ...fingers('skirt') });
  if (s.plug) found.push({ mate: 'plug', wall: s.plug.outer - s.plug.inner, ...fingers('plug') });
  const passes = { width: p.lipWidth, ...LIP_SLOPES };
  if (has.lip(p))
    found.push({ mate: 'lip', wall: p.wall, ...fingers('skirt'), passes: { dimension: 'rim', ...passes } });
  if (has.bead(p) && s.plug)
    found.push({
      mate: 'bead',
      wall: s.plug.outer - s.plug.inner,
      ...fingers('plug'),
      passes: { dimension: 'bore', ...passes },
    });
  return found;
}

/** A cap over, or a plug into, a round object: hull vent, pipe end, port, tube. */
export const roundCap = defineRecipe({
  id: 'round-cap',
  version: 2,
  family: 'replacement',
  title: 'Round cap or plug',
  purpose: 'Closes a round port, pipe or tube: over its rim, into its bore, or both; rigid or flexible.',
  guide,
  mates: {
    skirt: {
      name: 'Skirt over rim',
      dimension: 'rim',
      parameter: 'skirtDiameter',
      side: 'inside',
      want: 'snug',
      flexibleWant: 'stretch',
      active: has.skirt,
    },
    lip: {
      name: 'Lip in groove',
      dimension: 'groove',
      parameter: 'lipDiameter',
      side: 'inside',
      want: 'click',
      active: has.lip,
    },
    plug: {
      name: 'Plug in bore',
      dimension: 'bore',
      parameter: 'plugDiameter',
      side: 'outside',
      want: 'slide',
      flexibleWant: 'stretch',
      active: has.plug,
    },
    bead: {
      name: 'Bead in inner groove',
      dimension: 'inner_groove',
      parameter: 'beadDiameter',
      side: 'outside',
      want: 'click',
      active: has.bead,
    },
    ring: {
      name: 'Strap’s ring around its neck',
      dimension: 'neck',
      parameter: 'ringDiameter',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'stretch',
      active: has.strap,
    },
  },
  parameters,
  shown: {
    skirtDiameter: has.skirt,
    skirtDepth: has.skirt,
    plugDiameter: has.plug,
    plugDepth: has.plug,
    wall: has.skirt,
    lipDiameter: has.lip,
    beadDiameter: has.bead,
    lipFrom: has.ridge,
    lipWidth: has.ridge,
    slotsIn: p => has.slots(p) && has.ridge(p),
    slotDepth: has.wallSlots,
    slotWidth: has.slots,
    ringDiameter: has.strap,
    strapLength: has.strap,
    strapWidth: has.strap,
    strapThickness: has.strap,
    tabLength: has.tab,
    tabWidth: has.tab,
    plugWall: has.plug,
    endDiameter: p => p.style === 'into',
  },
  refuse,
  drawing: capDrawing,
  objectDrawing: portDrawing,
  solid: capSolid,
  places,
  checks: checkLip,
  levers: effortLevers,
  grips,
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
      slotsIn: 'wall',
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
});
