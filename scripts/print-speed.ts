// What the Print stage's own work takes of the processor, on the demo parts of all recipes:
// `node --import tsx scripts/print-speed.ts`. CPU seconds of this process, each the median of three after one to warm up.

import { USUAL_RULES } from '../core/print/hangs';
import { rankedPoses } from '../core/print/lay';
import { overAirOf } from '../core/print/over-air/over-air';
import { type PlanMate, planPoses } from '../core/print/plan';
import { copiesOnBed } from '../core/print/plate/plate';
import { AS_DRAWN, posed } from '../core/print/pose';
import { settingsFor, USUAL_MACHINE } from '../core/print/settings';
import { estimateOf } from '../core/print/time';
import { buildPart } from '../core/shape/build';
import { SAGITTA } from '../core/shape/finish';
import { RECIPES } from '../core/shape/recipes';
import { kernels as start } from '../kernels/node';

const kernels = await start();
const settings = settingsFor('usual', 0.42);
const bed = { width: 220, depth: 220, height: 220 };

function cpu(work: () => unknown): number {
  work();
  const times = [0, 1, 2].map(() => {
    const before = process.cpuUsage();
    work();
    const { user, system } = process.cpuUsage(before);
    return (user + system) / 1e6;
  });
  return times.sort((a, b) => a - b)[1]!;
}

const WORK = ['poses', 'ways', 'over air', 'estimate', '12 copies'] as const;
const rows = RECIPES.map(recipe => {
  const built = buildPart(recipe, recipe.demo.parameters, kernels, 'screen');
  if (!built.ok) throw new Error(`${recipe.id}: ${built.findings[0]!.message}`);
  const { whole, surfaces } = built.part;
  const mates = Object.fromEntries(
    recipe.mates.map(m => [
      m.id,
      { name: m.name, form: m.form ?? ('round' as const), pRight: null, forgiving: false },
    ]),
  );
  const asked = {
    mates,
    bed,
    rules: USUAL_RULES,
    settings,
    machine: USUAL_MACHINE,
    loads: [],
    strength: null,
    margin: 2,
    now: AS_DRAWN,
  };
  const planMates = surfaces.map((surface): PlanMate => ({ surface, ...mates[surface.mate]! }));
  const hull = kernels.mesh.hull(whole);
  const took = [
    cpu(() => planPoses({ ...asked, mesh: whole, hull, mates: planMates, sagitta: SAGITTA.screen })),
    cpu(() => rankedPoses(built.part, asked, kernels)),
    cpu(() => overAirOf(whole, AS_DRAWN, USUAL_RULES, settings.layer, surfaces, SAGITTA.screen)),
    cpu(() => estimateOf(posed(whole, AS_DRAWN), settings, USUAL_MACHINE, kernels.mesh)),
    cpu(() => copiesOnBed(whole, bed, 12)),
  ];
  console.log(
    recipe.id.padEnd(16),
    String(whole.triangles.length / 3).padStart(6),
    ...took.map(t => t.toFixed(3).padStart(9)),
  );
  return took;
});
console.log('triangles on screen, then', WORK.join(', '));
WORK.forEach((name, i) => {
  const all = rows.map(r => r[i]!).sort((a, b) => a - b);
  const median = all[Math.floor(all.length / 2)]!;
  console.log(`${name}: median ${median.toFixed(3)} s, most ${all.at(-1)!.toFixed(3)} s`);
});
