import { describe, expect, test } from 'vitest';
import { proofBlock, secondBlock } from '../../testing/scan-objects';
import { scannedCylinder } from '../../testing/scanned';
import { box } from '../../testing/solids';
import { GOOD_SCANNER, ROUND_A_TABLE, scannedBy } from '../bench/scanner';
import { joined, type TriangleMesh } from '../shape/mesh/mesh';
import { judgeScan } from './judge';
import { doubleSkin, unseenSides } from './skin';

const moved = ({ positions, triangles }: TriangleMesh, by: number): TriangleMesh => ({
  positions: positions.map((x, i) => (i % 3 === 2 ? x + by : x)),
  triangles,
});

const onTable = scannedBy(proofBlock(), { ...GOOD_SCANNER, views: ROUND_A_TABLE });

describe('what was not seen', () => {
  test('a closed box misses nothing; without its lid and one end it misses those', () => {
    const whole = box([30, 20, 10]);
    expect(unseenSides(whole)).toEqual([]);
    const corner = (t: number, k: number) => whole.positions[3 * whole.triangles[t]! + k]!;
    const kept = Array.from({ length: 12 }, (_, i) => i).filter(t => {
      const all = (k: number, at: number) => [0, 1, 2].every(e => Math.abs(corner(3 * t + e, k) - at) < 1e-9);
      return !all(2, 10) && !all(0, 0);
    });
    const open = {
      positions: whole.positions,
      triangles: Uint32Array.from(kept.flatMap(t => [...whole.triangles.subarray(3 * t, 3 * t + 3)])),
    };
    expect(kept).toHaveLength(8);
    expect(unseenSides(open)).toEqual([
      { side: 'top', area: 600, share: 1 },
      { side: 'left', area: 200, share: 1 },
    ]);
  });

  test('an object that lay on a table misses its underside', () => {
    const [first] = judgeScan(onTable).unseen;
    expect(first?.side).toBe('underside');
    expect(first!.share).toBeGreaterThan(0.3);
  });
});

describe('a skin that lies over itself', () => {
  const single = scannedCylinder(60, 40, { arc: 300, noise: 0.03, warp: 0.1 });
  const judged = (mesh: TriangleMesh) => judgeScan(mesh).double;

  test('a second pass that slipped is seen, with how far', () => {
    // Moved along its axis nothing shows: only a pass beside it does.
    const second = scannedCylinder(61.2, 40, { arc: 120, noise: 0.03, warp: 0.1, seed: 9 });
    const found = judged(joined([single, second]))!;
    expect(found.apart).toBeGreaterThan(0.45);
    expect(found.apart).toBeLessThan(0.75);
    // 120° of 300 + 120, from both.
    expect(found.share).toBeGreaterThan(0.3);
    expect(found.share).toBeLessThan(0.65);
  });

  test('sound scans and solids have none, thin walls and steps among them', () => {
    expect(judged(single)).toBeNull();
    // A sheet of 0.6: its other side faces back.
    const sheet = joined([single, scannedCylinder(58.8, 40, { arc: 300, noise: 0.03, inside: true })]);
    expect(judged(sheet)).toBeNull();
    for (const sound of [proofBlock(), secondBlock(), onTable]) expect(judged(sound)).toBeNull();
    expect(doubleSkin(moved(box([10, 10, 10]), 3), 0, 10)).toBeNull();
  });

  test('two sheets that both have two sides are two walls', () => {
    const wall = (d: number) =>
      joined([
        scannedCylinder(d, 40, { arc: 300 }),
        scannedCylinder(d - 0.7, 40, { arc: 300, inside: true }),
      ]);
    expect(judged(joined([wall(60), wall(58.2)]))).toBeNull();
  });
});
