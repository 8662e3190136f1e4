import { box, Draft } from '../../drawing/draft';
import type { Body, Frame, Outline, PartKernel } from '../../kernels/kernel';
import { circle, polyline, rectangle } from '../../outline';
import { length, Refusals, step } from '../fields';
import { lengthOf, type MateSurface, type Parameters, type Recipe } from '../recipe';

/**
 * A cradle for a slab such as a display: a channel on a wall plate that holds it at both sides and below and
 * leaves its face free. It lies on its back on the bed; the slab slides in along y from the back edge.
 */
interface Sizes {
  width: number;
  thick: number;
  high: number;
  wall: number;
  back: number;
  lip: number;
  stop: number;
  window: number;
  screw: number;
}

function sizesOf(p: Parameters): Sizes {
  return {
    width: lengthOf(p, 'pocketWidth'),
    thick: lengthOf(p, 'pocketThickness'),
    high: lengthOf(p, 'height'),
    wall: lengthOf(p, 'wall'),
    back: lengthOf(p, 'back'),
    lip: lengthOf(p, 'lip'),
    stop: lengthOf(p, 'stop'),
    window: lengthOf(p, 'window'),
    screw: lengthOf(p, 'screwHole') / 2,
  };
}

/** The channel in (x, z): back, sides, and lips whose undersides rise at 45° so that they print. */
function profileOf(s: Sizes): Outline {
  const inner = s.width / 2;
  const outer = inner + s.wall;
  const top = s.back + s.thick;
  // The lip's underside begins where the slab's face lies at its edge, and rises inwards.
  const rim = top + s.lip + 1.2;
  return polyline([
    [-outer, 0],
    [outer, 0],
    [outer, rim],
    [inner - s.lip, rim],
    [inner - s.lip, top + s.lip],
    [inner, top],
    [inner, s.back],
    [-inner, s.back],
    [-inner, top],
    [-inner + s.lip, top + s.lip],
    [-inner + s.lip, rim],
    [-outer, rim],
  ]);
}

/** Its own y is up; pulled from the front to the back. */
const ALONG: Frame = { at: [0, 0, 0], x: [1, 0, 0], up: [0, -1, 0] };
const INTO = 0.5;

function solid(p: Parameters, kernel: PartKernel): Body {
  const s = sizesOf(p);
  const outer = s.width / 2 + s.wall;
  // Pulled towards the front: from the open end at +high down to the stop below 0.
  let body = kernel.extrude(profileOf(s), -s.high, s.high + s.stop, ALONG);
  const rim = s.back + s.thick + s.lip + 1.2;
  body = kernel.fuse(body, kernel.extrude(rectangle(-outer, -s.stop, outer, 0), 0, rim));
  if (s.window > 0)
    body = kernel.cut(
      body,
      kernel.extrude(rectangle(-s.window / 2, -s.stop - 1, s.window / 2, INTO), s.back, rim),
    );
  for (const at of screwsAt(s)) {
    body = kernel.cut(body, kernel.extrude(circle(at, s.screw), -1, s.back + 2));
  }
  return body;
}

function screwsAt(s: Sizes): [number, number][] {
  if (s.screw === 0) return [];
  return [
    [0, s.high * 0.25],
    [0, s.high * 0.75],
  ];
}

function surfaces(p: Parameters): MateSurface[] {
  const s = sizesOf(p);
  // Clear of the screws' holes.
  const y = s.high * 0.5;
  const common = {
    side: 'inside' as const,
    kind: 'flats' as const,
    axis: [0, 1, 0] as const,
    from: 0,
    to: s.high,
  };
  return [
    { ...common, mate: 'width', size: s.width, at: [0, y, s.back + s.thick / 2], across: [1, 0, 0] },
    // Under the lips, where back and face are opposite each other.
    {
      ...common,
      mate: 'thickness',
      size: s.thick,
      at: [s.width / 2 - THICK_AT, y, s.back + s.thick / 2],
      across: [0, 0, 1],
    },
  ];
}

/** So near the side the lip's slope has hardly risen, mm. */
const THICK_AT = 0.002;

function refuse(p: Parameters) {
  const s = sizesOf(p);
  return new Refusals()
    .when(s.lip > s.width / 2 - 2, 'lip', 'The lips meet before the face: make them shorter.', s.width / 4)
    .when(s.window > s.width, 'window', 'The opening below is wider than the pocket.', s.width - 4)
    .when(
      s.screw > 0 && s.high * 0.5 < 4 * s.screw + 2,
      'height',
      'The two screws do not fit one above the other.',
      8 * s.screw + 10,
    )
    .when(
      s.screw > 0 && s.width < 4 * s.screw,
      'screwHole',
      'The screw’s hole is too wide for this cradle.',
      s.width / 4,
    ).list;
}

function drawing(p: Parameters) {
  const s = sizesOf(p);
  const outer = s.width / 2 + s.wall;
  const draft = new Draft().cut(profileOf(s));
  const top = s.back + s.thick;
  const gap = Math.max(5, s.width / 12);
  for (const sign of [-1, 1])
    draft.mate('width', [
      [(sign * s.width) / 2, s.back],
      [(sign * s.width) / 2, top],
    ]);
  draft.mate('thickness', [
    [-s.width / 2, s.back],
    [s.width / 2, s.back],
  ]);
  draft.across('width', 'slab', [-s.width / 2, s.width / 2], s.back, -gap);
  draft.up('thickness', 'thick', s.width / 2, [s.back, top], outer + gap);
  draft.up('back', 'back', -outer, [0, s.back], -outer - gap);
  return draft.done('Cut across the cradle, lying on its back');
}

function objectDrawing(measured: Readonly<Record<string, number>>) {
  const w = measured.slab_width ?? 77.5;
  const t = measured.slab_thickness ?? 12;
  const h = measured.slab_height ?? 60;
  const draft = new Draft()
    .cut(rectangle(-w / 2, 0, w / 2, t, Math.min(2, t / 3)))
    .edge(rectangle(-w / 2, t + 14, w / 2, t + 14 + h, 4));
  draft.walls('slab_width', w / 2, [0, t]);
  draft.across('slab_width', 'width', [-w / 2, w / 2], 0, -7);
  draft.up('slab_thickness', 'thick', w / 2, [0, t], w / 2 + 7);
  draft.up('slab_height', 'height', -w / 2, [t + 14, t + 14 + h], -w / 2 - 7);
  const screw = (measured.screw ?? 4) / 2;
  draft.cut(box(w / 2 + 30 - screw, t + 14, w / 2 + 30 + screw, t + 30));
  draft.across('screw', 'screw', [w / 2 + 30 - screw, w / 2 + 30 + screw], t + 30, t + 36, true);
  return draft.done('The slab across and from its face');
}

export const cradle: Recipe = {
  id: 'cradle',
  version: 1,
  family: 'mount',
  title: 'Cradle for a slab',
  purpose: 'Holds a display, a phone or a box by its sides on a wall, its face and its buttons free.',
  guide: [
    step(
      'slab_width',
      'Slab, width',
      'outside-jaws',
      'Where the cradle’s sides will grip; at both ends, since slabs taper.',
      { critical: true },
    ),
    step(
      'slab_thickness',
      'Slab, thickness',
      'outside-jaws',
      'At its edge, where the lips reach over; not over buttons.',
      { critical: true },
    ),
    step('slab_height', 'Slab, height', 'outside-jaws', 'Along which it slides in.'),
    step('screw', 'Screw, over its thread', 'outside-jaws', 'The screws you have.'),
  ],
  mates: [
    {
      id: 'width',
      name: 'Slab between the sides',
      dimension: 'slab_width',
      parameter: 'pocketWidth',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      lying: false,
      active: () => true,
    },
    {
      id: 'thickness',
      name: 'Slab under the lips',
      dimension: 'slab_thickness',
      parameter: 'pocketThickness',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      lying: true,
      active: () => true,
    },
  ],
  parameters: [
    length('pocketWidth', 'Pocket, width', [6, 400], 'slab_width.model'),
    length('pocketThickness', 'Pocket, thickness', [1.5, 150], 'slab_thickness.model'),
    length('height', 'Height of the sides', [6, 400], 'slab_height * 0.6'),
    length('lip', 'Lips reach over by', [0.6, 30], '2'),
    length('window', 'Opening below, for a plug', [0, 390], 'slab_width * 0.5'),
    length('screwHole', 'Screw hole (0 is none)', [0, 20], 'screw + 0.5'),
    length('wall', 'Sides', [1.2, 30], '2.4', { group: 'more' }),
    length('back', 'Back', [1.2, 30], '3', { group: 'more' }),
    length('stop', 'Floor', [1.2, 40], '2.4', { group: 'more' }),
  ],
  refuse,
  drawing,
  objectDrawing,
  solid,
  surfaces,
  checks: () => [],
  demo: {
    name: 'a stroke-rate display',
    sizes: { slab_width: 77.5, slab_thickness: 12, slab_height: 60, screw: 4 },
    parameters: {
      pocketWidth: 78,
      pocketThickness: 12.4,
      height: 36,
      lip: 2,
      window: 38,
      screwHole: 4.5,
      wall: 2.4,
      back: 3,
      stop: 2.4,
    },
  },
};
