import { describe, expect, test } from 'vitest';
import { gauss, seeded } from '../../bench/random';
import { curvesOf, flattenedPoints } from '../curve';
import { partedInto } from '../lines-and-arcs/lines-and-arcs';
import { outlineOfText } from '../outline-text';
import { distance2, type Point2 } from '../vector';
import { tidied, tidyings } from './tidy';

/** Points along an outline, as a trace has them, scattered. */
function measured(text: string, sd: number, seed: number) {
  const random = seeded(seed);
  const line = flattenedPoints(outlineOfText(text), 0.002);
  const points: Point2[] = [];
  line.forEach((a, i) => {
    const b = line[(i + 1) % line.length]!;
    const count = Math.max(1, Math.round(distance2(a, b) / 0.25));
    for (let k = 0; k < count; k++) {
      const s = k / count;
      points.push([
        a[0] + s * (b[0] - a[0]) + gauss(random, 0, sd),
        a[1] + s * (b[1] - a[1]) + gauss(random, 0, sd),
      ]);
    }
  });
  return partedInto(points, true, 0.1);
}

const PLATE = '-30, -20 round 5; 30.4, -20 round 5; 30, 20 round 5; -30, 20 round 5';

describe('a plate that is a little off', () => {
  const plate = measured(PLATE.replace('30.4', '30'), 0.02, 5);
  const offers = tidyings([plate]);

  test('is offered right angles, one radius and two like sides, with what each moves', () => {
    expect(offers.map(o => o.kind).sort()).toEqual(['mirror', 'radius', 'square']);
    for (const o of offers) expect(o.moves).toBeLessThan(0.15);
    expect(offers.find(o => o.kind === 'square')?.members).toHaveLength(4);
  });

  test('as taken has them exactly; what is left stays as it was', () => {
    const [curves] = tidied(
      [plate],
      offers.map(o => o.key),
    );
    const lines = curves!.filter(c => !c.arc).map(c => Math.atan2(c.to[1] - c.from[1], c.to[0] - c.from[0]));
    for (const a of lines) {
      const off = ((((a - lines[0]!) / (Math.PI / 2)) % 1) + 1) % 1;
      expect(Math.min(off, 1 - off)).toBeLessThan(2e-3);
    }
    const radii = curves!.flatMap(c => (c.arc ? [c.arc.radius] : []));
    expect(Math.max(...radii) - Math.min(...radii)).toBeLessThan(0.02);
    expect(Math.abs(radii[0]! - 5)).toBeLessThan(0.05);
    const [plain] = tidied([plate], []);
    expect(plain!.flatMap(c => (c.arc ? [c.arc.radius] : []))).not.toEqual(radii);
    expect(tidied([plate], ['square 7.1', 'nonsense'])).toEqual([plain]);
  });
});

test('what was made askew is left askew', () => {
  const wedge = measured('-35, -20; 35, -20; 22, 24; -12, 24', 0.01, 3);
  const square = tidyings([wedge]).filter(o => o.kind === 'square');
  // Top and bottom are parallel; the slanting sides match nothing.
  expect(square).toHaveLength(1);
  expect(square[0]?.members).toHaveLength(2);
  expect(tidyings([wedge]).some(o => o.kind === 'mirror')).toBe(false);
});

test('two like sides are made alike about their line', () => {
  const even = measured('-20, -10; 20, -10; 12, 15; -12, 15', 0.03, 9);
  const mirror = tidyings([even]).find(o => o.kind === 'mirror');
  expect(mirror).toBeDefined();
  const [curves] = tidied([even], ['mirror']);
  const sides = curves!.map(c => distance2(c.from, c.to)).sort((a, b) => a - b);
  expect(Math.abs(sides[1]! - sides[2]!)).toBeLessThan(0.03);
  const truth = curvesOf(outlineOfText('-20, -10; 20, -10; 12, 15; -12, 15'));
  expect(Math.abs(sides[3]! - distance2(truth[0]!.from, truth[0]!.to))).toBeLessThan(0.1);
});

test('holes of one size become one size', () => {
  const circle = (r: number, seed: number) => {
    const random = seeded(seed);
    const points = Array.from({ length: 90 }, (_, i): Point2 => {
      const far = r + gauss(random, 0, 0.02);
      return [far * Math.cos(i / 14.3239), far * Math.sin(i / 14.3239)];
    });
    return partedInto(points, true, 0.1);
  };
  const loops = [measured(PLATE, 0.01, 2), circle(3.2, 1), circle(3.22, 4)];
  const [offer] = tidyings(loops).filter(o => o.kind === 'radius' && o.members.some(m => m.loop > 0));
  expect(offer?.members.map(m => m.loop)).toEqual([1, 2]);
  const holes = tidied(loops, [offer!.key])
    .slice(1)
    .map(c => c[0]!.arc!.radius);
  expect(holes[0]).toBeCloseTo(holes[1]!, 9);
});
