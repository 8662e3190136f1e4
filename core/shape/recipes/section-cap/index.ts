import { boxOf } from '../../curve';
import { box, Draft } from '../../drawing/draft';
import type { Drawing } from '../../drawing/drawing';
import { type Finding, finding } from '../../findings/finding';
import type { Outline } from '../../kernels/kernel';
import { OffsetError, offsetOutline } from '../../offset';
import { pointsOf } from '../../outline';
import { OutlineTextError, outlineOfText } from '../../outline-text';
import { ellipse, roundedRectangle } from '../../section';
import { defineRecipe, keyed, type Measured } from '../define-recipe';
import { Refusals } from '../fields';
import { type Asked, guide } from './guide';
import { GOES, type Goes, key, MEASURES, type Measure, type P, parameters, sizeName } from './parameters';
import { active, girthOf, is, read, type Sizes, sizesOf, widthOf } from './sizes';
import { mouthOf, outerOf, places, ridgeRange, solid, wallLevels } from './solid';

const mate = (goes: Goes, measure: Measure) =>
  [
    `${goes}${measure}`,
    {
      name: `${goes === 'over' ? 'Skirt' : 'Plug'}, ${{ Width: 'width', Depth: 'depth', Around: 'all round' }[measure]}`,
      dimension: key(goes, measure),
      parameter: sizeName(goes, measure),
      side: goes === 'over' ? 'inside' : 'outside',
      want: 'snug',
      flexibleWant: 'stretch',
      ...(measure === 'Around' ? { around: true as const } : { form: 'flats' as const }),
      active: active(goes, measure),
    },
  ] as const;

function refuse(p: P): Finding[] {
  const refusals = new Refusals<P>();
  let s: Sizes;
  try {
    if (is.outline(p)) {
      const written = outlineOfText(p.outline);
      const measure = is.across(p) ? 'Width' : 'Around';
      const [drawn, asked] = [
        is.across(p) ? widthOf(written) : girthOf(written),
        p[sizeName(p.goes, measure)],
      ];
      refusals.when(
        Math.abs(asked - drawn) > Math.max(2, drawn / 8),
        sizeName(p.goes, measure),
        `The outline as written is ${drawn.toFixed(2)} mm there, the part should be ${asked.toFixed(2)}: that is more than fit. Write the outline with the sizes that were read.`,
        drawn,
      );
      if (refusals.list.length > 0) return refusals.list;
    }
    s = sizesOf(p);
  } catch (error) {
    return [refused(error, is.outline(p) ? 'outline' : sizeName(p.goes, is.around(p) ? 'Around' : 'Width'))];
  }
  const [x0, y0, x1, y1] = boxOf(s.mate);
  const ridge = ridgeRange(s);
  const wall = s.goes === 'over' ? s.wall : s.wall === 0 ? Math.min(x1 - x0, y1 - y0) / 2 : s.wall;
  refusals
    .when(
      s.leadIn > wall - 0.3,
      'leadIn',
      'The lead-in takes the whole wall: the mouth would be a knife edge.',
      Math.max(0, wall - 0.4),
    )
    .when(s.leadIn > s.depth - 0.5, 'leadIn', 'The lead-in takes the whole depth.', Math.max(0, s.depth - 1))
    .when(s.goes === 'over' && s.wall < 0.4, 'wall', 'A skirt needs a wall; only a plug may be solid.', 1.6)
    .when(s.goes === 'into' && s.flange < 0.5, 'flange', 'Without a flange the plug falls in.', 2)
    .when(
      ridge !== null && (ridge.from < s.end + 0.3 || ridge.to > s.end + s.depth - s.leadIn - 0.1),
      'ridgeAt',
      'The ridge runs out of the wall: nearer to its middle, or a deeper cap.',
      (s.depth - s.leadIn) / 2,
    );
  if (refusals.list.length > 0) return refusals.list;
  // Each outline is tried, so that a finding names the parameter behind it.
  const tries: [keyof P, () => Outline][] = [
    [s.goes === 'over' ? 'wall' : 'flange', () => outerOf(s)],
    ['leadIn', () => mouthOf(s)],
    ['ridge', () => wallLevels(s)[s.ridge ? 2 : 0]!.outline],
  ];
  if (s.goes === 'into' && s.wall > 0) tries.push(['wall', () => offsetOutline(s.mate, -s.wall)]);
  for (const [parameter, build] of tries) {
    try {
      const built = build();
      refusals.when(
        parameter !== 'wall' && parameter !== 'flange' && built.edges.length !== s.mate.edges.length,
        parameter,
        'A corner of the outline is too pointed for this: round it, or make this smaller.',
      );
    } catch (error) {
      return [refused(error, parameter)];
    }
  }
  return refusals.list;
}

function refused(error: unknown, parameter: string): Finding {
  if (error instanceof OutlineTextError)
    return finding('cannot-build', 'stop', { why: error.message, make: 0 }, { parameter: 'outline' });
  if (!(error instanceof OffsetError)) throw error;
  const why = `The section cannot be moved so far. ${error.message} A smaller size here, or rounder corners.`;
  return finding('cannot-build', 'stop', { why, make: 0 }, { parameter });
}

function drawing(p: P): Drawing<keyof P | `${Goes}${Measure}`> {
  let mateLine: Outline;
  let outer: Outline;
  try {
    const s = sizesOf(p);
    [mateLine, outer] = [s.mate, outerOf(s)];
  } catch (error) {
    if (!(error instanceof OutlineTextError || error instanceof OffsetError)) throw error;
    const size = is.around(p) ? p[sizeName(p.goes, 'Around')] : p[sizeName(p.goes, 'Width')];
    mateLine = roundedRectangle(size, size / 2, 1);
    outer = mateLine;
  }
  const [x0, y0, x1, y1] = boxOf(mateLine);
  const [ox0, oy0, ox1, oy1] = boxOf(outer);
  const gap = Math.max(4, (oy1 - oy0) / 6);
  const draft = new Draft<keyof P | `${Goes}${Measure}`>();
  if (is.over(p)) draft.cut(outer).edge(mateLine);
  else draft.edge(outer).cut(mateLine);
  const { goes } = p;
  if (is.around(p)) {
    draft.mateLoop(`${goes}Around`, mateLine);
    draft.across(`${goes}Around`, 'around ÷ π', [x0, x1], y0, oy0 - gap);
  } else {
    draft.mateLoop(`${goes}Width`, mateLine);
    draft.across(`${goes}Width`, 'wide', [x0, x1], y0, oy0 - gap);
    if (!is.outline(p)) {
      draft.mateLoop(`${goes}Depth`, mateLine);
      draft.up(`${goes}Depth`, 'deep', x0, [y0, y1], ox0 - gap);
    }
  }
  const side = ox1 + 3 * gap;
  const [end, depth] = [p.endThickness, p.depth];
  if (is.over(p)) draft.edge(box(side, oy0, side + ox1 - ox0, oy0 + end + depth));
  else
    draft
      .edge(box(side, oy0, side + ox1 - ox0, oy0 + end))
      .edge(box(side + x0 - ox0, oy0 + end, side + x1 - ox0, oy0 + end + depth));
  draft.up('depth', 'depth', side, [oy0 + end, oy0 + end + depth], side - gap);
  return draft.done('From above, and from the side');
}

function objectDrawing(measured: Measured<Asked>, p: P): Drawing<Asked> {
  const { goes } = p;
  const of = (measure: Measure) => key(goes, measure);
  const [w, d] = [measured[of('Width')] ?? 60, measured[of('Depth')] ?? 34];
  let section: Outline;
  try {
    section = is.outline(p)
      ? outlineOfText(p.outline)
      : is.rounded(p)
        ? roundedRectangle(w, d, measured.corner_radius ?? 8)
        : ellipse(w, d);
  } catch (error) {
    if (!(error instanceof OutlineTextError || error instanceof OffsetError)) throw error;
    section = roundedRectangle(w, d, 8);
  }
  const [x0, y0, x1, y1] = boxOf(section);
  const gap = Math.max(4, (y1 - y0) / 6);
  const draft = new Draft<Asked>();
  if (goes === 'over') draft.cut(section);
  else draft.cut(box(x0 - gap, y0 - gap, x1 + gap, y1 + gap)).edge(section);
  draft.mate(of('Around'), [...pointsOf(section), pointsOf(section)[0]!]);
  if (read(goes, 'Width')(p)) draft.across(of('Width'), 'width', [x0, x1], y0, y0 - 2 * gap);
  if (read(goes, 'Depth')(p)) draft.up(of('Depth'), 'depth', x0, [y0, y1], x0 - 2 * gap);
  if (is.around(p)) draft.across(of('Around'), 'around', [x0, x1], y1, y1 + 2 * gap);
  if (is.rounded(p)) {
    const r = measured.corner_radius ?? 8;
    draft.across('corner_radius', 'corner', [x1 - r, x1], y1, y1 + 3.4 * gap);
  }
  const side = x1 + 4 * gap;
  const high = measured.section_height ?? 14;
  draft.edge(box(side, y0, side + (x1 - x0) / 2, y0 + high));
  draft.up('section_height', 'height', side, [y0, y0 + high], side - gap);
  return draft.done('The opening from above, and from the side');
}

export const sectionCap = defineRecipe({
  id: 'section-cap',
  version: 1,
  family: 'replacement',
  title: 'Cap or plug, not round',
  purpose: 'Closes a tube or an opening that is a rounded rectangle, an oval, or any outline.',
  guide,
  mates: keyed(GOES.flatMap(goes => MEASURES.map(measure => mate(goes, measure)))),
  parameters,
  shown: {
    ...keyed(
      GOES.flatMap(goes =>
        MEASURES.map(measure => [sizeName(goes, measure), active(goes, measure)] as const),
      ),
    ),
    outline: is.outline,
    shapeWidth: p => is.around(p) && !is.outline(p),
    shapeDepth: p => is.around(p) && !is.outline(p),
    corner: is.rounded,
    flange: is.into,
    ridgeAt: p => p.ridge !== 0,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  demo: {
    name: 'a trailer’s rectangular tube end',
    sizes: {
      rim_width: 60,
      rim_depth: 34,
      rim_around: 174.3,
      bore_width: 54,
      bore_depth: 28,
      bore_around: 150.3,
      corner_radius: 8,
      section_height: 14,
    },
    parameters: {
      section: 'rounded',
      goes: 'over',
      fits: 'across',
      rimWidthSize: 60.3,
      rimDepthSize: 34.3,
      rimAroundSize: 55,
      boreWidthSize: 53.8,
      boreDepthSize: 27.8,
      boreAroundSize: 54.6,
      outline: '-30, -17; 30, -17 round 8; 30, 17 round 8; -30, 17',
      shapeWidth: 60,
      shapeDepth: 34,
      corner: 8,
      depth: 13.8,
      wall: 1.6,
      endThickness: 2,
      flange: 3,
      ridge: 0,
      ridgeAt: 6,
      leadIn: 0.6,
    },
  },
});
