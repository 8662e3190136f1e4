import { boxOf } from '../../curve';
import { type Finding, finding } from '../../findings/finding';
import { OffsetError } from '../../offset';
import { holesOfText, OutlineTextError, outlineOfText, untrimmedOfText } from '../../outline-text';
import { gapBetween, wallBetween } from '../../within';
import { Refusals } from '../fields';
import type { P } from './parameters';
import { FITTING, fittingOf, has, movedBy, type Sizes, sizeOf, sizesOf } from './sizes';
import { edgesOf, entryOf, goesThrough } from './solid';

/** A thinner one is not printed. */
const LEAST_WALL = 0.4;

export function refuse(p: P): Finding[] {
  const unreadable = readable(p);
  if (unreadable.length > 0) return unreadable;
  const trimmed = trimmedAway(p);
  if (trimmed.length > 0) return trimmed;
  const far = movedTooFar(p);
  if (far.length > 0) return far;
  let s: Sizes;
  try {
    s = sizesOf(p);
  } catch (error) {
    return [offsetRefused(error, movedBeyond(p))];
  }
  try {
    entryOf(s);
  } catch (error) {
    return [offsetRefused(error, 'leadIn')];
  }
  return refuseSizes(s, has.pocketWall(p));
}

/** Which number offset an outline too far: the part's own size, its pocket's wall or its lip. */
function movedBeyond(p: P): keyof P {
  const goes = (q: P) => {
    try {
      sizesOf(q);
      return true;
    } catch (error) {
      if (!(error instanceof OffsetError)) throw error;
      return false;
    }
  };
  if (goes({ ...p, lip: false })) return 'lipWidth';
  return has.pocketWall(p) && goes({ ...p, lip: false, pocket: false })
    ? 'pocketWall'
    : FITTING[fittingOf(p)];
}

function refuseSizes(s: Sizes, byWall: boolean): Finding[] {
  const refusals = new Refusals<P>()
    .when(
      s.leadIn > s.straight - 0.5,
      'leadIn',
      'The lead-in takes the whole straight wall: make it smaller.',
      Math.max(0, s.straight - 1),
    )
    .when(
      s.top !== undefined && s.straight > s.thickness - 0.2,
      'straight',
      'The wall must end its straight part below the top outline.',
      s.thickness / 2,
    )
    .when(
      s.top !== undefined && edgesOf(s.top) !== edgesOf(s.outer),
      'topOutline',
      `The top outline has ${s.top && edgesOf(s.top)} edges, the lower one ${edgesOf(s.outer)}: both need the same corners, taken off alike.`,
    );
  if (refusals.list.length > 0) return refusals.list;
  // Every cut must leave a wall at every height.
  const limits = s.top ? [s.outer, s.top] : [s.outer];
  s.holes.forEach(({ outline }, i) => {
    const wall = Math.min(...limits.map(l => wallBetween(l, outline)));
    refusals.when(
      wall < LEAST_WALL,
      'holes',
      `Hole ${i + 1} ${wall < 0 ? 'breaks through the edge' : 'leaves no wall at the edge'}: move it inwards, or draw the notch in the outline.`,
    );
    s.holes.slice(0, i).forEach(({ outline: other }, j) => {
      refusals.when(
        gapBetween(outline, other) < LEAST_WALL,
        'holes',
        `Holes ${j + 1} and ${i + 1} run into each other: move one, or draw them as a pocket.`,
      );
    });
  });
  s.holes.forEach(({ hole }, i) => {
    refusals.when(
      !goesThrough(hole, s) && hole.deep! > s.thickness - LEAST_WALL,
      'holes',
      `Hole ${i + 1} leaves a floor under ${LEAST_WALL} mm: make it shallower, or let it go through.`,
    );
  });
  if (s.pocket) {
    const { outline, depth, top } = s.pocket;
    const wall = top
      ? Math.min(wallBetween(s.outer, outline), wallBetween(s.lip?.inner ?? s.top!, top))
      : Math.min(...[...limits, ...(s.lip ? [s.lip.inner] : [])].map(l => wallBetween(l, outline)));
    refusals
      .when(
        wall < LEAST_WALL,
        byWall ? 'pocketWall' : 'pocketOutline',
        'The pocket leaves no wall around it: move its corners inwards, or make its wall wider.',
      )
      .when(
        depth > s.thickness - LEAST_WALL && depth < s.thickness - 1e-9,
        'pocketDepth',
        `The pocket leaves a floor under ${LEAST_WALL} mm: make it shallower, or let it go through.`,
        s.thickness,
      );
    s.holes.forEach(({ outline: hole }, i) => {
      const [apart, within] = [gapBetween(outline, hole), wallBetween(outline, hole)];
      refusals.when(
        apart < LEAST_WALL && within < LEAST_WALL,
        'holes',
        `Hole ${i + 1} lies on the pocket’s edge: move it in or out.`,
      );
    });
  }
  return refusals.list;
}

/** Each written text on its own, so that the finding names its field. */
function readable(p: P): Finding[] {
  const refusals = new Refusals<P>();
  const outlines = [
    'outline' as const,
    ...(has.top(p) ? ['topOutline' as const] : []),
    ...(has.pocketOutline(p) ? ['pocketOutline' as const] : []),
  ];
  const tried = (name: keyof P, read: () => unknown) => {
    try {
      read();
    } catch (error) {
      if (!(error instanceof OutlineTextError)) throw error;
      refusals.when(true, name, error.message);
    }
  };
  for (const name of outlines) tried(name, () => outlineOfText(p[name]));
  tried('holes', () => holesOfText(p.holes));
  return refusals.list;
}

/** The outline is offset until its fitting size is right: a trim of a side that defines this size would be undone. */
function trimmedAway(p: P): Finding[] {
  if (has.around(p)) return [];
  const [trimmed, whole] = [outlineOfText, untrimmedOfText].map(read => sizeOf(read(p.outline), p));
  const way = has.width(p) ? 'width' : 'height';
  return new Refusals<P>().when(
    Math.abs(trimmed! - whole!) > 0.005,
    'outline',
    `A trim changes the ${way} it fits by, which the ledger sets: trim other edges, let it fit by its ${has.width(p) ? 'height' : 'width'}, or set the gap in Fit.`,
  ).list;
}

/** Fits are tenths of a millimetre: an outline that must grow by a fifth was read from something else. */
function movedTooFar(p: P): Finding[] {
  const written = outlineOfText(p.outline);
  const name = FITTING[fittingOf(p)];
  let moved = Infinity;
  try {
    moved = movedBy(written, p);
  } catch (error) {
    if (!(error instanceof OffsetError)) throw error;
    // Its edges are shorter than a thousandth: this is reported below.
  }
  const [x0, y0, x1, y1] = boxOf(written);
  const most = Math.max(1, Math.min(x1 - x0, y1 - y0) / 10);
  const drawn = sizeOf(written, p);
  return new Refusals<P>().when(
    !(Math.abs(moved) <= most),
    name,
    `The outline as written is ${drawn.toFixed(2)} mm there, the part should be ${p[name].toFixed(2)}: that is more than fit. Write the outline with the sizes that were read.`,
    drawn,
  ).list;
}

function offsetRefused(error: unknown, parameter: string): Finding {
  if (!(error instanceof OffsetError)) throw error;
  const why = `The outline cannot be moved so far. ${error.message} Use a smaller size, or take the corner off less.`;
  return finding('cannot-build', 'stop', { why, make: 0 }, { parameter });
}
