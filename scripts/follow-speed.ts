import { scannedBy } from '../core/bench/scanner';
import { ScanSurface } from '../core/scan/scan-surface';
import { followed } from '../core/scan/thinned';
import { buildPart } from '../core/shape/build';
import { comesOut } from '../core/shape/comes-out';
import { requireRecipe } from '../core/shape/recipes';
import { kernels as start } from '../kernels/node';
import { grip } from '../testing/scan-objects';

/** How long parts that follow a scan take, on one thread: `npx tsx scripts/follow-speed.ts`. */
const kernels = await start();
const SCAN = 'b'.repeat(64);
const timed = <T>(words: string, run: () => T): T => {
  const from = performance.now();
  const made = run();
  process.stdout.write(`${words}: ${Math.round(performance.now() - from)} ms\n`);
  return made;
};
const scan = scannedBy(grip(), { spacing: 0.3, noise: 0.04, warp: 0.05, seed: 3 });
const surface = new ScanSurface(scan);
process.stdout.write(
  `a grip of 128 × 32 × 24, ${(scan.triangles.length / 3).toLocaleString('en')} triangles\n`,
);
const { mesh } = timed('thinned out for a part', () => followed(surface, { lies: 'drawn', turn: 0 }));
process.stdout.write(`${(mesh.triangles.length / 3).toLocaleString('en')} triangles are followed\n`);
kernels.models = new Map([[SCAN, mesh]]);
const recess = requireRecipe('recess');
const part = (opening: number) => ({
  ...recess.demo.parameters,
  object: SCAN,
  opening,
  sunk: 14,
  long: 140,
});
for (const [words, opening, quality] of [
  ['first, for the screen', 32.9, 'screen'],
  ['another opening, for the screen', 33, 'screen'],
  ['a file, 0.45 of room', 33, 'file'],
  ['a file, 0.2 of room', 32.5, 'file'],
] as const) {
  const made = timed(words, () => buildPart(recess, part(opening), kernels, quality));
  if (!made.ok) throw new Error(made.findings[0]?.message);
  if (quality === 'file')
    timed(`proof on ${(made.part.mesh.triangles.length / 3).toLocaleString('en')} triangles`, () =>
      comesOut(made.part.mesh, mesh),
    );
}
