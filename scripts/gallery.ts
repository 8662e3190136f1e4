import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { writeDrawingSvg } from '../core/files/drawing-svg';
import { partPicture } from '../core/files/part-picture';
import { formatPlain } from '../core/quantity/format';
import { buildPart } from '../core/shape/build';
import { drawnLength } from '../core/shape/drawing/drawing';
import { RECIPES } from '../core/shape/recipes';
import { kernels } from '../kernels/node';

/** Writes docs/recipes.md and its drawings from the recipes' demo objects: `npx tsx scripts/gallery.ts`. */
const folder = fileURLToPath(new URL('../docs/recipes/', import.meta.url));
const FAMILIES = { replacement: 'Replacements', adapter: 'Adapters', mount: 'Mounts' } as const;

rmSync(folder, { recursive: true, force: true });
mkdirSync(folder, { recursive: true });
const tools = await kernels();
const lines = [
  '# Recipes',
  '',
  'Every recipe with its demo object. Written by `scripts/gallery.ts`; sizes are measured on the finished solid.',
];
for (const [family, title] of Object.entries(FAMILIES)) {
  lines.push('', `## ${title}`);
  for (const recipe of RECIPES.filter(r => r.family === family)) {
    const p = recipe.demo.parameters;
    const outcome = buildPart(recipe, p, tools, 'file');
    if (!outcome.ok) throw new Error(`${recipe.id}: ${outcome.findings[0]!.message}`);
    const { part } = outcome;
    const svg = writeDrawingSvg(recipe.drawing(p), recipe.title, d => {
      const size = p[recipe.mates.find(m => m.id === d.key)?.parameter ?? d.key];
      return formatPlain(typeof size === 'number' ? size : drawnLength(d), 2);
    });
    writeFileSync(`${folder}${recipe.id}.svg`, svg);
    writeFileSync(`${folder}${recipe.id}.png`, partPicture([part.mesh]));
    const size = [0, 1, 2].map(i => formatPlain(part.bounds.max[i]! - part.bounds.min[i]!, 1)).join(' × ');
    lines.push(
      '',
      `### ${recipe.title} (\`${recipe.id}\`)`,
      '',
      `${recipe.purpose} Here for ${recipe.demo.name}: ${size} mm, ${formatPlain(part.volume / 1000, 2)} cm³.`,
      '',
      `![${recipe.title}, the solid](recipes/${recipe.id}.png) ![${recipe.title}, its drawing](recipes/${recipe.id}.svg)`,
      '',
      '| mate | our side | measured on the solid, mm |',
      '|---|---|---|',
      ...part.mates.map(m => {
        const spec = recipe.mates.find(s => s.id === m.id)!;
        return `| ${spec.name} | ${m.side} | ${formatPlain(m.size, 3)} |`;
      }),
    );
  }
}
writeFileSync(fileURLToPath(new URL('../docs/recipes.md', import.meta.url)), `${lines.join('\n')}\n`);
