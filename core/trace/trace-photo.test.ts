import { describe, expect, test } from 'vitest';
import { COLOURS, ordinaryShot, type Shot, THINGS } from '../../testing/trace-scenes';
import { comparedWithTruth, deviationFromTruth } from '../../testing/trace-truth';
import { photographed } from '../bench/camera';
import { FlatObject } from '../bench/flat-object';
import { laid } from '../bench/flat-thing';
import { heldCamera } from '../bench/held-camera';
import { curvesOfParted } from '../shape/lines-and-arcs/lines-and-arcs';
import { distance2 } from '../shape/vector';
import { projection, SX, SY } from './camera/camera';
import { homographyOf, through } from './camera/homography';
import { contactsOf } from './contact';
import { ALONG } from './find/edge-points';
import { circleOf, loopAgain, placingBy } from './outline';
import type { Picture } from './picture';
import { SHEETS } from './sheet/layout';
import { type PhotoAsked, tracePhoto } from './trace-photo';
import { USUAL_BROKEN, USUAL_TOLERANCE } from './usual';

const asked = ({ scene, thickness }: Shot, more: Partial<PhotoAsked> = {}): PhotoAsked => ({
  paper: scene.paper,
  middle: scene.middle,
  bars: { across: 140 * scene.camera[SX]!, along: 140 * scene.camera[SY]! },
  f35: 50,
  thickness: { height: thickness, broken: USUAL_BROKEN },
  inside: null,
  tolerance: USUAL_TOLERANCE,
  ...more,
});

/** A shot of half the usual size in each direction: it takes a quarter of the time to draw. */
const shotOf = (seed: number, given: Parameters<typeof ordinaryShot>[1] = {}) =>
  ordinaryShot(seed, { size: [1500, 2000], ...given });

function tracedOf(picture: Picture, by: PhotoAsked) {
  const answer = tracePhoto(picture, by);
  if (!answer.ok) throw new Error(answer.message);
  return answer.traced;
}

test('thin things in photos as anyone takes them: sizes are within what is stated, and lines and arcs are as they were', () => {
  const all = [1, 4, 10].flatMap(seed => {
    const shot = shotOf(seed, { thickness: 3 });
    const traced = tracedOf(photographed(shot.scene), asked(shot));
    expect(traced.clean).toBe(true);
    expect(deviationFromTruth(shot, traced.loops[0]!.curves).p95).toBeLessThan(0.2);
    return comparedWithTruth(shot, traced.loops, traced.doubt);
  });
  expect(all.length).toBeGreaterThan(20);
  const covered = all.filter(s => Math.abs(s.error) <= s.u).length / all.length;
  expect(covered).toBeGreaterThanOrEqual(0.9);
  const errors = all.map(s => Math.abs(s.error)).sort((a, b) => a - b);
  expect(errors[Math.floor(errors.length / 2)]).toBeLessThan(0.04);
  // Half of the pixels in each direction: twice the uncertainty of a full photo.
  expect(Math.max(...all.filter(s => s.kind !== 'length').map(s => s.u))).toBeLessThan(0.35);
});

describe('a thick thing', () => {
  const shot = shotOf(6, { thing: THINGS.plate!, thickness: 8, colour: 'blue' });
  // From one side: over the middle of a thing every wall of its outline faces away.
  shot.scene.camera.set(heldCamera(1500, 2000, { tilt: 17, way: 20 }));
  const picture = photographed(shot.scene);
  const traced = tracedOf(picture, asked(shot));

  test('walls that face the camera show their foot, others their upper edge', () => {
    expect(deviationFromTruth(shot, traced.loops[0]!.curves).p95).toBeLessThan(0.12);
    // Assumed to be the upper edge all round, as usual, it is wrong by tenths.
    const outer = traced.loops[0]!;
    const { camera } = traced.sighted;
    const place = placingBy(camera, traced.thickness);
    const top = loopAgain({ ...outer, contacts: outer.contacts.map(() => 'top' as const) }, place);
    expect(deviationFromTruth(shot, curvesOfParted(top)).p95).toBeGreaterThan(0.3);
    const contacts = new Set(contactsOf(outer.edges, camera, traced.thickness, ALONG));
    expect(contacts.has('foot') && contacts.has('top')).toBe(true);
  });

  test('what is deeper than wide is asked for, never offered', () => {
    const diameters = traced.loops.flatMap(l => (l.hole ? [circleOf(l.curves)?.diameter ?? 0] : []));
    expect(diameters).toHaveLength(1);
    expect(diameters[0]).toBeCloseTo(14, 0);
    expect(traced.unseen.length).toBeGreaterThanOrEqual(2);
  });

  test('without its focal length it is refused, with what to do', () => {
    const answer = tracePhoto(picture, asked(shot, { f35: null }));
    expect(answer).toMatchObject({ ok: false, code: 'no-focal-length' });
  });
});

describe('what the picture cannot give is refused with its cause', () => {
  const shot = shotOf(2, { thing: THINGS.wedge!, thickness: 2, size: [1125, 1500] });
  const code = (change: Partial<Shot['scene']>, by: Partial<PhotoAsked> = {}) => {
    const answer = tracePhoto(photographed({ ...shot.scene, ...change }), asked(shot, by));
    return answer.ok ? 'traced' : answer.code;
  };

  test('a sheet that curls', () => expect(code({ lift: 4 })).toBe('not-flat'));
  test('nothing on the sheet', () => expect(code({ object: null })).toBe('no-object'));
  // Shaken this much, its markers may no longer be readable either.
  test('a shaken picture', () => expect(code({ blur: 2.6 })).toMatch(/^(blurred|no-sheet)$/));
  test('another sheet than was said', () => expect(code({}, { paper: 'letter' })).toBe('other-sheet'));
  test('a picture of something else', () => {
    const data = new Uint8ClampedArray(4 * 800 * 600).map((_, i) => (i * 7919) % 251);
    expect(tracePhoto({ width: 800, height: 600, data }, asked(shot))).toMatchObject({ code: 'no-sheet' });
  });
  test('a sheet of which one side is outside', () => {
    const whole = photographed(shot.scene);
    const height = Math.round(0.72 * whole.height);
    const data = whole.data.slice(0, 4 * whole.width * height);
    const answer = tracePhoto({ width: whole.width, height, data }, asked(shot, { f35: null }));
    expect(answer).toMatchObject({ ok: false, code: 'sheet-cut' });
  });
  test('a thing that reaches into the ring', () => {
    const object = new FlatObject(laid(THINGS.plate!, 0, [50, 0]), 2, 0.1);
    expect(code({ object })).toBe('cut-off');
  });
});

test('a light thing is traced on the sheet with the dark middle', () => {
  const shot = shotOf(7, { thing: THINGS.tongue!, thickness: 2 });
  const scene = { ...shot.scene, middle: 'dark' as const, colour: [0.75, 0.74, 0.7] as const };
  const traced = tracedOf(photographed(scene), asked({ ...shot, scene }));
  expect(deviationFromTruth(shot, traced.loops[0]!.curves).p95).toBeLessThan(0.2);
  const hole = traced.loops.find(l => l.hole);
  expect(hole && circleOf(hole.curves)?.diameter).toBeCloseTo(9, 0);
});

test('of two things the one that is pointed at is traced', () => {
  const shot = shotOf(3, { thing: THINGS.tongue!, thickness: 2 });
  const [one, two] = [laid(THINGS.wedge!, 0, [0, 45]), laid(THINGS.tongue!, 0, [0, -50])];
  const scene = { ...shot.scene, object: new FlatObject([...one, ...two], 2, 0.1), colour: COLOURS.black };
  const picture = photographed(scene);
  expect(tracePhoto(picture, asked(shot))).toMatchObject({ code: 'several-objects' });
  const seen = projection(scene.camera);
  // On each, beside its hole; y runs down the sheet.
  const pieces = [seen(12, -35, 0), seen(-30, 50, 0)].map(inside => {
    const traced = tracedOf(picture, asked(shot, { inside }));
    return traced.loops[0]!.curves.filter(c => c.arc).length;
  });
  expect(pieces).toEqual([0, 1]);
});

test('a lens bends what a flat map would take for straight: sizes are wrong by tenths without it', () => {
  const shot = shotOf(5, { thing: THINGS.plate!, thickness: 0.8 });
  shot.scene.camera.set([0.12, -0.03], 3);
  const traced = tracedOf(photographed(shot.scene), asked(shot));
  const pitches = comparedWithTruth(shot, traced.loops, traced.doubt).filter(c => c.kind === 'pitch');
  expect(pitches).toHaveLength(3);
  for (const { error } of pitches) expect(Math.abs(error)).toBeLessThan(0.05);
  // The same places by the plane map that four corners of the sheet give.
  const corners = SHEETS.a4.corners.filter(([x, y]) => Math.abs(x) === 85 && Math.abs(y) === 125);
  const seen = projection(shot.scene.camera);
  const flat = homographyOf(corners.map(c => [seen(c[0], c[1], 0), c]));
  const holes = traced.loops.filter(l => l.hole).map(l => circleOf(l.curves)!.centre);
  const [a, b] = [holes[0]!, holes[1]!].map(([x, y]) => through(flat, seen(x, -y, 0)));
  expect(Math.abs(distance2(a!, b!) - distance2(holes[0]!, holes[1]!))).toBeGreaterThan(0.1);
});

test('a hard shadow that looks like the object is told, and drawn over it is answered', () => {
  const shot = ordinaryShot(5, { size: [1500, 2000] });
  const lamp = { at: [250, 180] as const, height: 400, wide: 25, share: 0.85 };
  const hard: Shot = { ...shot, scene: { ...shot.scene, lamp } };
  const picture = photographed(hard.scene);
  expect(tracePhoto(picture, asked(hard))).toMatchObject({ ok: false, code: 'shadow' });
  const middle = projection(hard.scene.camera)(shot.at[0], -shot.at[1], 0);
  const strokes = [{ object: true, at: [middle], wide: 4 }];
  const answer = tracePhoto(picture, asked(hard, { strokes }));
  expect(answer.ok && answer.traced.inShadow).toBeGreaterThan(0.25);
});
