import type { MateSpec } from '../../mates';
import { CHAMFER, WALL } from '../advice';
import type { ParameterSpec, Parameters, Sensible } from '../parameters';
import type { EffortLever } from '../recipe';

/** What a set of parameters asks for. */
export const has = {
  skirt: (p: Parameters) => p.style !== 'into',
  plug: (p: Parameters) => p.style !== 'over',
  lip: (p: Parameters) => p.lip === 'skirt' && p.style !== 'into',
  bead: (p: Parameters) => p.lip === 'plug' && p.style !== 'over',
  ridge: (p: Parameters) => has.lip(p) || has.bead(p),
  tab: (p: Parameters) => p.tab === true,
  slots: (p: Parameters) => typeof p.slots === 'number' && p.slots > 0,
  strap: (p: Parameters) => p.strap === true,
};

/** The wall that gives: the one with the ridge, else the outer one. */
export const slottedWall = (p: Parameters): 'skirt' | 'plug' =>
  has.bead(p) || !has.skirt(p) ? 'plug' : 'skirt';

export const MATES: readonly MateSpec[] = [
  {
    id: 'skirt',
    name: 'Skirt over rim',
    dimension: 'rim',
    parameter: 'skirtDiameter',
    side: 'inside',
    want: 'snug',
    flexibleWant: 'stretch',
    active: has.skirt,
  },
  {
    id: 'lip',
    name: 'Lip in groove',
    dimension: 'groove',
    parameter: 'lipDiameter',
    side: 'inside',
    want: 'click',
    flexibleWant: 'click',
    active: has.lip,
  },
  {
    id: 'plug',
    name: 'Plug in bore',
    dimension: 'bore',
    parameter: 'plugDiameter',
    side: 'outside',
    want: 'slide',
    flexibleWant: 'stretch',
    active: has.plug,
  },
  {
    id: 'bead',
    name: 'Bead in inner groove',
    dimension: 'inner_groove',
    parameter: 'beadDiameter',
    side: 'outside',
    want: 'click',
    flexibleWant: 'click',
    active: has.bead,
  },
  {
    id: 'ring',
    name: 'Strap’s ring around its neck',
    dimension: 'neck',
    parameter: 'ringDiameter',
    side: 'inside',
    want: 'slide',
    flexibleWant: 'stretch',
    active: has.strap,
  },
];

export const PARAMETERS: readonly ParameterSpec[] = [
  {
    kind: 'choice',
    name: 'style',
    label: 'Goes',
    group: 'main',
    options: [
      { value: 'over', label: 'over the rim' },
      { value: 'into', label: 'into the bore' },
      { value: 'both', label: 'over and into' },
    ],
    default: 'over',
  },
  length('skirtDiameter', 'Skirt, inside diameter', 'main', 2, 400, 'rim.model', has.skirt),
  length('skirtDepth', 'Skirt depth', 'main', 1, 300, 'rim_height - 0.2', has.skirt),
  length('plugDiameter', 'Plug, outside diameter', 'main', 2, 400, 'bore.model', has.plug),
  length('plugDepth', 'Plug depth', 'main', 1, 300, '8', has.plug),
  withRange(length('wall', 'Skirt wall', 'main', 0.4, 30, '1.6', has.skirt), WALL),
  length('endThickness', 'End thickness', 'main', 0.4, 50, '2'),
  {
    kind: 'choice',
    name: 'lip',
    label: 'Snap lip',
    group: 'main',
    options: [
      { value: 'none', label: 'none' },
      { value: 'skirt', label: 'inside the skirt' },
      { value: 'plug', label: 'around the plug' },
    ],
    default: 'none',
  },
  length('lipDiameter', 'Lip, inside diameter', 'main', 1, 400, 'groove.model', has.lip),
  length('beadDiameter', 'Bead, outside diameter', 'main', 1, 400, 'inner_groove.model', has.bead),
  length('lipFrom', 'Lip from the end’s inner face', 'main', 0.5, 200, 'groove_from + 0.2', has.ridge),
  length('lipWidth', 'Lip width', 'main', 0.4, 50, 'groove_width - 0.6', has.ridge),
  { kind: 'flag', name: 'tab', label: 'Pull tab', group: 'main', default: true },
  length('slots', 'Slots in the wall that gives', 'main', 0, 16, '0', undefined, 'count'),
  length('slotDepth', 'Slots, from the mouth', 'main', 1, 200, '6', has.slots),
  length('slotWidth', 'Slots, width', 'more', 0.5, 20, '1.2', has.slots),
  { kind: 'flag', name: 'strap', label: 'Strap with a ring', group: 'main', default: false },
  length('ringDiameter', 'Ring, inside diameter', 'main', 2, 400, 'neck.model', has.strap),
  length('strapLength', 'Strap, rim to ring', 'main', 4, 400, '40', has.strap),
  length('strapWidth', 'Strap and ring, width', 'more', 2, 60, '5', has.strap),
  length('strapThickness', 'Strap, thickness', 'more', 0.6, 20, '1.6', has.strap),
  length('tabLength', 'Tab length', 'more', 3, 100, '12', has.tab),
  length('tabWidth', 'Tab width', 'more', 3, 100, '12', has.tab),
  length('plugWall', 'Plug wall (0 is solid)', 'more', 0, 100, '1.6', has.plug),
  length('endDiameter', 'Flange diameter', 'more', 3, 500, 'plugDiameter + 6', p => p.style === 'into'),
  withRange(length('leadIn', 'Lead-in chamfer', 'more', 0, 5, '0.6'), CHAMFER),
  length('outerFillet', 'Outer fillet', 'more', 0, 20, '1'),
];

function withRange(spec: ParameterSpec, sensible: Sensible): ParameterSpec {
  return spec.kind === 'length' ? { ...spec, sensible } : spec;
}

function length(
  name: string,
  label: string,
  group: 'main' | 'more',
  min: number,
  max: number,
  expression: string,
  shown?: (p: Parameters) => boolean,
  measure?: 'count',
): ParameterSpec {
  return {
    kind: 'length',
    name,
    label,
    group,
    min,
    max,
    default: expression,
    shown,
    ...(measure ? { measure } : {}),
  };
}

/** A ring's push goes with its wall (p = E·ε·t/r); the chamfer only eases it on. */
export function effortLevers(p: Parameters): EffortLever[] {
  const levers: EffortLever[] = [];
  for (const mate of has.skirt(p) ? ['skirt', 'lip'] : [])
    levers.push(
      { mate, parameter: 'wall', label: 'skirt wall', acts: 'grip', power: 1, least: 0.8, most: 6 },
      { mate, parameter: 'leadIn', label: 'entry chamfer', acts: 'entry', power: 0, least: 0, most: 3 },
    );
  // A solid plug (wall 0) gives nowhere: there is no lever.
  for (const mate of has.plug(p) && p.plugWall !== 0 ? ['plug', 'bead'] : [])
    levers.push(
      { mate, parameter: 'plugWall', label: 'plug wall', acts: 'grip', power: 1, least: 0.8, most: 6 },
      { mate, parameter: 'leadIn', label: 'entry chamfer', acts: 'entry', power: 0, least: 0, most: 3 },
    );
  return levers;
}
