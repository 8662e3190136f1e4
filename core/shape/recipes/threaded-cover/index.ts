import type { Finding } from '../../findings/finding';
import { finding } from '../../findings/finding';
import { PLATE, WALL } from '../advice';
import { choice, length, step, words } from '../fields';
import { lengthOf, type Parameters } from '../parameters';
import type { Recipe } from '../recipe';
import { drawing, objectDrawing } from './drawings';
import { refuse } from './refuse';
import { isCoupler, isPlug, isStandard, standardOf, surfaces, type Which } from './sizes';
import { solid } from './solid';

const inTurns = (p: Parameters) => !isPlug(p);
const odd =
  (which: Which, also: (p: Parameters) => boolean = () => true) =>
  (p: Parameters) =>
    !isStandard(p, which) && also(p);

const HANDS = { right: 'right: clockwise goes on', left: 'left: anticlockwise goes on' };

/** Drawn this much off its standard, it is another thread, mm: more than a want and a printer ever ask for. */
const OFF_STANDARD = 1.5;

function checks(p: Parameters): Finding[] {
  const off = (['', 'B'] as const).flatMap((which): Finding[] => {
    const standard = isStandard(p, which) ? standardOf(p, which) : undefined;
    if (!standard || (which === 'B' && !isCoupler(p))) return [];
    const parameter = which === 'B' ? 'coverThreadB' : isPlug(p) ? 'plugThread' : 'coverThread';
    const drawn = lengthOf(p, parameter);
    if (Math.abs(drawn - standard.major) < OFF_STANDARD) return [];
    const { designation, major } = standard;
    return [finding('not-this-thread', 'warn', { designation, major, drawn }, { parameter })];
  });
  return [...off, finding('step-without-thread', 'note', {})];
}

export const threadedCover: Recipe = {
  id: 'threaded-cover',
  version: 2,
  family: 'adapter',
  title: 'Threaded cover, ring, plug or coupler',
  purpose:
    'Screws on a neck or into one, or joins two: a standard thread by its name, or an odd one of any pitch, hand and number of starts.',
  guide: [
    step(
      'neck',
      'Neck, over its ridges',
      'outside-jaws',
      'Across opposite ridges; turn it and keep the largest.',
      { critical: true, needed: inTurns },
    ),
    step(
      'socket',
      'Neck, over its grooves inside',
      'inside-jaws',
      'The tips of the inside jaws in opposite grooves; rock them and keep the largest.',
      { critical: true, needed: isPlug },
    ),
    step(
      'pitch',
      'From one turn to the next',
      'span',
      'Over several turns, divided by their number: a single turn is read badly.',
      { needed: odd('') },
    ),
    step('ridge_height', 'Ridge, height', 'depth-rod', 'From the crest down to the neck between two turns.', {
      needed: odd(''),
    }),
    step('neck_height', 'Neck, height', 'step', 'From its rim to what the cover must not touch.'),
    step('neck_b', 'Neck B, over its ridges', 'outside-jaws', 'The other neck, across opposite ridges.', {
      critical: true,
      needed: isCoupler,
    }),
    step('pitch_b', 'B, from one turn to the next', 'span', 'Over several turns, divided by their number.', {
      needed: odd('B', isCoupler),
    }),
  ],
  mates: [
    {
      id: 'cover',
      name: 'Cover on its neck',
      dimension: 'neck',
      parameter: 'coverThread',
      side: 'inside',
      want: 'screw',
      flexibleWant: 'screw',
      active: inTurns,
    },
    {
      id: 'plug',
      name: 'Plug in its neck',
      dimension: 'socket',
      parameter: 'plugThread',
      side: 'outside',
      want: 'screw',
      flexibleWant: 'screw',
      active: isPlug,
    },
    {
      id: 'coverB',
      name: 'Other end on neck B',
      dimension: 'neck_b',
      parameter: 'coverThreadB',
      side: 'inside',
      want: 'screw',
      flexibleWant: 'screw',
      active: isCoupler,
    },
  ],
  parameters: [
    choice('style', 'It is', {
      cover: 'a cover, closed',
      ring: 'a ring, open',
      plug: 'a plug',
      coupler: 'a coupler for two necks',
    }),
    words('standard', 'Standard thread (empty: as measured)', '', 40),
    length('coverThread', 'Thread, over its grooves', [6, 300], 'neck.model', { shown: inTurns }),
    length('plugThread', 'Thread, over its ridges', [6, 300], 'socket.model', { shown: isPlug }),
    length('pitchLength', 'Pitch', [0.8, 40], 'pitch', { shown: odd('') }),
    choice('hand', 'Hand', HANDS),
    length('starts', 'Starts', [1, 6], '1', { measure: 'count', shown: odd('') }),
    length('length', 'Thread, length', [3, 150], 'neck_height - 1'),
    length('ridge', 'Ridge, height', [0.4, 20], 'ridge_height', { shown: odd('') }),
    length('foot', 'Ridge or groove, width at its foot', [0.5, 36], 'pitchLength * 0.6', { shown: odd('') }),
    length('flanks', 'Angle between its flanks', [4, 90], '40', { measure: 'angle', shown: odd('') }),
    length('rounding', 'Crest and root rounded, radius', [0, 12], '0', { shown: odd('') }),
    words('standardB', 'B, standard thread (empty: as measured)', '', 40, isCoupler),
    length('coverThreadB', 'B, over its grooves', [6, 300], 'neck_b.model', { shown: isCoupler }),
    length('pitchLengthB', 'B, pitch', [0.8, 40], 'pitch_b', { shown: odd('B', isCoupler) }),
    choice('handB', 'B, hand', HANDS, { shown: isCoupler }),
    length('lengthB', 'B, thread length', [3, 150], 'length', { shown: isCoupler }),
    length('ridgeB', 'B, ridge height', [0.4, 20], 'pitchLengthB * 0.3', { shown: odd('B', isCoupler) }),
    length('end', 'End, or what is between the necks', [1.2, 60], '3', {
      shown: p => p.style !== 'ring',
      sensible: PLATE,
    }),
    length('wall', 'Wall outside the thread', [0.8, 40], '3', { sensible: WALL }),
    length('bore', 'Way through the plug (0 is closed)', [0, 290], '0', { shown: isPlug }),
    length('flutes', 'Flutes to grip by', [0, 40], '12', { measure: 'count', group: 'more' }),
    length('seal', 'Recess for a seal, deep', [0, 20], '0', {
      group: 'more',
      shown: p => p.style === 'cover',
    }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks,
  demo: {
    name: 'a stowage hatch with a coarse, odd thread',
    sizes: { neck: 108, socket: 100, pitch: 13, ridge_height: 3.5, neck_height: 32, neck_b: 60, pitch_b: 6 },
    parameters: {
      style: 'cover',
      standard: '',
      coverThread: 110,
      plugThread: 98,
      pitchLength: 13,
      hand: 'right',
      starts: 1,
      length: 31,
      ridge: 3.5,
      foot: 7.8,
      flanks: 40,
      rounding: 0.8,
      standardB: '',
      coverThreadB: 60.6,
      pitchLengthB: 6,
      handB: 'right',
      lengthB: 20,
      ridgeB: 1.8,
      end: 3,
      wall: 3,
      bore: 0,
      flutes: 12,
      seal: 0,
    },
  },
};
