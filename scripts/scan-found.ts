// What automatic search finds of two objects of known sizes under a simulated scanner, how near, and how often its doubt holds:
// `node --import tsx scripts/scan-found.ts`. A few minutes.
import { ALL_ROUND, scannedBy } from '../core/bench/scanner';
import { findingsOf } from '../core/scan/find/findings';
import { ScanSurface } from '../core/scan/scan-surface';
import { proofBlock, secondBlock } from '../testing/scan-objects';

type Size = [of: string, value: number];
const holes = (count: number, diameter: number) =>
  Array.from({ length: count }, (): Size => ['diameter', diameter]);
const OBJECTS = [
  {
    make: proofBlock,
    sizes: [
      ['diameter', 31.7],
      ...holes(4, 5.3),
      ['diameter', 25.2],
      ['across flats', 17],
      ['half-angle', (Math.atan(0.8 / 22) * 180) / Math.PI],
      ['pitch', 44],
      ['pitch', 64],
      ['across', 6],
      ['across', 60],
      ['across', 80],
    ] as Size[],
  },
  {
    make: secondBlock,
    sizes: [
      ['across flats', 13],
      ['across flats', 20],
      ['width', 8],
      ['length', 24],
      ['pitch circle', 32],
      ['diameter', 6],
      ['half-angle', (Math.atan(8 / 18) * 180) / Math.PI],
      ['across', 10],
      ['across', 70],
      ['across', 90],
      ...holes(6, 4.5),
    ] as Size[],
  },
];
const SCANS = [
  { noise: 0.02, warp: 0.03, spacing: 0.6, seed: 1 },
  { noise: 0.05, warp: 0.06, spacing: 0.6, seed: 2 },
  { noise: 0.08, warp: 0.06, spacing: 0.5, seed: 3 },
  { noise: 0.06, warp: 0.1, spacing: 0.8, seed: 4 },
];
const views = [...ALL_ROUND, [0.3, 0.2, 1], [-0.3, 0.2, 1], [0.2, -0.4, 1], [0, 0, -1]] as typeof ALL_ROUND;
let [held, found, wanted] = [0, 0, 0];
for (const { make, sizes } of OBJECTS)
  for (const settings of SCANS) {
    const scan = new ScanSurface(scannedBy(make(), { ...settings, islands: 3, views }));
    const begin = performance.now();
    const all = findingsOf(scan).flatMap(f => f.sizes);
    const ms = performance.now() - begin;
    const errors = sizes.flatMap(([of, value]) => {
      const near = all
        .filter(s => s.of.startsWith(of) && Math.abs(s.value - value) < Math.max(0.5, 0.04 * value))
        .sort((a, b) => Math.abs(a.value - value) - Math.abs(b.value - value))[0];
      wanted++;
      if (!near) return [`${of} ${value} is missing`];
      all.splice(all.indexOf(near), 1);
      found++;
      const isHeld = Math.abs(near.value - value) <= 2 * near.u;
      if (isHeld) held++;
      return isHeld
        ? []
        : [`${of} ${value} off by ${(near.value - value).toFixed(3)}, u ${near.u.toFixed(3)}`];
    });
    console.log(
      `noise ${settings.noise} warp ${settings.warp}, ${scan.mesh.triangles.length / 3} triangles, ${ms.toFixed(0)} ms: ${errors.join('; ') || 'all within twice their doubt'}`,
    );
  }
console.log(`${found} of ${wanted} found, ${held} within twice their doubt`);
