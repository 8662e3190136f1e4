import { lathe } from '../core/bench/lathe';
import { objectOf } from '../core/bench/objects';
import { lying } from '../core/bench/practice-scan';
import { scannedBy } from '../core/bench/scanner';
import type { World } from '../core/bench/world';
import type { TriangleMesh } from '../core/shape/mesh/mesh';
import type { Point3 } from '../core/shape/vector';

/** By how much this scanner makes things too large: comparing a size reveals it. */
const TOO_LARGE = 1.004;
/** As the object happened to lie when the scanner started: nothing is upright by itself. */
const LYING = { turn: 0.6, lean: 0.35, shift: [84, -31, 212] as Point3 };

/** A vent port on its piece of deck as a handheld scanner sees it from above, mm. */
export function scannedVentPort({ sizes, seed }: World): TriangleMesh {
  const port = objectOf('round-cap', sizes)!;
  const views = [0, 60, 120, 180, 240, 300].flatMap((a): Point3[] => {
    const [c, s] = [Math.cos((a * Math.PI) / 180), Math.sin((a * Math.PI) / 180)];
    return [
      [c, s, 0.25],
      [c, s, 1.2],
    ];
  });
  const scan = scannedBy(port, {
    seed,
    spacing: 0.55,
    noise: 0.035,
    warp: 0.03,
    scale: TOO_LARGE,
    islands: 5,
    views,
  });
  return lying(scan, LYING.turn, LYING.lean, LYING.shift);
}

/** A torch that lies on the bench with its head to the right, as it is scanned all round, mm. */
export function scannedTorch({ seed }: World): TriangleMesh {
  const standing = lathe([
    [0.01, 0],
    [9, 0],
    [11, 3],
    [11, 70],
    [17, 84],
    [17, 103],
    [16, 104],
    [0.01, 104],
  ]);
  const lying = new Float64Array(standing.positions.length);
  for (let i = 0; i < lying.length; i += 3) {
    const [x, y, z] = [standing.positions[i]!, standing.positions[i + 1]!, standing.positions[i + 2]!];
    lying.set([z - 52, y, -x], i);
  }
  const torch = { positions: lying, triangles: standing.triangles };
  return scannedBy(torch, { seed, spacing: 0.7, noise: 0.04, warp: 0.04, scale: 1.001, islands: 2 });
}
