import { type Finding, finding } from '../../findings/finding';
import { defineRecipe, keyed } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { type End, FITTINGS, type Fitting, low, MEASURED_AS, type P, parameters } from './parameters';
import { refuse } from './refuse';
import { fits, is, kindOf, sizesOf } from './sizes';
import { places, solid } from './solid';

const tapers = (end: End) => (p: P) => fits('over', end)(p) || fits('into', end)(p);
const NAMES: Record<Fitting, (end: End) => string> = {
  over: end => `End ${end} over its tube`,
  into: end => `End ${end} in its bore`,
  barb: end => `Hose on end ${end}`,
};

const fitting = <F extends Fitting, E extends End>(kind: F, end: E) =>
  ({
    name: NAMES[kind](end),
    dimension: `${MEASURED_AS[kind]}_${low(end)}`,
    parameter: `${kind}${end}`,
    side: kind === 'over' ? 'inside' : 'outside',
    want: kind === 'barb' ? 'stretch' : 'snug',
    flexibleWant: kind === 'into' ? 'snug' : 'stretch',
    ...(kind === 'barb' ? { soft: 'theirs' as const } : {}),
    active: fits(kind, end),
  }) as const;

const ridge = <E extends End>(end: E) =>
  ({
    name: `Ridge in the groove of tube ${end}`,
    dimension: `groove_${low(end)}`,
    parameter: `ridge${end}`,
    side: 'inside',
    want: 'click',
    active: is.click(end),
  }) as const;

const shownOf = <E extends End>(end: E) =>
  keyed([
    ...FITTINGS.map(kind => [`${kind}${end}`, fits(kind, end)] as const),
    [`length${end}`, p => kindOf(p, end) !== 'flange'],
    [`coned${end}`, tapers(end)],
    [`taper${end}`, tapers(end)],
    [`holds${end}`, p => tapers(end)(p) && p[`taper${end}` as const] !== 0 && !is.coned(end)(p)],
    [`click${end}`, fits('over', end)],
    [`ridge${end}`, is.click(end)],
    [`ridgeAt${end}`, is.click(end)],
  ] as readonly (readonly [
    `${Fitting | 'length' | 'coned' | 'taper' | 'holds' | 'click' | 'ridge' | 'ridgeAt'}${E}`,
    (p: P) => boolean,
  ])[]);

/** How much of the smaller end's own passage is left, where it is little. */
function checks(p: P): Finding[] {
  const s = sizesOf(p);
  const open = Math.min(s.A.inner, s.B.inner);
  const share = (s.bore / open) ** 2;
  if (share > 0.75) return [];
  return [finding('flow', 'note', { through: 2 * s.bore, share }, { parameter: 'stop' })];
}

export const tubeAdapter = defineRecipe({
  id: 'tube-adapter',
  version: 2,
  family: 'adapter',
  title: 'Tube adapter',
  purpose:
    'Joins two tubes, outlets or hoses, in line, offset or at an angle: over, into, barbed, or a flange.',
  guide,
  mates: {
    overA: fitting('over', 'A'),
    intoA: fitting('into', 'A'),
    barbA: fitting('barb', 'A'),
    ridgeA: ridge('A'),
    overB: fitting('over', 'B'),
    intoB: fitting('into', 'B'),
    barbB: fitting('barb', 'B'),
    ridgeB: ridge('B'),
  },
  parameters,
  shown: {
    ...shownOf('A'),
    ...shownOf('B'),
    flangeDiameter: is.flange,
    flangeThickness: is.flange,
    flangeBore: is.flange,
    boltCircle: is.flange,
    boltHole: is.flange,
    bolts: is.flange,
    middle: p => !is.bent(p),
    offset: is.offset,
    bendAngle: is.angle,
    bendRadius: is.bent,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  checks,
  demo: {
    name: 'a dehumidifier’s outlet and a drain pipe',
    sizes: {
      tube_a: 32,
      tube_far_a: 32.6,
      bore_far_a: 27.4,
      apart_a: 15,
      groove_a: 30.4,
      bore_a: 28,
      hose_a: 25,
      tube_b: 40,
      tube_far_b: 40.6,
      bore_far_b: 35.4,
      apart_b: 15,
      groove_b: 38.4,
      bore_b: 36,
      hose_b: 19,
      bolt_circle: 62,
    },
    parameters: {
      kindA: 'over',
      overA: 32.35,
      intoA: 27.8,
      barbA: 26,
      lengthA: 20,
      conedA: false,
      taperA: 0,
      holdsA: 'middle',
      clickA: false,
      ridgeA: 30.9,
      ridgeAtA: 10,
      kindB: 'into',
      overB: 40.35,
      intoB: 35.8,
      barbB: 20,
      lengthB: 18,
      conedB: false,
      taperB: 0,
      holdsB: 'middle',
      clickB: false,
      ridgeB: 38.9,
      ridgeAtB: 9,
      flangeDiameter: 78,
      flangeThickness: 4,
      flangeBore: 28,
      boltCircle: 62,
      boltHole: 4.5,
      bolts: 4,
      run: 'straight',
      middle: 10,
      offset: 25,
      bendAngle: 60,
      bendRadius: 0,
      wall: 2,
      stop: 1.5,
      leastBore: 0,
      leadIn: 0.6,
    },
  },
});
