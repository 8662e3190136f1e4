import type { JobView } from '../../contract/jobs';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import { formatPlain } from '../../core/quantity/format';
import { ownUnit } from '../../core/quantity/units';
import { unitOf } from '../../core/shape/recipes/parameters';
import { Work } from '../../core/work/work';
import { HttpError } from '../errors';
import type { Solids } from '../solids/solids';
import { fileOnOneBed, type PartOnBed } from './on-one-bed';

/** A row of parts that differ in one number. */
export interface FamilyWish {
  parameter: string;
  from: number;
  to: number;
  step: number;
}

export const MOST_SIZES = 16;
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
  lessons: readonly Evidence[],
  solids: Solids,
): Promise<{ name: string; bytes: Uint8Array }> {
  const sizes = sizesOf(wish);
  const work = Work.of(job, workshop, lessons);
  const { part, recipe, printer, material } = work.part(partId);
  const spec = recipe.parameters.find(p => p.name === wish.parameter);
  if (spec?.kind !== 'length')
    throw new HttpError(400, 'bad-input', 'A family goes by one of the part’s sizes: choose which.');
  const bodies: PartOnBed[] = [];
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
    const solid = await solids.built(
      { recipe: recipe.id, additions: part.additions, parameters },
      { owner: job.id },
    );
    if (!solid.ok)
      throw new HttpError(
        422,
        'not-buildable',
        `With ${words}: ${solid.findings[0]?.message ?? 'it cannot be built.'}`,
      );
    bodies.push({ name: words, solid, pose: part.pose, pieces: 1 });
  }
  const title = `${job.document.title}, ${bodies.length} sizes`;
  const note = `${spec.label}: ${sizes.map(s => formatPlain(s)).join(', ')}${unitOf(spec)}. Sizes compensated for ${printer.name}, ${material.name}.`;
  const file = await fileOnOneBed(bodies, printer.bed, { title, note }, solids, job.id);
  if (!file)
    throw new HttpError(
      422,
      'not-buildable',
      `${bodies.length} parts do not fit beside each other on the bed of ${printer.name}: take fewer sizes.`,
    );
  return {
    name: `${job.number}-family-${spec.name.toLowerCase()}.3mf`,
    bytes: file,
  };
}
