import { describe, expect, test } from 'vitest';
import { ordinaryShot, THINGS } from '../../testing/trace-scenes';
import { photographed } from '../bench/camera';
import { heldCamera } from '../bench/held-camera';
import type { Point2 } from '../shape/vector';
import { projection } from './camera/camera';
import type { Outlines } from './doubt';
import { circleOf } from './outline';
import { type DimensionsAsked, type KnownLength, traceDimensions } from './trace-dimensions';

const SIZE: Point2 = [1500, 2000];

/** The bracket, photographed from above by hand; ends of its sides as somebody would press them. */
function heldOver(tilt: number, thickness = 3) {
  const shot = ordinaryShot(4, { thing: THINGS.bracket!, thickness, size: SIZE });
  const camera = heldCamera(...SIZE, { tilt, way: 65, high: 470, lens: [0.02, -0.01] });
  const scene = { ...shot.scene, camera };
  const see = projection(camera);
  const [c, s] = [Math.cos((shot.turn * Math.PI) / 180), Math.sin((shot.turn * Math.PI) / 180)];
  // On its upper face.
  const at = ([x, y]: Point2): Point2 => {
    const [u, v] = see(shot.at[0] + c * x - s * y, -(shot.at[1] + s * x + c * y), shot.thickness);
    return [Math.round(u), Math.round(v)];
  };
  const line = (from: Point2, to: Point2): KnownLength => ({
    from: at(from),
    to: at(to),
    length: Math.hypot(to[0] - from[0], to[1] - from[1]),
  });
  const asked: Omit<DimensionsAsked, 'lines'> = {
    f35: 50,
    thickness: { height: shot.thickness, broken: 0.1 },
    inside: at([-19, 15]),
    tolerance: 0.1,
  };
  return {
    picture: photographed(scene),
    asked,
    foot: line([-30, -40], [30, -40]),
    side: line([-30, -40], [-30, 37]),
  };
}
const square = heldOver(1.5);

/** Its three holes: how far they are apart, and how wide. */
const TRUTH = [30, Math.hypot(37, 29), Math.hypot(37, 59), 8, 8, 10];
function holesOf(outlines: Outlines): (number | null)[] {
  const rounds = outlines.slice(1).flatMap(o => circleOf(o) ?? []);
  if (rounds.length !== 3) return TRUTH.map(() => null);
  const apart = rounds.flatMap((p, i) =>
    rounds.slice(i + 1).map(q => Math.hypot(p.centre[0] - q.centre[0], p.centre[1] - q.centre[1])),
  );
  return [apart, rounds.map(r => r.diameter)].flatMap(all => all.toSorted((p, q) => p - q));
}

function sizesBy({ picture, asked }: ReturnType<typeof heldOver>, lines: readonly KnownLength[]) {
  const answer = traceDimensions(picture, { ...asked, lines });
  if (!answer.ok) throw new Error(answer.message);
  return answer.traced.doubt.ofAll(holesOf).map((size, i) => {
    if (!size) throw new Error('Its holes are not found.');
    return { error: size.value - TRUTH[i]!, u: size.u };
  });
}

describe('without sheet and rectangle, by lengths on the object', () => {
  test('two across each other: to tenths, and no surer than it is', () => {
    const sizes = sizesBy(square, [square.foot, square.side]);
    for (const s of sizes) expect(Math.abs(s.error)).toBeLessThan(Math.max(1.2 * s.u, 0.1));
    expect(Math.max(...sizes.map(s => Math.abs(s.error)))).toBeLessThan(0.6);
    // Off square by as much as anybody may miss it: more than a camera fitted to a sheet would allow.
    expect(Math.max(...sizes.map(s => s.u))).toBeGreaterThan(0.3);
  });

  test('one alone is surest along itself', () => {
    const sizes = sizesBy(square, [square.foot]);
    for (const s of sizes) expect(Math.abs(s.error)).toBeLessThan(Math.max(1.2 * s.u, 0.1));
  });

  test('off square two lengths mend what one leaves wrong', () => {
    // Thin: with a thick thing this far off square, each hole shows its foot where its top is expected.
    const tilted = heldOver(8, 0.8);
    const worst = (lines: readonly KnownLength[]) =>
      Math.max(...sizesBy(tilted, lines).map(s => Math.abs(s.error)));
    expect(worst([tilted.foot, tilted.side])).toBeLessThan(0.7 * worst([tilted.foot]));
  });

  test('what tells nothing is refused, with what to do', () => {
    const { picture, asked, foot, side } = square;
    const by = (lines: readonly KnownLength[]) => traceDimensions(picture, { ...asked, lines });
    const short = { ...foot, to: [foot.from[0] + 20, foot.from[1]] as Point2 };
    expect(by([short])).toMatchObject({ ok: false, message: expect.stringContaining('good part') });
    expect(by([])).toMatchObject({ ok: false });
    const beside = { ...foot, from: [foot.from[0] + 5, foot.from[1] + 8] as Point2 };
    expect(by([foot, beside])).toMatchObject({ ok: false, message: expect.stringContaining('same way') });
    const wrong = { ...side, length: 1.2 * side.length };
    expect(by([foot, wrong])).toMatchObject({ ok: false, message: expect.stringContaining('contradict') });
  });
});
