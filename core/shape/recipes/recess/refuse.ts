import type { Models } from '../../kernels/kernel';
import { laidObject } from '../../laid-object';
import { Refusals } from '../fields';
import type { P } from './parameters';
import { LEAST_WALL, sizesOf } from './sizes';

/** On each side, mm: even a lining of foam needs no more. Common practice, no source. */
const MOST_ROOM = 8;
/** A wall must touch at least this much of it, mm. Common practice, no source. */
const LEAST_SUNK = 1;

export function refuse(p: P, models?: Models) {
  const found = new Refusals<P>()
    .when(
      p.mouth > p.sunk - LEAST_SUNK,
      'mouth',
      'The mouth’s widening goes down to the floor: make it less, or the recess deeper.',
      Math.max(0, p.sunk - LEAST_SUNK),
    )
    .when(
      p.edge < p.mouth + LEAST_WALL,
      'edge',
      'The mouth’s widening takes the wall away: make the wall thicker.',
      p.mouth + LEAST_WALL + 1,
    )
    .when(
      p.fingers !== 'none' && p.fingerDeep > p.sunk,
      'fingerDeep',
      'The room for fingers goes through the floor: make it less deep.',
      0.7 * p.sunk,
    );
  if (p.object === '') return found.when(true, 'object', 'Choose the scan of the object, or its file.').list;
  if (!models) return found.list;
  const object = laidObject(p, models);
  if (!object) return found.when(true, 'object', 'The object’s file is not at hand: take it in again.').list;
  const s = sizesOf(p, models)!;
  const width = s.back - s.front;
  return found
    .when(
      s.room < 0.02,
      'opening',
      `The object is ${width.toFixed(2)} mm wide as it lies: it does not go into this opening. Check the reading, and the scan’s scale.`,
      width + 0.5,
    )
    .when(
      s.room > MOST_ROOM,
      'opening',
      `What of the object lies in the recess is only ${width.toFixed(2)} mm wide: it would rattle about. Check the reading, how deep and which way it lies, and the scan’s scale.`,
      width + 0.5,
    )
    .when(
      p.sunk > object.size[2] + 30,
      'sunk',
      'The object would drop down a shaft: make the recess less deep.',
      object.size[2] / 2,
    ).list;
}
