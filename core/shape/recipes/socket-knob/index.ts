import { defineRecipe } from '../define-recipe';
import { drawing, objectDrawing } from './drawings';
import { guide } from './guide';
import { parameters } from './parameters';
import { refuse } from './refuse';
import { hasFlats, hasFlutes, hasKey, isRound } from './sizes';
import { places, solid } from './solid';

export const socketKnob = defineRecipe({
  id: 'socket-knob',
  version: 3,
  family: 'replacement',
  title: 'Socket knob',
  purpose: 'Turns a shaft or a bolt head by hand: hexagon, square, D, two flats, round or with a key.',
  guide,
  mates: {
    flats: {
      name: 'Socket over flats',
      dimension: 'flats',
      parameter: 'socketFlats',
      side: 'inside',
      want: 'snug',
      flexibleWant: 'snug',
      form: 'flats',
      active: hasFlats,
    },
    shaft: {
      name: 'Socket over shaft',
      dimension: 'shaft',
      parameter: 'socketRound',
      side: 'inside',
      want: 'snug',
      flexibleWant: 'snug',
      active: isRound,
    },
    key: {
      name: 'Key in its slot',
      dimension: 'key_width',
      parameter: 'keyWidth',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      active: hasKey,
    },
  },
  parameters,
  shown: {
    socketFlats: hasFlats,
    socketRound: isRound,
    keyWidth: hasKey,
    overKey: hasKey,
    socketDepth: p => !p.through,
    lobes: p => p.grip === 'lobes',
    flutes: hasFlutes,
    fluteDepth: hasFlutes,
    screwHole: p => p.setScrew,
    screwHeight: p => p.setScrew,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a foot-stretcher’s worn hexagon bolt',
    sizes: { flats: 13, shaft: 16, key_width: 5, over_key: 18, stub: 10 },
    parameters: {
      socket: 'hexagon',
      socketFlats: 13.3,
      socketRound: 16.3,
      keyWidth: 5.2,
      overKey: 18.4,
      through: false,
      socketDepth: 9.5,
      grip: 'lobes',
      gripDiameter: 50,
      lobes: 5,
      flutes: 16,
      fluteDepth: 1,
      height: 14,
      setScrew: false,
      screwHole: 2.5,
      screwHeight: 4.5,
      leadIn: 0.6,
    },
  },
});
