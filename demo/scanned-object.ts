import { lathe } from '../core/bench/lathe';
import { scannedBy } from '../core/bench/scanner';
import type { World } from '../core/bench/world';
import type { TriangleMesh } from '../core/shape/mesh/mesh';
import { moved, type Point3 } from '../core/shape/vector';

/** How much too large this scanner makes things: what a compared size finds out. */
const TOO_LARGE = 1.004;
/** As the scanner happened to lie when it began: nothing stands upright by itself. */
const LYING = { turn: 0.6, lean: 0.35, shift: [84, -31, 212] as Point3 };

/** A vent port on its piece of deck as a handheld scanner sees it from above, mm. */
export function scannedVentPort({ sizes, seed }: World): TriangleMesh {
  const half = (name: string) => sizes[name]! / 2;
  const top = 3 + sizes.rim_height!;
  const groove = top - sizes.groove_from!;
  const low = groove - sizes.groove_width!;
  const port = lathe([
    [half('bore'), 0],
    [33, 0],
    [33, 3],
    [half('rim'), 3],
    [half('rim'), low],
    [half('groove'), low],
    [half('groove'), groove],
    [half('rim'), groove],
    [half('rim'), top],
    [half('bore'), top],
  ]);
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
  const positions = new Float64Array(scan.positions.length);
  for (let i = 0; i < positions.length; i += 3)
    positions.set(
      moved(leant([scan.positions[i]!, scan.positions[i + 1]!, scan.positions[i + 2]!]), LYING.shift),
      i,
    );
  return { positions, triangles: scan.triangles };
}

function leant([x, y, z]: Point3): Point3 {
  const [c, s] = [Math.cos(LYING.turn), Math.sin(LYING.turn)];
  const [k, l] = [Math.cos(LYING.lean), Math.sin(LYING.lean)];
  const [u, v] = [c * x - s * y, s * x + c * y];
  return [u, k * v - l * z, l * v + k * z];
}
