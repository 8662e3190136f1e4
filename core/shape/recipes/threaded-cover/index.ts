import { type Finding, finding } from '../../findings/finding';
import { OFF_STANDARD } from '../../thread';
import { defineRecipe } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { type P, parameters } from './parameters';
import { refuse } from './refuse';
import { inTurns, isCoupler, isPlug, isStandard, odd, places, standardOf } from './sizes';
import { solid } from './solid';

function checks(p: P): Finding[] {
  const off = (['', 'B'] as const).flatMap((which): Finding[] => {
    const standard = isStandard(p, which) ? standardOf(p, which) : undefined;
    if (!standard || (which === 'B' && !isCoupler(p))) return [];
    const parameter = which === 'B' ? 'coverThreadB' : isPlug(p) ? 'plugThread' : 'coverThread';
    const drawn = p[parameter];
    if (Math.abs(drawn - standard.major) < OFF_STANDARD) return [];
    const { designation, major } = standard;
    return [finding('not-this-thread', 'warn', { designation, major, drawn }, { parameter })];
  });
  return [...off, finding('step-without-thread', 'note', {})];
}

export const threadedCover = defineRecipe({
  id: 'threaded-cover',
  version: 2,
  family: 'adapter',
  title: 'Threaded cover, ring, plug or coupler',
  purpose:
    'Screws on a neck or into one, or joins two: a standard thread by its name, or an odd one of any pitch, hand and number of starts.',
  guide,
  mates: {
    cover: {
      name: 'Cover on its neck',
      dimension: 'neck',
      parameter: 'coverThread',
      side: 'inside',
      want: 'screw',
      flexibleWant: 'screw',
      active: inTurns,
    },
    plug: {
      name: 'Plug in its neck',
      dimension: 'socket',
      parameter: 'plugThread',
      side: 'outside',
      want: 'screw',
      flexibleWant: 'screw',
      active: isPlug,
    },
    coverB: {
      name: 'Other end on neck B',
      dimension: 'neck_b',
      parameter: 'coverThreadB',
      side: 'inside',
      want: 'screw',
      flexibleWant: 'screw',
      active: isCoupler,
    },
  },
  parameters,
  shown: {
    coverThread: inTurns,
    plugThread: isPlug,
    pitchLength: odd(''),
    starts: odd(''),
    ridge: odd(''),
    foot: odd(''),
    flanks: odd(''),
    rounding: odd(''),
    coverThreadB: isCoupler,
    pitchLengthB: odd('B', isCoupler),
    handB: isCoupler,
    lengthB: isCoupler,
    ridgeB: odd('B', isCoupler),
    standardB: isCoupler,
    end: p => p.style !== 'ring',
    bore: isPlug,
    seal: p => p.style === 'cover',
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
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
});
