import { CHAMFER, WALL } from '../advice';
import type { ValuesOf } from '../define-recipe';
import { choice, flag, length } from '../fields';
import type { Parameters } from '../parameters';

export const ENDS = ['A', 'B'] as const;
export type End = (typeof ENDS)[number];
export const low = <E extends End>(end: E) => end.toLowerCase() as Lowercase<E>;
/** How an end may fit something, by which of its sides is read. */
export const MEASURED_AS = { over: 'tube', into: 'bore', barb: 'hose' } as const;
export type Fitting = keyof typeof MEASURED_AS;
export const FITTINGS: readonly Fitting[] = ['over', 'into', 'barb'];
const GOES = { over: 'goes over a tube', into: 'goes into a bore', barb: 'holds a hose' };

/** By two diameters and their distance: a tube's tip, and the mouth of a bore, are at an end's inner side. */
const taperOf = (end: End, over: boolean): string => {
  const e = low(end);
  return over
    ? `atan((tube_far_${e} - tube_${e}) / 2 / apart_${e})`
    : `atan((bore_${e} - bore_far_${e}) / 2 / apart_${e})`;
};

/** Outside diameter of an end at its inner side. */
function rootOf(p: Parameters, end: End): string {
  const kind = String(p[`kind${end}`]);
  if (kind === 'flange') return 'flangeBore + 2 * wall';
  return kind === 'over' ? `over${end} + 2 * wall` : `${kind}${end}`;
}

export const parameters = [
  ...ENDS.flatMap(end => [
    end === 'A'
      ? choice('kindA', 'End A', { ...GOES, flange: 'is a flange' })
      : choice('kindB', 'End B', { into: GOES.into, over: GOES.over, barb: GOES.barb }),
    ...FITTINGS.map(kind =>
      length(
        `${kind}${end}`,
        `End ${end}, ${kind === 'over' ? 'inside' : kind === 'into' ? 'outside' : 'over the ridges'}`,
        [2, 300],
        `${MEASURED_AS[kind]}_${low(end)}.model`,
      ),
    ),
    length(`length${end}`, `End ${end}, length`, [2, 200], '20'),
    flag(`coned${end}`, `End ${end}: what it fits tapers, read at two places`, false, { group: 'more' }),
    length(`taper${end}`, `End ${end} tapers, per side`, [0, 8], '0', {
      group: 'more',
      measure: 'angle',
      defaultFor: p => (p[`coned${end}`] === true ? taperOf(end, p[`kind${end}`] === 'over') : '0'),
    }),
    choice(
      `holds${end}`,
      `End ${end}, its diameter holds`,
      { middle: 'midway', mouth: 'at its mouth', inner: 'at its inner end' },
      { group: 'more' },
    ),
    flag(`click${end}`, `End ${end} clicks into a groove`, false, {
      group: 'more',
    }),
    length(`ridge${end}`, `End ${end}, inside its ridge`, [2, 300], `groove_${low(end)}.model`, {
      group: 'more',
    }),
    length(`ridgeAt${end}`, `End ${end}, mouth to ridge`, [0.5, 200], `length${end} / 2`, {
      group: 'more',
    }),
  ]),
  length('flangeDiameter', 'Flange', [6, 400], 'bolt_circle + 16'),
  length('flangeThickness', 'Flange, thickness', [1, 40], '4'),
  length(
    'flangeBore',
    'Flange, way through',
    [1, 300],
    'min(20; max(1; boltCircle - boltHole - 2 * wall - 3))',
  ),
  length('boltCircle', 'Circle of the screws', [4, 390], 'bolt_circle'),
  length('boltHole', 'Screws, holes', [1, 30], '4.5'),
  length('bolts', 'Screws', [2, 16], '4', { measure: 'count' }),
  choice('run', 'Its ends are', {
    straight: 'in line',
    offset: 'side by side',
    angle: 'at an angle',
  }),
  length('middle', 'Between the ends', [0.5, 200], '12', {
    // Long enough for its slope to print.
    defaultFor: p => `max(12; abs(${rootOf(p, 'A')} - (${rootOf(p, 'B')})) / 2 + 1)`,
  }),
  length('offset', 'Axes apart', [0.5, 300], '25'),
  length('bendAngle', 'Turned by', [2, 135], '90', { measure: 'angle' }),
  length('bendRadius', 'Bend, radius at the middle (0: as usual)', [0, 300], '0', {
    group: 'more',
  }),
  length('wall', 'Wall', [0.8, 20], '2', { sensible: WALL }),
  length('stop', 'Stop reaches in by', [0, 20], '1.5', { group: 'more' }),
  length('leastBore', 'Way through, at least', [0, 290], '0', { group: 'more' }),
  length('leadIn', 'Lead-in chamfers', [0, 4], '0.6', { group: 'more', sensible: CHAMFER }),
];

export type P = ValuesOf<typeof parameters>;
