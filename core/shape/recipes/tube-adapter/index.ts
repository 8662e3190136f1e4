import type { Finding } from '../../findings/finding';
import { finding } from '../../findings/finding';
import type { MateSpec } from '../../mates';
import { CHAMFER, WALL } from '../advice';
import { choice, flag, length, step } from '../fields';
import type { Parameters } from '../parameters';
import type { Recipe } from '../recipe';
import { drawing, MEASURED_AS, objectDrawing } from './drawings';
import { refuse } from './refuse';
import { ENDS, type End, is, kindOf, sizesOf } from './sizes';
import { solid, surfaces } from './solid';

const KINDS = ['over', 'into', 'barb'] as const;
type Fitting = (typeof KINDS)[number];
const low = (end: End) => end.toLowerCase();
const when = (kind: string, end: End) => (p: Parameters) => kindOf(p, end) === kind;
const hasTaper = (end: End) => (p: Parameters) => kindOf(p, end) === 'over' || kindOf(p, end) === 'into';

const mate = (kind: Fitting, end: End): MateSpec => ({
  id: `${kind}${end}`,
  name: { over: `End ${end} over its tube`, into: `End ${end} in its bore`, barb: `Hose on end ${end}` }[
    kind
  ],
  dimension: `${MEASURED_AS[kind]}_${low(end)}`,
  parameter: `${kind}${end}`,
  side: kind === 'over' ? 'inside' : 'outside',
  want: kind === 'barb' ? 'stretch' : 'snug',
  flexibleWant: kind === 'into' ? 'snug' : 'stretch',
  ...(kind === 'barb' ? { soft: 'theirs' as const } : {}),
  active: p => kindOf(p, end) === kind,
});

const ridge = (end: End): MateSpec => ({
  id: `ridge${end}`,
  name: `Ridge in the groove of tube ${end}`,
  dimension: `groove_${low(end)}`,
  parameter: `ridge${end}`,
  side: 'inside',
  want: 'click',
  flexibleWant: 'click',
  active: is.click(end),
});

const ways = { over: 'goes over a tube', into: 'goes into a bore', barb: 'holds a hose' };

/** How much of the smaller end's own way is left, where it is little. */
function checks(p: Parameters): Finding[] {
  const s = sizesOf(p);
  const open = Math.min(s.A.inner, s.B.inner);
  const share = (s.bore / open) ** 2;
  if (share > 0.75) return [];
  return [finding('flow', 'note', { through: 2 * s.bore, share }, { parameter: 'stop' })];
}

export const tubeAdapter: Recipe = {
  id: 'tube-adapter',
  version: 2,
  family: 'adapter',
  title: 'Tube adapter',
  purpose:
    'Joins two tubes, outlets or hoses, in line, offset or at an angle: over, into, barbed, or a flange.',
  guide: [
    ...ENDS.flatMap(end => [
      step(
        `tube_${low(end)}`,
        `Tube ${end}, outside`,
        'outside-jaws',
        'Two centimetres from its end, where it is still round; turn it between readings.',
        { critical: true, needed: when('over', end) },
      ),
      step(
        `groove_${low(end)}`,
        `Tube ${end}, in its groove`,
        'jaw-tips',
        'With the tips of the jaws, on the groove’s floor.',
        { critical: true, needed: is.click(end) },
      ),
      step(
        `bore_${low(end)}`,
        `Bore ${end}, inside`,
        'inside-jaws',
        'As deep as the jaws reach; rock them and keep the largest.',
        { critical: true, needed: when('into', end) },
      ),
      step(
        `hose_${low(end)}`,
        `Hose ${end}, inside`,
        'inside-jaws',
        'Not pressed oval: cut the end square and let it hang free.',
        { critical: true, needed: when('barb', end) },
      ),
    ]),
    step(
      'bolt_circle',
      'Circle of the screws',
      'span',
      'Between the middles of two that face each other; or inside and outside of the two, halved.',
      { needed: is.flange },
    ),
  ],
  mates: ENDS.flatMap(end => [...KINDS.map(kind => mate(kind, end)), ridge(end)]),
  parameters: [
    ...ENDS.flatMap(end => [
      choice(
        `kind${end}`,
        `End ${end}`,
        end === 'A'
          ? { ...ways, flange: 'is a flange' }
          : { into: ways.into, over: ways.over, barb: ways.barb },
      ),
      ...KINDS.map(kind =>
        length(
          `${kind}${end}`,
          `End ${end}, ${kind === 'over' ? 'inside' : kind === 'into' ? 'outside' : 'over the ridges'}`,
          [2, 300],
          `${MEASURED_AS[kind]}_${low(end)}.model`,
          { shown: when(kind, end) },
        ),
      ),
      length(`length${end}`, `End ${end}, length`, [2, 200], '20', {
        shown: p => kindOf(p, end) !== 'flange',
      }),
      length(`taper${end}`, `End ${end} tapers, per side`, [0, 8], '0', {
        group: 'more',
        measure: 'angle',
        shown: hasTaper(end),
      }),
      flag(`click${end}`, `End ${end} clicks into a groove`, false, {
        group: 'more',
        shown: when('over', end),
      }),
      length(`ridge${end}`, `End ${end}, inside its ridge`, [2, 300], `groove_${low(end)}.model`, {
        group: 'more',
        shown: is.click(end),
      }),
      length(`ridgeAt${end}`, `End ${end}, mouth to ridge`, [0.5, 200], `length${end} / 2`, {
        group: 'more',
        shown: is.click(end),
      }),
    ]),
    length('flangeDiameter', 'Flange', [6, 400], 'bolt_circle + 16', { shown: is.flange }),
    length('flangeThickness', 'Flange, thickness', [1, 40], '4', { shown: is.flange }),
    length('flangeBore', 'Flange, way through', [1, 300], '20', { shown: is.flange }),
    length('boltCircle', 'Circle of the screws', [4, 390], 'bolt_circle', { shown: is.flange }),
    length('boltHole', 'Screws, holes', [1, 30], '4.5', { shown: is.flange }),
    length('bolts', 'Screws', [2, 16], '4', { measure: 'count', shown: is.flange }),
    choice('run', 'Its ends are', {
      straight: 'in line',
      offset: 'side by side',
      angle: 'at an angle',
    }),
    length('middle', 'Between the ends', [0.5, 200], '12', { shown: p => !is.bent(p) }),
    length('offset', 'Axes apart', [0.5, 300], '25', { shown: is.offset }),
    length('bendAngle', 'Turned by', [2, 135], '90', { measure: 'angle', shown: is.angle }),
    length('bendRadius', 'Bend, radius at the middle (0: as usual)', [0, 300], '0', {
      group: 'more',
      shown: is.bent,
    }),
    length('wall', 'Wall', [0.8, 20], '2', { sensible: WALL }),
    length('stop', 'Stop reaches in by', [0, 20], '1.5', { group: 'more' }),
    length('leastBore', 'Way through, at least', [0, 290], '0', { group: 'more' }),
    length('leadIn', 'Lead-in chamfers', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks,
  demo: {
    name: 'a dehumidifier’s outlet and a drain pipe',
    sizes: {
      tube_a: 32,
      groove_a: 30.4,
      bore_a: 28,
      hose_a: 25,
      tube_b: 40,
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
      taperA: 0,
      clickA: false,
      ridgeA: 30.9,
      ridgeAtA: 10,
      kindB: 'into',
      overB: 40.35,
      intoB: 35.8,
      barbB: 20,
      lengthB: 18,
      taperB: 0,
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
};
