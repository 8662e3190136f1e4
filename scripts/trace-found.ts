// What is traced of simulated photos with known truth, how near, and how often its doubt holds:
// `npx tsx scripts/trace-found.ts 20`. Some 20 s a photo, most of it to draw it.
import { quantile } from 'd3-array';
import jpeg from 'jpeg-js';
import { photographed } from '../core/bench/camera';
import { jpegOf } from '../core/bench/jpeg';
import { SX, SY } from '../core/trace/camera/camera';
import { BAR } from '../core/trace/sheet/layout';
import { tracePhoto } from '../core/trace/trace-photo';
import { USUAL_BROKEN, USUAL_TOLERANCE } from '../core/trace/usual';
import { ordinaryShot } from '../testing/trace-scenes';
import { type Compared, comparedWithTruth, deviationFromTruth } from '../testing/trace-truth';

const count = Number(process.argv[2] ?? 8);
/** As a file has it. */
const QUALITY = 88;
const F35 = 50;

const all: (Compared & { thick: boolean })[] = [];
const off: number[] = [];
const seconds: number[] = [];
let clean = 0;
for (let seed = 1; seed <= count; seed++) {
  const shot = ordinaryShot(seed);
  const { scene, thickness } = shot;
  const file = jpegOf(photographed(scene), QUALITY);
  const start = performance.now();
  const answer = tracePhoto(jpeg.decode(file, { useTArray: true }), {
    paper: scene.paper,
    middle: scene.middle,
    bars: { across: BAR * scene.camera[SX]!, along: BAR * scene.camera[SY]! },
    f35: F35,
    thickness: { height: thickness, broken: USUAL_BROKEN },
    inside: null,
    tolerance: USUAL_TOLERANCE,
  });
  seconds.push((performance.now() - start) / 1000);
  const what = `${seed}: ${thickness} mm, ${shot.colour}`;
  if (!answer.ok) {
    console.log(`${what}: refused, ${answer.code}`);
    continue;
  }
  const { loops, doubt } = answer.traced;
  if (answer.traced.clean) clean++;
  const { p95, max } = deviationFromTruth(shot, loops[0]!.curves);
  off.push(p95);
  all.push(...comparedWithTruth(shot, loops, doubt).map(c => ({ ...c, thick: thickness > 8 })));
  console.log(`${what}: outline off by ${p95.toFixed(3)} (95 % of it), ${max.toFixed(3)} at most`);
}

const told = (values: number[], share: number) => (quantile(values, share) ?? Number.NaN).toFixed(3);
for (const thick of [false, true])
  for (const kind of ['length', 'diameter', 'radius', 'pitch'] as const) {
    const sizes = all.filter(c => c.kind === kind && c.thick === thick);
    if (sizes.length === 0) continue;
    const errors = sizes.map(c => Math.abs(c.error));
    const held = sizes.filter(c => Math.abs(c.error) <= c.u).length;
    console.log(
      `${kind}, ${thick ? 'over' : 'up to'} 8 mm thick: ${sizes.length}, off by ${told(errors, 0.5)} in the middle, ${told(errors, 0.9)} nine in ten; ± ${told(
        sizes.map(c => c.u),
        0.5,
      )}, held ${held}`,
    );
  }
console.log(
  `clean ${clean} of ${count}; outline ${told(off, 0.5)} and ${told(off, 0.9)} mm; ${told(seconds, 0.5)} s a photo`,
);
