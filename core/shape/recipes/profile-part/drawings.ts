import { boxOf } from '../../curve';
import { box, Draft } from '../../drawing/draft';
import type { Drawing } from '../../drawing/drawing';
import type { Outline } from '../../kernels/kernel';
import { OffsetError } from '../../offset';
import { pointsOf } from '../../outline';
import { OutlineTextError, outlineOfText, untrimmedOfText } from '../../outline-text';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';
import { FITTING, type Fitting, fittingOf, type Sizes, sizesOf } from './sizes';

type Drawn = keyof P | Fitting;

/** The maker's outline cannot be read or cannot be offset that far; the refusal tells the maker why. */
const isOutlineProblem = (error: unknown) =>
  error instanceof OutlineTextError || error instanceof OffsetError;

/** A part that cannot be built is drawn as written, or as a box of its sizes. */
function drawnSizes(p: P): Pick<Sizes, 'outer' | 'holes' | 'pocket' | 'lip' | 'top'> {
  try {
    return sizesOf(p);
  } catch (error) {
    if (!isOutlineProblem(error)) throw error;
    const size = p[FITTING[fittingOf(p)]];
    const plain = (name: 'outline', spare: Outline): Outline => {
      try {
        return outlineOfText(p[name]);
      } catch (error) {
        if (!isOutlineProblem(error)) throw error;
        return spare;
      }
    };
    const square = outlineOfText(`0, 0; ${size}, 0; ${size}, ${size}; 0, ${size}`);
    return { outer: plain('outline', square), holes: [] };
  }
}

/** From above, with its thickness beside it. */
export function drawing(p: P): Drawing<Drawn> {
  const s = drawnSizes(p);
  const [x0, y0, x1, y1] = boxOf(s.outer);
  const gap = Math.max(4, (y1 - y0) / 8);
  const draft = new Draft<Drawn>().cut(s.outer);
  if (s.top) draft.edge(s.top);
  if (s.lip) draft.edge(s.lip.inner);
  if (s.pocket) draft.edge(s.pocket.outline);
  for (const { outline } of s.holes) draft.edge(outline);
  const by = fittingOf(p);
  draft.mateLoop(by, s.outer);
  if (by === 'height') {
    draft.up('height', 'fits', x0, [y0, y1], x0 - gap);
    draft.across('outline', 'wide', [x0, x1], y0, y0 - gap);
  } else {
    draft.across(by, by === 'around' ? 'around ÷ π' : 'fits', [x0, x1], y0, y0 - gap);
    draft.up('outline', 'high', x0, [y0, y1], x0 - gap);
  }
  const thickness = p.thickness;
  const side = x1 + 2 * gap;
  draft.edge(box(side, y0, side + thickness, y1));
  if (s.lip) draft.edge(box(side + thickness, y0, side + thickness + s.lip.height, y1));
  draft.across('thickness', 'thick', [side, side + thickness], y0, y0 - gap);
  return draft.done('From above, and from the side');
}

/** The seat with its readings, drawn with the outline as far as it is written. */
export function objectDrawing(measured: Measured<Asked>, p: P): Drawing<Asked> {
  const [w, h] = [measured.seat_width ?? 30, measured.seat_height ?? 21];
  const depth = measured.seat_depth ?? 12;
  let seat: Outline;
  try {
    seat = untrimmedOfText(p.outline);
  } catch (error) {
    if (!isOutlineProblem(error)) throw error;
    seat = outlineOfText(`0, 0; ${w}, 0; ${w}, ${h}; 0, ${h}`);
  }
  const [x0, y0, x1, y1] = boxOf(seat);
  const gap = Math.max(4, (y1 - y0) / 8);
  const draft = new Draft<Asked>()
    .cut(box(x0 - gap, y0 - gap, x1 + gap, y1 + gap))
    .edge(seat)
    .mate('seat_around', [...pointsOf(seat), pointsOf(seat)[0]!])
    .across('seat_width', 'widest', [x0, x1], y0, y0 - 2 * gap)
    .up('seat_height', 'highest', x0, [y0, y1], x0 - 2 * gap)
    .across('seat_around', 'around', [x0, x1], y1, y1 + 2 * gap);
  const side = x1 + 3 * gap;
  draft
    .cut(box(side, y0 - gap, side + depth + gap, y1 + gap))
    .edge(box(side, y0, side + depth, y1))
    .across('seat_depth', 'deep', [side, side + depth], y0, y0 - 2 * gap);
  return draft.done('The seat from above, and cut');
}
