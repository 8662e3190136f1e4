// How near fits come to surfaces of known size, how well their doubt covers it, and how long a large scan takes:
// `node --import tsx scripts/scan-speed.ts`. Wall time of one run, ms.
import { writeStl } from '../core/files/stl';
import { findingsOf } from '../core/scan/find/findings';
import { type FitAsked, fitAt } from '../core/scan/fit/fit';
import { judgeScan } from '../core/scan/judge';
import { readScan } from '../core/scan/read-scan';
import { ScanSurface } from '../core/scan/scan-surface';
import { cutAt } from '../core/scan/section/cut';
import { sectionOf } from '../core/scan/section/section';
import type { TriangleMesh } from '../core/shape/mesh/mesh';
import { type Seen, scannedCone, scannedCylinder, scannedPlane, scannedSphere } from '../testing/scanned';

const SEEDS = 24;
type Case = [name: string, asked: FitAsked, size: number, make: (seen: Seen) => TriangleMesh, seen?: Seen];
const on = (kind: FitAsked['kind'], near: FitAsked['near'], radius: number): FitAsked => ({
  kind,
  near,
  radius,
});
const outside = on('cylinder', [15.85, 0, 12], 5);
const tube = (seen: Seen) => scannedCylinder(31.7, 24, seen);
const cases: Case[] = [
  ['cylinder, 262°', outside, 31.7, tube],
  ['cylinder, 350°', outside, 31.7, tube, { arc: 350 }],
  ['cylinder, 180°', outside, 31.7, tube, { arc: 180 }],
  ['cylinder, 120°', outside, 31.7, tube, { arc: 120 }],
  ['bore', on('cylinder', [10, 0, 7], 4), 20, s => scannedCylinder(20, 15, s), { inside: true }],
  ['rim of 4 mm', on('cylinder', [23, 0, 2], 5), 46, s => scannedCylinder(46, 4, s)],
  ['sphere', on('sphere', [12.6, 0, 0], 4), 25.2, s => scannedSphere(12.6, s)],
  ['plane', on('plane', [15, 10, 0], 5), 0, s => scannedPlane(30, 20, s)],
  ['cone', on('cone', [14.6, 0, 11], 6), 29.2, s => scannedCone(30, 28.4, 22, s), { arc: 350 }],
];
for (const [name, asked, size, make, seen = {}] of cases) {
  const found = Array.from({ length: SEEDS }, (_, i) => {
    const fit = fitAt(new ScanSurface(make({ ...seen, seed: i + 1 })), asked);
    if (!fit) return null;
    const is = fit.surface.kind === 'plane' ? fit.surface.at[2] : 2 * fit.surface.radius;
    return { error: is - size, u: fit.u };
  }).filter(f => f !== null);
  const rms = Math.sqrt(found.reduce((sum, f) => sum + f.error ** 2, 0) / found.length);
  const held = found.filter(f => Math.abs(f.error) <= 2 * f.u).length / found.length;
  console.log(
    `${name.padEnd(16)} found ${found.length} of ${SEEDS}, rms error ${rms.toFixed(4)}, within twice its doubt ${(100 * held).toFixed(0)} %`,
  );
}

const timed = <T>(what: string, work: () => T): T => {
  const begin = performance.now();
  const result = work();
  console.log(`${what}: ${(performance.now() - begin).toFixed(0)} ms`);
  return result;
};
const large = scannedCylinder(200, 260, { arc: 350 });
const file = writeStl(large, 'large');
console.log(`${(large.triangles.length / 3).toLocaleString('en')} triangles`);
const scan = timed('read and welded', () => readScan(file));
timed('judged', () => judgeScan(scan));
const surface = timed('neighbours and normals', () => new ScanSurface(scan));
timed('a cylinder fitted', () => fitAt(surface, on('cylinder', [100, 0, 100], 10)));
timed('everything found', () => findingsOf(surface));
timed('a section, chained', () => cutAt(scan, { at: [0, 0, 100], normal: [0, 0, 1] }, surface.spacing));
timed('as lines and arcs', () => sectionOf(surface, { at: [0, 0, 100], normal: [0, 0, 1] }));
console.log(`${(process.memoryUsage().rss / 1e6).toFixed(0)} MB in memory`);
