import { writeStl } from '../../core/files/stl';
import { writeThreeMf } from '../../core/files/three-mf';
import type { Addition } from '../../core/shape/additions/addition';
import { buildPart } from '../../core/shape/build';
import type { BuiltPart } from '../../core/shape/built-part';
import type { CheckContext } from '../../core/shape/checks/context';
import { inspectPart } from '../../core/shape/checks/inspect';
import type { Finding } from '../../core/shape/findings/finding';
import { finished } from '../../core/shape/finish';
import { exactOf, type Kernels } from '../../core/shape/kernels/kernel';
import { recipeWith } from '../../core/shape/recipe-with';
import type { Parameters } from '../../core/shape/recipes/parameters';
import { wholeOf } from '../../core/shape/recipes/recipe';
import type { Point3 } from '../../core/shape/vector';

/** A part to be built off the main thread; plain data both ways. */
export interface SolidTask {
  recipe: string;
  additions?: readonly Addition[];
  parameters: Parameters;
  /** The part's name in the files. */
  name: string;
  /** For whose printer the sizes are meant. */
  note: string;
  files: readonly ('stl' | '3mf' | 'step')[];
  /** Also run the checks. */
  context?: CheckContext;
}

export type SolidAnswer =
  | {
      ok: true;
      part: Omit<BuiltPart, 'mesh' | 'pieces' | 'whole' | 'surfaces'> & { triangles: number };
      findings: Finding[];
      files: Partial<Record<'stl' | '3mf' | 'step', Uint8Array>>;
      /** Bytes of the kernel's heap after this. */
      memory: number;
    }
  | { ok: false; findings: Finding[]; memory: number };

export async function build(task: SolidTask, kernels: Kernels): Promise<SolidAnswer> {
  const recipe = recipeWith(task.recipe, task.additions ?? []);
  const parameters = wholeOf(recipe, task.parameters);
  const outcome = buildPart(recipe, parameters, kernels, 'file');
  if (!outcome.ok) return { ...outcome, memory: kernels.part.memory() };
  const { mesh, pieces, whole: _, surfaces: __, ...part } = onTheBed(outcome.part);
  const findings = task.context
    ? inspectPart(recipe, parameters, outcome.part, task.context, kernels, outcome.findings).findings
    : outcome.findings;
  const files: Partial<Record<'stl' | '3mf' | 'step', Uint8Array>> = {};
  if (task.files.includes('stl')) files.stl = writeStl(mesh, task.name);
  if (task.files.includes('3mf'))
    files['3mf'] = writeThreeMf(
      task.name,
      task.note,
      pieces.length > 0
        ? pieces.map(p => ({ name: `${task.name}, ${p.name}`, mesh: p.mesh }))
        : [{ name: task.name, mesh }],
    );
  if (task.files.includes('step')) {
    try {
      const made = finished(recipe, parameters, kernels);
      const bodies = (made.pieces.length > 0 ? made.pieces : [{ body: made.body, name: '' }]).flatMap(p => {
        const body = exactOf(p.body, kernels.part);
        return body ? [{ body, name: asciiName([task.name, p.name].filter(Boolean).join(', ')) }] : [];
      });
      if (bodies.length === 0) throw new Error('Nothing of this part has exact surfaces: take 3MF or STL.');
      const text = await kernels.part.step(bodies);
      files.step = new TextEncoder().encode(text);
    } finally {
      kernels.part.release();
    }
  }
  return {
    ok: true,
    part: { ...part, triangles: mesh.triangles.length / 3 },
    findings,
    files,
    memory: kernels.part.memory(),
  };
}

/** Something put on it may reach below the recipe's underside: files, and what is said of them, stand on the bed. */
function onTheBed(part: BuiltPart): BuiltPart {
  const { min, max } = part.bounds;
  if (part.pieces.length > 0 || Math.abs(min[2]) < 1e-3) return part;
  const lifted = ([x, y, z]: Point3): [number, number, number] => [x, y, z - min[2]];
  return {
    ...part,
    mesh: {
      positions: part.mesh.positions.map((v, i) => (i % 3 === 2 ? v - min[2] : v)),
      triangles: part.mesh.triangles,
    },
    bounds: { min: lifted(min), max: lifted(max) },
    mates: part.mates.map(m => ({ ...m, at: lifted(m.at) })),
  };
}

/** The STEP writer takes names byte by byte: keep to letters that every reader agrees on. */
const asciiName = (name: string) =>
  name
    .normalize('NFKD')
    .replace(/[^\x20-\x7e]/g, '')
    .trim()
    .slice(0, 60) || 'part';
