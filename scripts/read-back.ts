/**
 * Sliced files of every recipe's demo part, read back and matched: right ones in several dialects, laid another way,
 * mirrored, scaled, stretched. Prints what was told, and the processor time; and the time of a file of 50 MB.
 * usage: node --import tsx scripts/read-back.ts [RECIPE,…]
 */
import { lookedAt } from '../core/print/gcode/look';
import { GcodeReader } from '../core/print/gcode/reader';
import { posed } from '../core/print/pose';
import { settingsFor } from '../core/print/settings';
import type { TriangleMesh } from '../core/shape/mesh/mesh';
import { RECIPES } from '../core/shape/recipes';
import { solidOf } from '../core/shape/solid';
import type { Point3 } from '../core/shape/vector';
import { kernels as start } from '../kernels/node';
import { type Dialect, gcodeOf, type Placing } from '../testing/gcode';
import { toolpathsOf } from '../testing/toolpaths';

const UP: Point3 = [0, 0, -1];
const settings = { ...settingsFor('usual', 0.42), firstLayer: 0.2 };

interface Case {
  name: string;
  down?: Point3;
  placing?: Placing;
  dialect?: Dialect;
  scale?: Point3;
  /** What must be said, or nothing but about supports. */
  says?: string;
}

const CASES: readonly Case[] = [
  { name: 'right' },
  { name: 'bare, turned', placing: { turn: 37 }, dialect: { bare: true } },
  {
    name: 'inches, numbered',
    placing: { turn: -110 },
    dialect: { inches: true, numbered: true, relativeE: true },
  },
  { name: 'on its front', down: [0, -1, 0], placing: { turn: -70 }, says: 'other-pose' },
  { name: 'scaled 1.01', scale: [1.01, 1.01, 1.01], says: 'scaled' },
  { name: 'stretched 3 %', placing: { turn: 20 }, scale: [1.03, 1, 1], says: 'stretched' },
  { name: 'in inches', scale: [1 / 25.4, 1 / 25.4, 1 / 25.4], says: 'scaled' },
  { name: 'mirrored', placing: { turn: 15, mirror: true } },
];

const cpu = (since?: NodeJS.CpuUsage) => {
  const { user, system } = process.cpuUsage(since);
  return Math.round((user + system) / 1000);
};

const times = (mesh: TriangleMesh, by: Point3 | undefined): TriangleMesh =>
  by ? { ...mesh, positions: mesh.positions.map((x, i) => x * by[i % 3]!) } : mesh;

function read(text: string) {
  const reader = new GcodeReader();
  reader.push(new TextEncoder().encode(text));
  return reader.end();
}

const kernels = await start();
const wanted = process.argv[2]?.split(',');
let [right, all] = [0, 0];
const spent: number[] = [];
for (const { id, demo } of RECIPES) {
  if (wanted && !wanted.includes(id)) continue;
  const solid = solidOf({ recipe: id, additions: [], parameters: demo.parameters }, kernels);
  if (!solid.ok) continue;
  const { whole: mesh, surfaces } = solid.part;
  for (const { name, down = UP, placing = {}, dialect = {}, scale, says } of CASES) {
    const layers = await toolpathsOf(times(posed(mesh, { down, turn: 0 }), scale), settings);
    const file = read(gcodeOf(layers, settings.lineWidth, dialect, placing));
    const began = process.cpuUsage();
    const planned = { id: 'v1', down: UP };
    const { match, findings } = lookedAt(file, [{ id: 'v1', mesh, surfaces }], planned, kernels.mesh);
    spent.push(cpu(began));
    const codes = findings.map(f => f.code).filter(c => c !== 'no-support');
    const good = says ? codes.includes(says as never) : name === 'mirrored' || codes.length === 0;
    all++;
    if (good) right++;
    const told = match
      ? `lies ${match.down.map(x => x.toFixed(1)).join(' ')} turn ${match.turn.toFixed(1)} scale ${match.scale.toFixed(4)} moved ${match.moved.toFixed(3)} found ${match.found.toFixed(2)}`
      : 'no match';
    process.stdout.write(
      `${good ? ' ' : '!'} ${id.padEnd(16)} ${name.padEnd(17)} ${told}; ${codes.join(', ') || 'no finding'}; ${spent.at(-1)} ms\n`,
    );
  }
}
spent.sort((a, b) => a - b);
const at = (share: number) => spent[Math.floor(share * (spent.length - 1))];
process.stdout.write(`${right} of ${all} told right; CPU median ${at(0.5)} ms, p90 ${at(0.9)} ms a file\n`);

const small = Array.from({ length: 400 }, (_, i) => {
  const a = (2 * Math.PI * i) / 400;
  return `G1 X${(100 + 40 * Math.cos(a)).toFixed(3)} Y${(100 + 40 * Math.sin(a)).toFixed(3)} E0.02345`;
}).join('\n');
const parts = ['G90\nM83\n'];
for (let k = 0, bytes = 0; bytes < 50e6; k++, bytes += small.length)
  parts.push(`G1 Z${(0.2 + 0.2 * Math.floor(k / 10)).toFixed(2)} F3000\n${small}\n`);
const large = new TextEncoder().encode(parts.join(''));
const began = process.cpuUsage();
const reader = new GcodeReader();
for (let i = 0; i < large.length; i += 1 << 20) reader.push(large.subarray(i, i + (1 << 20)));
const { x0 } = reader.end();
process.stdout.write(
  `${(large.length / 1e6).toFixed(1)} MB, ${x0.length} pieces: ${cpu(began)} ms of CPU, ${Math.round(process.memoryUsage().rss / 1e6)} MB in use\n`,
);
