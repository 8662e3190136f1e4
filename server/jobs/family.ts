import type { JobView } from '../../contract/jobs';
import { readStl } from '../../core/files/reading-back';
import { writeThreeMf } from '../../core/files/three-mf';
import type { Workshop } from '../../core/job/workshop';
import { formatPlain } from '../../core/quantity/format';
import { ownUnit } from '../../core/quantity/units';
import { boundsOf, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { unitOf } from '../../core/shape/recipes/parameters';
import { Work } from '../../core/work/work';
import { HttpError } from '../errors';
import type { SolidPool } from '../solids/pool';

/** A row of parts that differ in one number. */
export interface FamilyWish {
  parameter: string;
  from: number;
  to: number;
  step: number;
}

export const MOST_SIZES = 16;
/** Between neighbours on the bed, mm. */
const GAP = 5;

/** From `from` to `to` in steps, both ends included. @throws HttpError */
export function sizesOf({ from, to, step }: FamilyWish): number[] {
  if (![from, to, step].every(Number.isFinite) || step <= 0 || to < from)
    throw new HttpError(400, 'bad-input', 'Give the smallest size, the largest, and a step above 0.');
  const count = Math.floor((to - from) / step + 1e-6) + 1;
  if (count > MOST_SIZES)
    throw new HttpError(
      400,
      'bad-input',
      `That makes ${count} parts: at most ${MOST_SIZES}. Take a larger step.`,
    );
  return Array.from({ length: count }, (_, i) => Number((from + i * step).toFixed(4)));
}

/** The job's part in several sizes, as bodies of one 3MF, laid out on the printer's bed. @throws HttpError */
export async function familyFile(
  job: JobView,
  partId: string,
  wish: FamilyWish,
  workshop: Workshop,
  pool: SolidPool,
): Promise<{ name: string; bytes: Uint8Array }> {
  const sizes = sizesOf(wish);
  const work = new Work(job.document, workshop, job.history);
  const { part, recipe, printer, material } = work.part(partId);
  const spec = recipe.parameters.find(p => p.name === wish.parameter);
  if (spec?.kind !== 'length')
    throw new HttpError(400, 'bad-input', 'A family goes by one of the part’s sizes: choose which.');
  const bodies: { name: string; mesh: TriangleMesh }[] = [];
  for (const size of sizes) {
    const words = `${spec.label.toLowerCase()} ${formatPlain(size)}${unitOf(spec)}`;
    const expression = { text: String(size), unit: ownUnit(spec.measure ?? 'length') };
    const document = {
      ...job.document,
      parts: job.document.parts.map(p =>
        p.id === partId ? { ...p, parameters: { ...p.parameters, [spec.name]: expression } } : p,
      ),
    };
    const { parameters, problems } = work.with({ document }).part(partId);
    const problem = problems[spec.name];
    if (problem) throw new HttpError(422, 'not-buildable', `With ${words}: ${problem}`);
    const answer = await pool.run({
      recipe: recipe.id,
      additions: part.additions,
      parameters,
      name: words,
      note: '',
      files: ['stl'],
    });
    if (!answer.ok)
      throw new HttpError(
        422,
        'not-buildable',
        `With ${words}: ${answer.findings[0]?.message ?? 'it cannot be built.'}`,
      );
    bodies.push({ name: words, mesh: readStl(answer.files.stl!) });
  }
  const laid = laidOut(bodies, printer.bed.width, printer.bed.depth);
  if (!laid)
    throw new HttpError(
      422,
      'not-buildable',
      `${bodies.length} parts do not fit beside each other on the bed of ${printer.name}: take fewer sizes.`,
    );
  const title = `${job.document.title}, ${bodies.length} sizes`;
  const note = `${spec.label}: ${sizes.map(s => formatPlain(s)).join(', ')}${unitOf(spec)}. Sizes compensated for ${printer.name}, ${material.name}.`;
  return {
    name: `${job.number}-family-${spec.name.toLowerCase()}.3mf`,
    bytes: writeThreeMf(title, note, laid),
  };
}

/** In rows from the bed's left front corner; null where they do not fit. */
export function laidOut<B extends { mesh: TriangleMesh }>(
  bodies: readonly B[],
  width: number,
  depth: number,
): B[] | null {
  let [x, y, row] = [0, 0, 0];
  const laid: B[] = [];
  for (const body of bodies) {
    const { min, max } = boundsOf(body.mesh);
    const [w, d] = [max[0] - min[0], max[1] - min[1]];
    if (x > 0 && x + w > width) [x, y, row] = [0, y + row + GAP, 0];
    if (w > width || y + d > depth) return null;
    const by = [x - min[0], y - min[1], 0];
    const positions = body.mesh.positions.map((p, i) => p + by[i % 3]!);
    laid.push({ ...body, mesh: { ...body.mesh, positions } });
    x += w + GAP;
    row = Math.max(row, d);
  }
  return laid;
}
