import { box, Draft } from '../../drawing/draft';
import { circle, rectangle } from '../../outline';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import { dimensionName, has, type Mate, type P, SIZES } from './parameters';
import { frameOf, type Sizes, sizesOf, veeDepth } from './sizes';

type Drawn = keyof P | Mate;

export function drawing(p: P) {
  const s = sizesOf(p);
  const draft = new Draft<Drawn>().edge(rectangle(-s.width / 2, -s.depth / 2, s.width / 2, s.depth / 2, 3));
  // A long row is drawn small: its labels need room between them.
  const gap = Math.max(5, s.depth / 5, s.width / 14);
  return s.vee ? grooves(draft, s, gap) : holes(draft, s, gap);
}

function holes(draft: Draft<Drawn>, s: Sizes, gap: number) {
  for (const place of s.places) {
    const { at } = frameOf(s, place);
    draft.mateLoop(place.mate, circle([at[0], at[1]], place.radius));
  }
  const firsts = s.places.filter((q, i) => s.places.findIndex(o => o.mate === q.mate) === i);
  firsts.forEach((place, i) => {
    const { at } = frameOf(s, place);
    const line = s.depth / 2 + gap * (1 + 1.2 * i);
    draft.across(place.mate, 'hole', [at[0] - place.radius, at[0] + place.radius], at[1], line, true);
  });
  const [one, two] = s.places;
  // Two that lean apart are farther from each other at the top.
  if (one && two && one.mate === two.mate && one.right === two.right) {
    const { at } = frameOf(s, one);
    draft.across('pitch', 'apart', [at[0], at[0] + two.x - one.x], at[1], -s.depth / 2 - gap);
  }
  draft.up('as-drawn', 'deep', s.width / 2, [-s.depth / 2, s.depth / 2], s.width / 2 + gap);
  return draft.done('From above');
}

/** From its front: the grooves in section, a tool in each. */
function grooves(draft: Draft<Drawn>, s: Sizes, gap: number) {
  const front = -s.depth / 2 - 2.5 * gap - s.height;
  const half = s.width / 2;
  const outline: [number, number][] = [[-half, front + s.height]];
  for (const place of s.places) {
    const deep = veeDepth(place);
    for (const [x, z] of [
      [-deep, 0],
      [0, -deep],
      [deep, 0],
    ] as const)
      outline.push([place.x + x, front + s.height + z]);
    for (const x of [-deep, 0, deep]) draft.centre([place.x + x, -s.depth / 2], [place.x + x, s.depth / 2]);
  }
  outline.push([half, front + s.height], [half, front], [-half, front]);
  draft.cut(outline);
  for (const { x, radius } of s.places) draft.ghost(circle([x, front + s.height], radius));
  const [one, two] = s.places;
  if (one && two && one.mate === two.mate) draft.across('pitch', 'apart', [one.x, two.x], front, front - gap);
  draft.up('height', 'high', half, [front, front + s.height], half + gap);
  draft.up('long', 'long', half, [-s.depth / 2, s.depth / 2], half + gap);
  return draft.done('From above, and from its front');
}

export function objectDrawing(measured: Measured<Asked>, p: P) {
  const draft = new Draft<Asked>();
  let x = 0;
  for (const size of SIZES) {
    if (!has.size(size)(p)) continue;
    const key = dimensionName(size);
    const r = (measured[key] ?? { tool: 12, tool_b: 10, tool_c: 8, tool_d: 6 }[key]) / 2;
    const long = measured.reach ?? 40;
    const first = size === 'A';
    const b = first ? Math.min((measured.blade_width ?? 6) / 2, r) : r;
    draft.cut(box(x - r * 1.6, long, x + r * 1.6, long + 20)).cut(box(x - r, long * 0.4, x + r, long));
    draft.cut(box(x - b, 0, x + b, long * 0.4));
    draft.centre([x, -4], [x, long + 24]);
    draft.mate(
      key,
      [
        [x - r, long * 0.4],
        [x - r, long],
      ],
      [
        [x + r, long * 0.4],
        [x + r, long],
      ],
    );
    draft.across(key, 'shank', [x - r, x + r], long, long + 26, true);
    if (first && p.stepped && has.steps(p)) draft.across('blade_width', 'blade', [x - b, x + b], 0, -6, true);
    if (first && has.vee(p)) draft.up('reach', 'length', x - r * 1.6, [0, long], x - r * 1.6 - 6);
    x += 4 * r + 14;
  }
  return draft.done(has.size('B')(p) ? 'The tools, standing' : 'The tool, standing');
}
