import type { KeysOf } from '../define-recipe';
import { step } from '../fields';
import { has } from './parameters';

export const guide = [
  step(
    'rim',
    'Rim, outside',
    'outside-jaws',
    'Outside jaws square to the axis, close until they just drag. Turn the object a third between readings: a port is seldom round.',
    { needed: has.skirt },
  ),
  step(
    'rim_height',
    'Rim height',
    'step',
    'From the top of the rim down to what the skirt must not touch. Set the beam flat on the rim and let the rod drop.',
    { needed: has.skirt, bounds: 'skirtDepth' },
  ),
  step(
    'groove',
    'Groove, outside',
    'jaw-tips',
    'Thin tips of the outside jaws, at the bottom of the groove. The body of the jaw would ride on the rim and read high.',
    { needed: has.lip },
  ),
  step(
    'bore',
    'Bore, inside',
    'inside-jaws',
    'Inside jaws, open until they just touch; rock them and keep the largest reading across the bore.',
    { needed: has.plug },
  ),
  step(
    'inner_groove',
    'Groove inside the bore',
    'inside-jaws',
    'Tips of the inside jaws at the bottom of the groove. If they do not reach, measure a strip of putty pressed into it.',
    { needed: has.bead },
  ),
  step(
    'groove_from',
    'Groove from the top',
    'depth-rod',
    'From the top of the rim to the groove’s nearer edge: this is where the lip must wait.',
    { needed: has.ridge },
  ),
  step(
    'groove_width',
    'Groove width',
    'inside-jaws',
    'Tips of the inside jaws in the groove, along the axis.',
    { needed: has.ridge },
  ),
  step(
    'neck',
    'Neck that the strap’s ring goes around',
    'outside-jaws',
    'A part of the object that stays: below the rim, a screw’s head, an eye. Turn it between readings.',
    { needed: has.strap },
  ),
];

export type Asked = KeysOf<typeof guide>;
