import type { Finding } from '../../findings/finding';
import { crestOf, mostRounding, type ThreadForm } from '../../thread';
import { Refusals } from '../fields';
import type { P } from './parameters';
import { isCoupler, isPlug, isStandard, leadOf, sizesOf, standardOf, type Which } from './sizes';

export function refuse(p: P): Finding[] {
  const named = (isCoupler(p) ? (['', 'B'] as const) : ([''] as const)).flatMap(which => unknown(p, which));
  if (named.length > 0) return named;
  const s = sizesOf(p);
  const r = new Refusals<P>();
  ridges(r, p, '', s.thread);
  if (s.second) ridges(r, p, 'B', s.second);
  r.when(
    s.seal > 0 && s.seal > s.floor - 0.8,
    'seal',
    'The recess for the seal cuts through the end.',
    Math.max(0, s.floor - 1.2),
  )
    .when(
      p.wall < (s.lobes > 0 ? 1.8 : 0.8),
      'wall',
      'The flutes cut through the wall: make it thicker, or leave them out.',
      2.4,
    )
    .when(
      s.lobes > 0 && (2 * Math.PI * s.outer) / s.lobes < 5,
      'flutes',
      'So many flutes run into each other.',
      Math.floor((2 * Math.PI * s.outer) / 6),
    )
    .when(
      isPlug(p) && s.through > s.thread.minor - 1.6,
      'bore',
      'The way through leaves no wall under the thread.',
      s.thread.minor - 3.2,
    );
  if (s.second)
    r.when(
      s.through < 2,
      isStandard(p, 'B') || s.second.minor > s.thread.minor ? 'coverThread' : 'coverThreadB',
      'Nothing is left of the way through between the two necks: was a radius typed?',
    );
  return r.list;
}

/** The name of a thread that the shelf does not know, or that cannot be printed as it is. */
function unknown(p: P, which: Which): Finding[] {
  if (!isStandard(p, which)) return [];
  const name = p[`standard${which}` as const].trim();
  const found = standardOf(p, which);
  const r = new Refusals<P>();
  r.when(
    !found,
    `standard${which}`,
    `The shelf knows no thread “${name}”. Write it like M20, M20x1.5, G 3/4 or 1/2-13 UNC, or leave it empty and give pitch and ridge.`,
  );
  if (found)
    r.when(
      found.taper,
      `standard${which}`,
      `${found.designation} is a taper thread: it wedges a printed part apart. Take a parallel thread with a seal, or leave this empty.`,
    ).when(
      found.pitch < 0.8,
      `standard${which}`,
      `${found.designation} has a pitch of ${found.pitch} mm: fewer than four layers. Take an insert or a tap instead.`,
    );
  return r.list;
}

function ridges(r: Refusals<P>, p: P, which: Which, thread: ThreadForm): void {
  const depth = leadOf(thread);
  const long = thread.to - thread.from;
  r.when(
    long < depth + thread.pitch * 0.5 + 0.5,
    `length${which}`,
    'The thread is too short to hold: at least half a turn and its lead-in.',
    depth + thread.pitch + 1,
  );
  if (isStandard(p, which)) {
    r.when(
      thread.minor < 2,
      which === 'B' ? 'coverThreadB' : isPlug(p) ? 'plugThread' : 'coverThread',
      'This thread is deeper than it is wide here: was a radius typed for its diameter?',
    );
    return;
  }
  const ownFoot = which === '' ? 'foot' : 'ridgeB';
  r.when(
    thread.minor < 2,
    `ridge${which}`,
    'The ridge is higher than the neck is wide: was a diameter typed for its height?',
    thread.major / 10,
  )
    .when(
      thread.foot > 0.9 * thread.pitch,
      ownFoot,
      'The ridge fills the whole pitch: nothing is left between its turns.',
      0.55 * thread.pitch,
    )
    .when(
      crestOf(thread) < 0.2,
      ownFoot,
      'The flanks meet below the crest: a wider foot, a lower ridge, or steeper flanks.',
      which === '' ? 2 * depth * Math.tan(((thread.flankAngle / 2) * Math.PI) / 180) + 0.6 : undefined,
    );
  if (thread.rounding && crestOf(thread) >= 0.2 && thread.foot <= 0.9 * thread.pitch)
    r.when(
      thread.rounding > mostRounding(thread),
      'rounding',
      'So large a radius does not fit on the ridge and in its root.',
      Math.floor(100 * mostRounding(thread)) / 100,
    );
}
