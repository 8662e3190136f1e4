import { BALL } from '../../demo-bodies';
import { Draft } from '../../drawing/draft';
import type { DrawPoint } from '../../drawing/drawing';
import { ellipse } from '../../drawing/ellipse';
import { rectangle } from '../../outline';
import type { Measured } from '../define-recipe';
import type { Asked } from './guide';
import type { P } from './parameters';

type Drawn = keyof P;

/**
 * Seen from above, and in section from front to back; the object is drawn as an oval: only the solid has its true
 * outline.
 */
export function drawing(p: P) {
  const draft = new Draft<Drawn>();
  const isBlock = p.form === 'block';
  const half = p.opening / 2;
  const lean = p.mouth + p.sunk * Math.tan((p.draft * Math.PI) / 180);
  const length = isBlock ? Math.max(half, p.long / 2 - p.edge - lean) : 1.2 * half;
  const [x, y] = isBlock ? [p.long / 2, half + lean + p.edge] : [length + p.edge, half + p.edge];
  draft.edge(isBlock ? rectangle(-x, -y, x, y, Math.min(4, p.edge)) : ellipse(x, y));
  draft.shapes.push({ ink: 'mate', key: 'opening', points: ellipse(length, half), closed: true });
  const gap = Math.max(5, y / 4, x / 7);
  draft.up('opening', 'recess', -length, [-half, half], -x - gap);
  if (isBlock) draft.across('long', 'long', [-x, x], y, y + gap);
  // Below it the section, from front to back.
  const top = -y - 2.8 * gap;
  const bottom = top - p.floor - p.sunk;
  draft.cut([
    [-y, bottom],
    [y, bottom],
    [y, top],
    [half + lean, top],
    ...arc(half, p.floor + bottom, p.sunk - p.mouth).toReversed(),
    [-half - lean, top],
    [-y, top],
  ]);
  draft.up('sunk', 'deep', y, [bottom + p.floor, top], x + gap / 2);
  draft.up('floor', 'floor', -y, [bottom, bottom + p.floor], -y - 1.4 * gap);
  draft.across('edge', 'wall', [-y, -y + p.edge], top, top + 0.8 * gap);
  return draft.done('From above, and cut from front to back');
}

const ROUND = 24;

/** The lower half of an oval, from the left to the right. */
const arc = (half: number, low: number, high: number): DrawPoint[] =>
  Array.from({ length: ROUND + 1 }, (_, i): DrawPoint => {
    const a = Math.PI * (1 + i / ROUND);
    return [half * Math.cos(a), low + high * (1 + Math.sin(a))];
  });

export function objectDrawing(measured: Measured<Asked>) {
  const draft = new Draft<Asked>();
  const [long, wide, high] = [measured.length ?? BALL, measured.width ?? BALL, measured.high ?? BALL];
  const gap = Math.max(5, wide / 6);
  draft.cut(ellipse(long / 2, wide / 2));
  draft.mate(
    'width',
    [
      [-long / 8, wide / 2],
      [long / 8, wide / 2],
    ],
    [
      [-long / 8, -wide / 2],
      [long / 8, -wide / 2],
    ],
  );
  draft.up('width', 'wide', long / 2, [-wide / 2, wide / 2], long / 2 + gap);
  draft.across('length', 'long', [-long / 2, long / 2], wide / 2, wide / 2 + gap);
  const top = -wide / 2 - 2 * gap;
  const side = ellipse(long / 2, high / 2).map(([x, y]): DrawPoint => [x, top - high / 2 + y]);
  draft.cut(side);
  draft.up('high', 'high', long / 2, [top - high, top], long / 2 + gap);
  return draft.done('From above and from its front, as it lies');
}
