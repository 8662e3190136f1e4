import type { AdditionKind, AdditionKindName } from './addition';
import { band, flutes, leadIn } from './kinds/around';
import { draft } from './kinds/draft';
import { edges } from './kinds/edges';
import { hole } from './kinds/hole';
import { rib } from './kinds/rib';
import { shape } from './kinds/shape';
import { slot, tie } from './kinds/slots';
import { split } from './kinds/split';
import { thread } from './kinds/thread';
import { keepClear, otherHand } from './kinds/whole';
import { words } from './kinds/words';

/** Every kind of addition, in the order in which they are offered. */
export const KINDS: readonly AdditionKind[] = [
  shape,
  hole,
  slot,
  band,
  thread,
  tie,
  edges,
  flutes,
  rib,
  words,
  leadIn,
  draft,
  keepClear,
  otherHand,
  split,
];

/** @throws RangeError when the kind is unknown */
export function kindOf(name: AdditionKindName): AdditionKind {
  const found = KINDS.find(k => k.kind === name);
  if (!found) throw new RangeError(`There is no addition “${name}”.`);
  return found;
}
