import fc from 'fast-check';
import jStat from 'jstat';
import { describe, expect, test } from 'vitest';
import { heldCamera } from '../bench/held-camera';
import type { Point2 } from '../shape/vector';
import { eyeOf, printedAt, projection, ray, tiltOf } from './camera/camera';
import { fitCamera } from './camera/fit-camera';
import { homographyOf, through } from './camera/homography';
import { EdgeFinder } from './find/edge-points';
import { byteOf, type Picture } from './picture';
import { CELLS, lightCells, MARKERS } from './sheet/dictionary';
import { SHEETS } from './sheet/layout';
import { cornerNear } from './sight/corners';

describe('the sheet', () => {
  test('has its markers and corners on both papers', () => {
    expect(SHEETS.a4.markers).toHaveLength(84);
    expect(SHEETS.a4.corners).toHaveLength(84);
    expect(SHEETS.letter.markers).toHaveLength(80);
    expect(SHEETS.a4.markers[83]).toEqual({ id: 83, at: [80, 130] });
    expect(SHEETS.letter.markers[0]).toEqual({ id: 0, at: [-80, -120] });
    expect(SHEETS.a4.blank).toEqual([75, 115]);
  });

  test('no two markers are alike, however they are turned', () => {
    const turned = (bits: readonly boolean[]) =>
      bits.map((_, k) => bits[(CELLS - 1 - (k % CELLS)) * CELLS + Math.floor(k / CELLS)]!);
    const codes = Array.from({ length: MARKERS }, (_, id) => lightCells(id));
    for (const [i, a] of codes.entries())
      for (const b of codes.slice(i + 1)) {
        let way = b;
        for (let turn = 0; turn < 4; turn++) {
          expect(a.filter((bit, k) => bit !== way[k]).length).toBeGreaterThan(4);
          way = turned(way);
        }
      }
    // The first one, as the dictionary was published by its makers (recalled): 162, 217, 94, 0.
    expect(lightCells(0).map(Number).join('')).toBe('1010001011011001010111100');
  });
});

const camera = heldCamera(3000, 2250, { tilt: 18, way: 65, high: 430 });

test('a ray ends where its pixel was seen from, at any height, and the eye is over it', () => {
  const place = fc.double({ min: -80, max: 80, noNaN: true });
  const [see, back] = [projection(camera), ray(camera)];
  fc.assert(
    fc.property(place, place, fc.double({ min: 0, max: 40, noNaN: true }), (x, y, h) => {
      const [bx, by] = back(...see(x, y, h), h);
      expect(Math.hypot(bx - x, by - y)).toBeLessThan(1e-5);
    }),
  );
  const eye = eyeOf(camera);
  expect(eye.height).toBeGreaterThan(380);
  // Turned by 3° about the upright as well.
  expect(tiltOf(camera)).toBeCloseTo(18, 1);
  // From the eye down through a place: similar triangles.
  const [top, foot] = [back(1200, 900, 20), back(1200, 900, 0)];
  const share = 20 / eye.height;
  for (const i of [0, 1] as const) expect(top[i]).toBeCloseTo(foot[i] + share * (eye.at[i] - foot[i]), 6);
});

describe('a camera is fitted', () => {
  const see = projection(camera);
  const sightings = SHEETS.a4.corners.map(printed => ({
    printed,
    seen: see(...printedAt(camera, printed), 0),
  }));
  const prior = { width: 3000, height: 2250, f35: 50, bars: { across: 140.28, along: 139.86 } };

  test('to what it was, from corners alone', () => {
    const fit = fitCamera(sightings, prior)!;
    expect(fit.used).toBe(84);
    expect(fit.rms).toBeLessThan(0.01);
    const [there, back] = [projection(camera), ray(fit.camera)];
    for (const [x, y] of [
      [0, 0],
      [60, 90],
      [-60, 100],
    ] as const) {
      const found = back(...there(x, y, 0), 0);
      expect(Math.hypot(found[0] - x, found[1] - y)).toBeLessThan(0.03);
    }
  });

  test('though a few corners are none', () => {
    const wrong = sightings.map((s, i) =>
      i % 20 === 0 ? { ...s, seen: [s.seen[0] + 7, s.seen[1] - 5] as Point2 } : s,
    );
    const fit = fitCamera(wrong, prior)!;
    expect(fit.used).toBe(79);
    expect(fit.rms).toBeLessThan(0.02);
  });

  test('surer with both bars read than with none', () => {
    const spread = (bars: typeof prior.bars | null) => {
      const { spread: l } = fitCamera(sightings, { ...prior, bars })!;
      return Math.hypot(...l[7]!);
    };
    expect(spread(prior.bars)).toBeLessThan(0.001);
    expect(spread(null)).toBeGreaterThan(0.008);
  });
});

test('four points give the map of a plane, and back', () => {
  const to: Point2[] = [
    [100, 80],
    [900, 120],
    [850, 700],
    [130, 640],
  ];
  const from: Point2[] = [
    [0, 0],
    [85.6, 0],
    [85.6, 54],
    [0, 54],
  ];
  const h = homographyOf(from.map((p, i) => [p, to[i]!]));
  from.forEach((p, i) => {
    const [u, v] = through(h, p);
    expect(Math.hypot(u - to[i]![0], v - to[i]![1])).toBeLessThan(1e-6);
  });
});

test('a corner of four squares is found to a few hundredths of a pixel', () => {
  const [width, height] = [60, 60];
  fc.assert(
    fc.property(
      fc.double({ min: 28, max: 32, noNaN: true }),
      fc.double({ min: 28, max: 32, noNaN: true }),
      fc.double({ min: 0, max: 1.4, noNaN: true }),
      (u, v, turn) => {
        const grey = new Float32Array(width * height);
        const soft = (d: number) => 1 / (1 + Math.exp(-d * 2));
        for (let y = 0; y < height; y++)
          for (let x = 0; x < width; x++) {
            const [a, b] = [
              Math.cos(turn) * (x - u) + Math.sin(turn) * (y - v),
              -Math.sin(turn) * (x - u) + Math.cos(turn) * (y - v),
            ];
            const [p, q] = [soft(a), soft(b)];
            grey[y * width + x] = 30 + 190 * (p * q + (1 - p) * (1 - q));
          }
        const found = cornerNear(grey, width, [30, 30], 9)!;
        expect(Math.hypot(found[0] - u, found[1] - v)).toBeLessThan(0.05);
      },
    ),
  );
  expect(cornerNear(new Float32Array(3600).fill(90), 60, [30, 30], 9)).toBeNull();
});

describe('an edge between pixels', () => {
  /** A dark half-plane left of x = at, blurred in light; `how` converts light to a byte. */
  const picture = (at: number, how: (light: number) => number, blur = 1): Picture => {
    const [width, height] = [400, 300];
    const data = new Uint8ClampedArray(4 * width * height).fill(255);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const bright = jStat.normal.cdf(x - at, 0, blur);
        for (let k = 0; k < 3; k++) data[4 * (y * width + x) + k] = how(0.05 + 0.75 * bright);
      }
    return { width, height, data };
  };
  const edgeIn = (p: Picture) => {
    // Ten pixels per millimetre; the object is a strip whose right side is the edge.
    const finder = new EdgeFinder(
      p,
      (x, y) => [10 * x, 10 * y],
      (_x, _y, out) => out.fill(0.8),
      [0.05, 0.05, 0.05],
      [30, 15],
    );
    const strip: Point2[] = [
      [8, 8],
      [20.2, 8],
      [20.2, 22],
      [8, 22],
    ];
    const { points, sigma } = finder.refined(strip, 'within', null);
    const right = points.filter(e => e && Math.abs(e.at[0] - 20) < 0.5 && e.at[1] > 10 && e.at[1] < 20);
    return { at: right.reduce((s, e) => s + e!.seen[0], 0) / right.length, sigma };
  };
  const foundIn = (p: Picture) => edgeIn(p).at;

  test('says how blurred the picture is: beyond two pixels it is refused', () => {
    // Three of the strip's four sides are not edges here: they say nothing.
    for (const blur of [0.8, 1.4, 2.6])
      expect(Math.abs(edgeIn(picture(200, byteOf, blur)).sigma - blur)).toBeLessThan(0.2);
  });

  test('is found to a thirtieth of one', () => {
    for (const at of [199.6, 200, 200.37])
      expect(Math.abs(foundIn(picture(at, byteOf)) - at)).toBeLessThan(0.033);
  });

  test('and is off where what the file holds is taken for light', () => {
    // The same light, written as if it were the byte: read with the files' gamma it gives another edge.
    const off = foundIn(picture(200, light => 255 * light)) - 200;
    expect(Math.abs(off)).toBeGreaterThan(0.1);
  });
});
