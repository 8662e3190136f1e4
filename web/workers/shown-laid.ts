import { quantileSorted } from 'd3-array';
import { distance2, type Point2 } from '../../core/shape/vector';
import type { Contact } from '../../core/trace/contact';
import type { Outlines } from '../../core/trace/doubt';
import type { TracedLoop } from '../../core/trace/outline';
import type { Laid } from '../../core/trace/overlay/differences';
import type { Picked } from '../../core/trace/sizes';
import type { TracedPlane } from '../../core/trace/trace-plane';
import type { ShownLaid } from './trace-protocol';

/** A part placed on a trace, as it appears in the picture. */
export function shownLaid(laid: Laid, traced: TracedPlane, outlines: Outlines): ShownLaid {
  const { loops, shown } = traced;
  const seen = (p: Point2) => shown(p, contactAt(loops, p));
  const offs = laid.spots.map(s => s.off);
  const far = offs
    .filter(o => !Number.isNaN(o))
    .map(Math.abs)
    .sort((a, b) => a - b);
  return {
    side: laid.side,
    rings: laid.rings.map(ring => {
      const line = ring.flatMap(seen);
      return Float32Array.from([...line, ...line.slice(0, 2)]);
    }),
    spots: {
      at: Float32Array.from(laid.spots.flatMap(({ from, to }) => [...seen(from), ...seen(to)])),
      off: Float32Array.from(offs),
    },
    p95: quantileSorted(far, 0.95) ?? 0,
    overlap: laid.overlap,
    mean: laid.mean,
    pieces: laid.pieces.map(({ loop, piece, off, most }) => ({
      key: keyOf({ loop, piece }),
      kind: piece === null ? 'round' : outlines[loop]?.[piece]?.arc ? 'rounding' : 'side',
      hole: loop > 0,
      off,
      most,
    })),
    missing: laid.missing.map(({ at, width }) => ({ at: seen(at), width })),
  };
}

export const keyOf = ({ loop, piece }: Picked): string => `${loop}.${piece ?? 'round'}`;

/** The height that was assumed for the nearest point of the edge. */
export function contactAt(loops: readonly TracedLoop[], p: Point2): Contact {
  let found: Contact = 'foot';
  let least = Infinity;
  for (const { parted, contacts } of loops)
    parted.points.forEach((q, i) => {
      const far = distance2(p, q);
      if (far < least) [found, least] = [contacts[i] ?? 'foot', far];
    });
  return found;
}
