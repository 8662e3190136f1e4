import { describe, expect, test } from 'vitest';
import { ordinaryShot, THINGS } from '../../testing/trace-scenes';
import { comparedWithTruth } from '../../testing/trace-truth';
import { photographed } from '../bench/camera';
import type { Point2 } from '../shape/vector';
import { printedAt, projection } from './camera/camera';
import { circleOf } from './outline';
import { type RectangleAsked, traceRectangle } from './trace-rectangle';

describe('without the sheet, by a rectangle of known size', () => {
  const shot = ordinaryShot(4, { thing: THINGS.bracket!, thickness: 2, size: [1500, 2000] });
  const picture = photographed(shot.scene);
  const see = projection(shot.scene.camera);
  // The ring's outer edge is a rectangle that anyone could point at.
  const corner = (x: number, y: number): Point2 => {
    const [u, v] = see(...printedAt(shot.scene.camera, [x, y]), 0);
    return [Math.round(u), Math.round(v)];
  };
  // On the leg of the bracket, beside its holes.
  const [dx, dy] = turnOf(shot.turn, [-19, 15]);
  const inside = see(shot.at[0] + dx, -(shot.at[1] + dy), 0);
  const asked: RectangleAsked = {
    corners: [corner(-95, -135), corner(95, -135), corner(95, 135), corner(-95, 135)],
    width: 190,
    height: 270,
    f35: 50,
    thickness: { height: shot.thickness, broken: 0.1 },
    inside,
    tolerance: 0.1,
  };

  test('an object is traced to tenths, and says that it is no surer than that', () => {
    const answer = traceRectangle(picture, asked);
    if (!answer.ok) throw new Error(answer.message);
    const { loops, doubt } = answer.traced;
    const holes = loops.filter(l => l.hole).map(l => circleOf(l.curves)!.diameter);
    expect(holes).toHaveLength(3);
    for (const d of holes) expect(Math.min(Math.abs(d - 8), Math.abs(d - 10))).toBeLessThan(0.4);
    const sizes = comparedWithTruth(shot, loops, doubt);
    for (const s of sizes) expect(Math.abs(s.error)).toBeLessThan(Math.max(2 * s.u, 0.4));
  });

  test('corners that are none are refused; named the other way round they are the same plane', () => {
    const [a, b, c, d] = asked.corners;
    expect(traceRectangle(picture, { ...asked, corners: [a, c, b, d] })).toMatchObject({
      code: 'bad-rectangle',
    });
    const round = traceRectangle(picture, { ...asked, corners: [b, a, d, c] });
    const straight = traceRectangle(picture, asked);
    if (!round.ok || !straight.ok) throw new Error('Not traced.');
    // Half a turn about the middle, and no other hand.
    const middles = (t: typeof round.traced) => t.loops.slice(1).map(l => circleOf(l.curves)!.centre);
    for (const [x, y] of middles(straight.traced))
      expect(Math.min(...middles(round.traced).map(([u, v]) => Math.hypot(u + x, v + y)))).toBeLessThan(0.1);
  });
});

const turnOf = (degrees: number, [x, y]: Point2): Point2 => {
  const [c, s] = [Math.cos((degrees * Math.PI) / 180), Math.sin((degrees * Math.PI) / 180)];
  return [c * x - s * y, s * x + c * y];
};
