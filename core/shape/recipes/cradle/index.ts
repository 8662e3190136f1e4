import { box, Draft } from '../../drawing/draft';
import { rectangle } from '../../outline';
import { defineRecipe, type Measured } from '../define-recipe';
import { Refusals } from '../fields';
import { type Asked, guide } from './guide';
import { gripsEnds, type P, parameters } from './parameters';
import { footEdges, inSide, onFoot, placeOf, rimOf, type Sizes, sizesOf, wholeAt } from './sizes';
import { type Mate, places, profileOf, solid } from './solid';
import { checkTipping } from './tipping';

type Drawn = keyof P | Mate;

function refuse(p: P) {
  const s = sizesOf(p);
  const refusals = new Refusals<P>();
  for (const gap of s.gaps)
    refusals.when(
      gap.to > s.high - 2,
      gap.parameter,
      'The opening in the side runs out at its top: lower, or shorter.',
      s.high - 2 - gap.from,
    );
  return refusals
    .when(
      wholeAt(s) === null,
      s.gaps[0]?.parameter ?? 'clearLeft',
      'The openings leave no height at which both sides hold the slab: shorter ones.',
      s.high / 4,
    )
    .when(
      s.foot !== null && s.window > s.width - 4,
      'window',
      'On a foot the opening below must leave both sides standing.',
      s.width - 6,
    )
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

function drawing(p: P) {
  const s = sizesOf(p);
  const outer = s.width / 2 + s.wall;
  const draft = new Draft<Drawn>().cut(profileOf(s));
  const gripped = gripsEnds(p) ? 'ends' : 'width';
  const top = s.back + s.thick;
  const gap = Math.max(5, s.width / 12);
  for (const sign of [-1, 1])
    draft.mate(gripped, [
      [(sign * s.width) / 2, s.back],
      [(sign * s.width) / 2, top],
    ]);
  draft.mate('thickness', [
    [-s.width / 2, s.back],
    [s.width / 2, s.back],
  ]);
  draft.across(gripped, 'slab', [-s.width / 2, s.width / 2], s.back, -gap);
  draft.up('thickness', 'thick', s.width / 2, [s.back, top], outer + gap);
  draft.up('back', 'back', -outer, [0, s.back], -outer - gap);
  if (s.foot) footDrawing(draft, s, outer + 3 * gap);
  else {
    // Its sides seen from the face, with their openings, below the section.
    const floor = -3 * gap - s.high;
    draft.edge(box(-outer, floor - s.stop, outer, floor + s.high));
    for (const { side, from, to } of s.gaps) {
      const x = side < 0 ? -outer : s.width / 2;
      draft.ghost(box(x, floor + from, x + s.wall, floor + to));
    }
    draft.up('height', 'sides', outer, [floor, floor + s.high], outer + gap);
  }
  return draft.done(
    s.foot ? 'Cut across the cradle, and from its side' : 'Cut across the cradle, and its face',
  );
}

/** From its right-hand side, on the bench. */
function footDrawing(draft: Draft<Drawn>, s: Sizes, beside: number): void {
  const place = placeOf(s);
  const { front, back } = footEdges(s);
  const at = (along: number, off: number) => {
    const [y, z] = inSide(place, along, off);
    return [beside + y - front, z] as const;
  };
  const rim = rimOf(s);
  draft
    .edge(box(beside, 0, beside + back - front, s.foot!.thickness))
    .edge([at(-s.stop, 0), at(-s.stop, rim), at(s.high, rim), at(s.high, 0)])
    .across('as-drawn', 'foot', [beside, beside + back - front], 0, -8)
    .centre(at(0, s.back + s.thick / 2), at(s.high, s.back + s.thick / 2));
}

function objectDrawing(measured: Measured<Asked>) {
  const w = measured.slab_width ?? 77.5;
  const t = measured.slab_thickness ?? 12;
  const h = measured.slab_height ?? 60;
  const draft = new Draft<Asked>()
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

export const cradle = defineRecipe({
  id: 'cradle',
  version: 2,
  family: 'mount',
  title: 'Cradle for a slab',
  purpose: 'Holds a display, a phone or a box by its sides, on a wall or a foot, face and buttons free.',
  guide,
  mates: {
    width: {
      name: 'Slab between the sides',
      dimension: 'slab_width',
      parameter: 'pocketWidth',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      active: p => !gripsEnds(p),
    },
    ends: {
      name: 'Slab between top and bottom',
      dimension: 'slab_height',
      parameter: 'pocketHeight',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
      active: gripsEnds,
    },
    thickness: {
      name: 'Slab under the lips',
      dimension: 'slab_thickness',
      parameter: 'pocketThickness',
      side: 'inside',
      want: 'slide',
      flexibleWant: 'snug',
      form: 'flats',
    },
  },
  parameters,
  shown: {
    grips: p => !onFoot(p),
    pocketWidth: p => !gripsEnds(p),
    pocketHeight: gripsEnds,
    screwHole: p => !onFoot(p),
    lean: onFoot,
    footFront: onFoot,
    footBehind: onFoot,
    slabWeight: onFoot,
    slabHigh: onFoot,
    clearLeftFrom: p => p.clearLeft !== 0,
    clearRightFrom: p => p.clearRight !== 0,
    footThickness: onFoot,
  },
  refuse,
  drawing,
  objectDrawing,
  solid,
  places,
  checks: checkTipping,
  demo: {
    name: 'a stroke-rate display',
    sizes: { slab_width: 77.5, slab_thickness: 12, slab_height: 60, screw: 4 },
    parameters: {
      stand: 'wall',
      grips: 'sides',
      pocketWidth: 78,
      pocketHeight: 60.4,
      pocketThickness: 12.4,
      height: 36,
      lip: 2,
      window: 38,
      screwHole: 4.5,
      lean: 15,
      footFront: 15,
      footBehind: 25,
      footThickness: 4,
      slabWeight: 150,
      slabHigh: 60,
      clearLeft: 0,
      clearLeftFrom: 10,
      clearRight: 0,
      clearRightFrom: 10,
      wall: 2.4,
      back: 3,
      stop: 2.4,
    },
  },
});
