import { boxOf } from '../../curve';
import { box, Draft } from '../../drawing/draft';
import type { Drawing } from '../../drawing/drawing';
import type { Finding } from '../../findings/finding';
import { OffsetError } from '../../offset';
import { circle } from '../../outline';
import { roundedRectangle, shifted } from '../../section';
import { defineRecipe, keyed, type Measured } from '../define-recipe';
import { Refusals } from '../fields';
import { type Asked, guide } from './guide';
import {
  ENDS,
  type End,
  FITS,
  type Fit,
  key,
  LABEL,
  low,
  MEASURES,
  type Measure,
  type P,
  parameters,
} from './parameters';
import { active, asideOf, fitOf, isBoxed, isRound, mateName, type Sizes, sizesOf } from './sizes';
import { entryOf, places, solid } from './solid';

const mate = (fit: Fit, measure: Measure, end: End) =>
  [
    `${fit}${measure}${end}`,
    {
      name: `End ${end} ${fit === 'over' ? 'over its duct' : 'in its mouth'}, ${LABEL[measure]}`,
      dimension: key(fit, measure, end),
      parameter: `${fit}${measure}${end}`,
      side: fit === 'over' ? 'inside' : 'outside',
      want: 'snug',
      flexibleWant: fit === 'over' ? 'stretch' : 'snug',
      form: measure === 'Round' ? 'round' : 'flats',
      active: active(fit, measure, end),
    },
  ] as const;

function refuse(p: P): Finding[] {
  let s: Sizes;
  try {
    s = sizesOf(p);
  } catch (error) {
    if (!(error instanceof OffsetError)) throw error;
    return new Refusals<P>().when(
      true,
      'wall',
      'The wall or the stop takes all of an end’s passage: make it thinner, or the end larger.',
    ).list;
  }
  const refusals = new Refusals<P>();
  for (const end of ENDS) {
    const e = s[end];
    refusals.when(
      e.length < 2 * s.leadIn + 1,
      `length${end}`,
      `End ${end} is too short to hold anything.`,
      2 * s.leadIn + 4,
    );
    try {
      entryOf(e, s.leadIn);
    } catch (error) {
      if (!(error instanceof OffsetError)) throw error;
      refusals.when(true, 'leadIn', 'The lead-in is larger than an end’s corner: make it smaller.', 0.4);
    }
  }
  const aside = asideOf(s);
  return refusals
    .when(s.leadIn > s.wall - 0.3, 'leadIn', 'The lead-in takes the whole wall.', Math.max(0, s.wall - 0.4))
    .when(
      aside > s.middle,
      'middle',
      `Between the ends the wall goes ${aside.toFixed(1)} mm aside: over less height than that it overhangs.`,
      aside + 2,
    ).list;
}

function drawing(p: P): Drawing<keyof P> {
  const draft = new Draft<keyof P>();
  let s: Sizes;
  try {
    s = sizesOf(p);
  } catch (error) {
    if (!(error instanceof OffsetError)) throw error;
    const size = (end: End) => p[mateName(p, end, isRound(end)(p) ? 'Round' : 'Width')];
    for (const end of ENDS) draft.edge(circle([0, 0], size(end) / 2));
    return draft.done('From above');
  }
  const total = s.A.length + s.middle + s.B.length;
  draft.edge(s.A.outer).edge(s.A.mate).edge(s.B.outer).cut(s.B.mate);
  const [ax0, ay0, ax1, ay1] = boxOf(s.A.outer);
  const [bx0, by0, bx1, by1] = boxOf(s.B.outer);
  const [x0, y0, x1, y1] = [Math.min(ax0, bx0), Math.min(ay0, by0), Math.max(ax1, bx1), Math.max(ay1, by1)];
  const gap = Math.max(5, (y1 - y0) / 7);
  for (const end of ENDS) {
    const [u0, v0, u1, v1] = boxOf(s[end].mate);
    const below = end === 'A';
    const line = below ? y0 - gap : y1 + gap;
    if (isRound(end)(p)) {
      const id = mateName(p, end, 'Round');
      draft.mateLoop(id, s[end].mate).across(id, end, [u0, u1], (v0 + v1) / 2, line, true);
      continue;
    }
    const [w, d] = [mateName(p, end, 'Width'), mateName(p, end, 'Depth')];
    draft.mateLoop(w, s[end].mate).across(w, `${end}, wide`, [u0, u1], below ? v0 : v1, line);
    draft.mateLoop(d, s[end].mate).up(d, `${end}, deep`, u0, [v0, v1], x0 - gap * (below ? 1 : 2.2));
  }
  // Beside it, from the front.
  const side = x1 + 3 * gap;
  const at = (x: number, z: number) => [side + x - x0, y0 + z] as const;
  const [a, b] = [s.A.length, s.A.length + s.middle];
  draft.edge([
    at(ax0, 0),
    at(ax1, 0),
    at(ax1, a),
    at(bx1, b),
    at(bx1, total),
    at(bx0, total),
    at(bx0, b),
    at(ax0, a),
  ]);
  draft.up('middle', 'between', side, [y0 + a, y0 + b], side - gap);
  return draft.done('From above, and from the front');
}

function objectDrawing(measured: Measured<Asked>, p: P): Drawing<Asked> {
  const draft = new Draft<Asked>();
  let x = 0;
  for (const end of ENDS) {
    const fit = fitOf(p, end);
    const size = (measure: Measure, usual: number) => measured[key(fit, measure, end)] ?? usual;
    const round = isRound(end)(p);
    const d = round ? size('Round', 60) : 0;
    const [w, h] = round ? [d, d] : [size('Width', 90), size('Depth', 40)];
    const shape = round
      ? circle([0, 0], d / 2)
      : roundedRectangle(w, h, measured[`corner_${low(end)}` as const] ?? 6);
    const at = x + w / 2;
    const moved = shifted(shape, [at, 0]);
    if (fit === 'over') draft.cut(moved);
    else draft.cut(box(at - w / 2 - 6, -h / 2 - 6, at + w / 2 + 6, h / 2 + 6)).edge(moved);
    if (round) {
      draft.mateLoop(key(fit, 'Round', end), moved);
      draft.across(
        key(fit, 'Round', end),
        `${end}, diameter`,
        [at - d / 2, at + d / 2],
        0,
        -d / 2 - 14,
        true,
      );
    } else {
      draft.mateLoop(key(fit, 'Width', end), moved);
      draft.across(key(fit, 'Width', end), `${end}, width`, [at - w / 2, at + w / 2], -h / 2, -h / 2 - 14);
      draft.up(key(fit, 'Depth', end), 'depth', at - w / 2, [-h / 2, h / 2], at - w / 2 - 12);
      const r = measured[`corner_${low(end)}` as const] ?? 6;
      draft.across(`corner_${low(end)}`, 'corner', [at + w / 2 - r, at + w / 2], h / 2, h / 2 + 14);
    }
    x += w + 50;
  }
  return draft.done('The two ends, from their mouths');
}

export const ductAdapter = defineRecipe({
  id: 'duct-adapter',
  version: 1,
  family: 'adapter',
  title: 'Duct adapter, round to rectangular',
  purpose: 'Goes from one section to another, in line or aside: round or a rounded rectangle at each end.',
  guide,
  mates: keyed(ENDS.flatMap(end => FITS.flatMap(fit => MEASURES.map(measure => mate(fit, measure, end))))),
  parameters,
  shown: {
    ...keyed(
      ENDS.flatMap(end =>
        FITS.flatMap(fit =>
          MEASURES.map(measure => [`${fit}${measure}${end}`, active(fit, measure, end)] as const),
        ),
      ),
    ),
    cornerA: isBoxed('A'),
    cornerB: isBoxed('B'),
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a fan’s round outlet and a flat duct',
    sizes: {
      duct_diameter_a: 60,
      duct_width_a: 60,
      duct_depth_a: 50,
      mouth_diameter_a: 56,
      mouth_width_a: 56,
      mouth_depth_a: 46,
      corner_a: 6,
      duct_diameter_b: 60,
      duct_width_b: 90,
      duct_depth_b: 40,
      mouth_diameter_b: 56,
      mouth_width_b: 86,
      mouth_depth_b: 36,
      corner_b: 6,
    },
    parameters: {
      sectionA: 'round',
      fitA: 'over',
      overRoundA: 60.35,
      overWidthA: 60.35,
      overDepthA: 50.35,
      intoRoundA: 55.8,
      intoWidthA: 55.8,
      intoDepthA: 45.8,
      cornerA: 6,
      lengthA: 20,
      sectionB: 'rounded',
      fitB: 'over',
      overRoundB: 60.35,
      overWidthB: 90.35,
      overDepthB: 40.35,
      intoRoundB: 55.8,
      intoWidthB: 85.8,
      intoDepthB: 35.8,
      cornerB: 6,
      lengthB: 20,
      middle: 40,
      shiftRight: 0,
      shiftBack: 0,
      wall: 2,
      stop: 1.5,
      leadIn: 0.6,
    },
  },
});
