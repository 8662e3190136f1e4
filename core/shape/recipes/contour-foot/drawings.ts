import { box, Draft } from '../../drawing/draft';
import type { DrawPoint } from '../../drawing/drawing';
import { circle, pointsOf, rectangle } from '../../outline';
import { holesOfText, OutlineTextError } from '../../outline-text';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import { isPosts, type P } from './parameters';
import { halvesOf, outlinesOf, postsOf } from './sizes';

type Drawn = keyof P;

/** A surface over a foot, from its left to its right: only the solid shows its true shape. */
const bowed = (half: number, at: number, rise: number): DrawPoint[] =>
  Array.from({ length: 17 }, (_, i): DrawPoint => {
    const x = i / 8 - 1;
    return [half * x, at + rise * x * x];
  });

/** From its front, and from above. */
export function drawing(p: P) {
  const draft = new Draft<Drawn>();
  let half: readonly [number, number] = [p.long / 2, p.wide / 2];
  let outlines: ReturnType<typeof outlinesOf> = [];
  let holes: ReturnType<typeof holesOfText> = [];
  let posts: typeof holes = [];
  try {
    [half, outlines, holes] = [halvesOf(p), outlinesOf(p), holesOfText(p.holes)];
    if (isPosts(p)) posts = postsOf(p);
  } catch (error) {
    // What cannot be read is left out of the drawing; its field says why.
    if (!(error instanceof OutlineTextError)) throw error;
  }
  const [x, y] = half;
  const gap = Math.max(4, p.height / 4, y / 5);
  const low = Math.min(p.height / 6, 3);
  const top = bowed(x, p.height, -low);
  draft.ghost([
    ...bowed(1.3 * x, p.surface, -low),
    [1.3 * x, p.surface + gap / 2],
    [-1.3 * x, p.surface + gap / 2],
  ]);
  if (p.plate > 0) draft.cut(box(-x - p.beyond, 0, x + p.beyond, p.plate));
  if (isPosts(p))
    for (const { x: at, diameter } of posts)
      draft.cut(box(at - diameter / 2, p.plate, at + diameter / 2, p.height));
  else draft.cut([[-x, p.plate], [x, p.plate], ...top.toReversed()]);
  // Where its height was measured.
  const [first] = posts;
  const [middle, reach] = first ? [first.x, first.diameter / 3] : [0, x / 3];
  draft.mate(
    'height',
    [
      [middle - reach, p.height],
      [middle + reach, p.height],
    ],
    [
      [middle - reach, 0],
      [middle + reach, 0],
    ],
  );
  draft.up('height', 'high', middle, [0, p.height], -x - p.beyond - gap);
  if (p.plate > 0) draft.up('plate', 'plate', x + p.beyond, [0, p.plate], x + p.beyond + gap);
  const down = -2.5 * gap - y - p.beyond;
  const placed = (points: readonly DrawPoint[]): DrawPoint[] => points.map(([a, b]) => [a, b + down]);
  const flat = rectangle(-x - p.beyond, down - y - p.beyond, x + p.beyond, down + y + p.beyond, p.corner);
  if (p.plate > 0 && p.form !== 'round') draft.edge(flat);
  if (p.plate > 0 && p.form === 'round') draft.edge(circle([0, down], x + p.beyond));
  for (const outline of outlines) draft.edge(placed(pointsOf(outline)));
  for (const h of holes) draft.edge(circle([h.x, h.y + down], h.diameter / 2));
  if (!isPosts(p)) {
    draft.across(
      'long',
      p.form === 'round' ? 'across' : 'long',
      [-x, x],
      down - y,
      down - y - p.beyond - gap,
    );
    if (p.form === 'pad') draft.up('wide', 'wide', x, [down - y, down + y], x + p.beyond + gap);
  }
  return draft.done('From its front, and from above');
}

export function objectDrawing(measured: Measured<Asked>) {
  const rise = measured.rise ?? 20;
  const half = 1.6 * rise;
  const draft = new Draft<Asked>();
  draft.cut([...bowed(half, rise, -rise / 6), [half, rise * 1.4], [-half, rise * 1.4]]);
  draft.cut(box(-half, -rise / 5, half, 0));
  draft.mate(
    'rise',
    [
      [-4, rise],
      [4, rise],
    ],
    [
      [-4, 0],
      [4, 0],
    ],
  );
  draft.up('rise', 'to the surface', 0, [0, rise], -half - rise / 4);
  return draft.done('The surface over what the foot stands on');
}
