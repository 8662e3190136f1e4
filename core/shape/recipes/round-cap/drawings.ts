import { box, Draft } from '../../drawing/draft';
import { type Drawing, type DrawPoint, mirrored } from '../../drawing/drawing';
import { pointsOf } from '../../outline';
import { type Measured, placed } from '../define-recipe';
import type { Asked } from './guide';
import { has, type P } from './parameters';
import { capOutline, type Mate, places, sizesOf, tabThickness } from './solid';

/** A section through the cap, mouth down as it sits on the object, with the numbers that are drawn. */
export function capDrawing(p: P): Drawing<keyof P | Mate> {
  const s = sizesOf(p);
  const height = Math.max(s.skirt?.top ?? 0, s.plug?.top ?? 0);
  // Turned over: on the bed its mouth is up, on the object down.
  const flip = ([x, z]: DrawPoint): DrawPoint => [x, height - z];
  // The half outline runs from the axis back to the axis: with its mirror image it is one closed line.
  const half = pointsOf(capOutline(p)).slice(0, -1).map(flip);
  const draft = new Draft<keyof P | Mate>()
    .cut([...half, ...mirrored(half).reverse()])
    .centre([0, -3], [0, height + 4]);
  if (has.tab(p)) draft.edge(box(s.rim, 0, s.rim + p.tabLength, tabThickness(p)).map(flip));
  if (s.strap) draft.edge(box(s.strap.at - s.strap.outer, 0, -s.rim, s.strap.thickness).map(flip));
  if (s.slots) {
    const { from, mouth, width, outer } = s.slots;
    for (const sign of [-1, 1]) draft.ghost(box(sign * (outer - width), from, sign * outer, mouth).map(flip));
  }
  const gap = Math.max(5, s.rim / 4);
  const radius: Record<Mate, number> = {
    skirt: s.skirt?.inner ?? 0,
    plug: s.plug?.outer ?? 0,
    lip: s.ridge?.radius ?? 0,
    bead: s.ridge?.radius ?? 0,
    ring: s.strap?.hole ?? 0,
  };
  let below = -gap;
  for (const [mate, { at, from, to }] of placed(places(p))) {
    const r = radius[mate];
    const wall = (x: number) => [flip([at[0] + x, from]), flip([at[0] + x, to])];
    draft.mate(mate, wall(-r), wall(r));
    const line = mate === 'ring' ? height - to - gap : below;
    draft.across(mate, mate, [at[0] - r, at[0] + r], height - at[2], line, true);
    if (mate !== 'ring') below -= gap;
  }
  const left = -s.rim - 0.7 * gap;
  if (s.skirt) draft.up('skirtDepth', 'depth', -s.skirt.outer, [0, s.skirt.top - s.end], left);
  else if (s.plug) draft.up('plugDepth', 'depth', -s.plug.outer, [0, s.plug.top - s.end], left);
  draft.up('endThickness', 'end', -s.rim, [height - s.end, height], left);
  return draft.done('Cut through the cap, as it sits');
}

/** A section through the port with the dimensions to measure. */
export function portDrawing(measured: Measured<Asked>, p: P): Drawing<Asked> {
  const rim = measured.rim ?? 31.7;
  const scale = rim / 31.7;
  const height = has.skirt(p) ? (measured.rim_height ?? 14 * scale) : 14 * scale;
  const bore = Math.min(measured.bore ?? 24.2 * scale, 0.95 * rim);
  const from = Math.min(measured.groove_from ?? 0.4 * height, 0.8 * height);
  const width = Math.min(measured.groove_width ?? 0.2 * height, height - from);
  const groove = has.lip(p) ? Math.min(measured.groove ?? rim - 2.3 * scale, rim) : rim;
  const inner = has.bead(p) ? Math.max(measured.inner_groove ?? bore + 1.4 * scale, bore) : bore;
  const [R, B, G, I] = [rim / 2, bore / 2, groove / 2, inner / 2];
  const base = 0.28 * height;
  const flange = R + 0.3 * rim;
  const ring: DrawPoint[] = [
    [B, -base],
    [flange, -base],
    [flange, 0],
    [R, 0],
    [R, height - from - width],
    [G, height - from - width],
    [G, height - from],
    [R, height - from],
    [R, height],
    [B, height],
    [B, height - from],
    [I, height - from],
    [I, height - from - width],
    [B, height - from - width],
  ];
  const draft = new Draft<Asked>()
    .cut(ring)
    .cut(mirrored(ring))
    .centre([0, -base - 4], [0, height + 5]);
  const gap = Math.max(4, rim / 6);
  /** Upright dimensions run beside the rim, above the flange. */
  const side = R + 0.17 * rim;
  let above = height + gap;
  const mark = (key: Asked, label: string, half: number, low: number, high: number, at: number) =>
    draft.walls(key, half, [low, high]).across(key, label, [-half, half], (low + high) / 2, at, true);
  if (has.plug(p)) {
    mark('bore', 'bore', B, has.bead(p) ? height - from : 0.2 * height, height, above);
    above += gap;
  }
  if (has.skirt(p)) mark('rim', 'rim', R, has.lip(p) ? height - from : 0.2 * height, height, above);
  if (has.lip(p)) mark('groove', 'groove', G, height - from - width, height - from, -base - gap);
  if (has.bead(p))
    mark(
      'inner_groove',
      'inner groove',
      I,
      height - from - width,
      height - from,
      -base - (has.lip(p) ? 2 : 1) * gap,
    );
  if (has.strap(p)) {
    const neck = Math.min(measured.neck ?? 20 * scale, 1.9 * R) / 2;
    mark('neck', 'neck', neck, -base, -0.4 * base, -base - 3 * gap);
  }
  if (has.ridge(p)) {
    const x = has.lip(p) ? R : B;
    draft.up('groove_from', 'from top', x, [height - from, height], side);
    draft.up('groove_width', 'width', x, [height - from - width, height - from], side);
  }
  if (has.skirt(p)) draft.up('rim_height', 'height', -R, [0, height], -side);
  return draft.done('Cut through the object');
}
