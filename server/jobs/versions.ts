import { ulid } from 'ulid';
import type { FileKind, JobView } from '../../contract/jobs';
import { counting, type Print, type Version } from '../../core/job/history';
import { recipeOf } from '../../core/job/parts';
import type { Workshop } from '../../core/job/workshop';
import type { MateSpec } from '../../core/shape/mates';
import { kindOn } from '../../core/work/ledger';
import { Printers } from '../../core/work/printers';
import { Work } from '../../core/work/work';
import type { Blobs } from '../blobs/blobs';
import { HttpError, notFound } from '../errors';
import { KERNELS, type SolidPool } from '../solids/pool';

/** Walls and infill together fill about this share of a small part. Common practice, no source. */
const FILL = 0.75;
/** Plastic a filament printer lays an hour on small parts, g. Common practice, no source. */
const GRAMS_PER_HOUR = 9;

export interface VersionWish {
  partId: string;
  accepted: Version['accepted'];
}

/**
 * Freezes the present numbers as a version, after building the solid and reading the checks on it.
 * Kernel work: call it outside any transaction.
 * @throws HttpError when something stops it that was not accepted
 */
export async function prepareVersion(
  job: JobView,
  workshop: Workshop,
  wish: VersionWish,
  pool: SolidPool,
): Promise<Version> {
  const resolved = new Work(job.document, workshop, job.history).part(wish.partId);
  const [problem] = Object.values(resolved.problems);
  if (problem) throw new HttpError(422, 'number-missing', `${problem} Mend it on Shape first.`);
  if (resolved.ledger.unread.length > 0) {
    const names = resolved.ledger.unread.map(m => m.name).join(', ');
    throw new HttpError(
      422,
      'not-measured',
      `Not measured yet: ${names}. A version made now would be a guess.`,
    );
  }
  const answer = await pool.run({
    recipe: resolved.recipe.id,
    additions: resolved.part.additions,
    parameters: resolved.parameters,
    name: resolved.part.name,
    note: '',
    files: [],
    context: resolved.checkContext,
  });
  if (!answer.ok)
    throw new HttpError(422, 'not-buildable', answer.findings[0]?.message ?? 'The solid could not be built.');
  const stop = answer.findings.find(
    f => f.level === 'stop' && !wish.accepted.some(a => a.code === f.code && a.message === f.message),
  );
  if (stop) throw new HttpError(422, 'finding', stop.message, { findings: answer.findings });
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    partId: resolved.part.id,
    number:
      1 + Math.max(0, ...job.history.versions.filter(v => v.partId === resolved.part.id).map(v => v.number)),
    recipe: resolved.recipe.id,
    recipeVersion: resolved.recipe.version,
    kernels: KERNELS,
    printerId: resolved.printer.id,
    materialId: resolved.material.id,
    pose: resolved.part.pose,
    expressions: resolved.expressions,
    parameters: { ...resolved.parameters },
    additions: resolved.part.additions,
    mates: resolved.ledger.mates.map(m => {
      const spec = resolved.recipe.mates.find(s => s.id === m.mate.ours.surface)!;
      return {
        mateId: m.mate.id,
        surface: m.mate.ours.surface,
        want: m.mate.want,
        reading: { value: m.reading.value, u: m.reading.u },
        // What is drawn, which a maker's own number may have taken away from the ledger's.
        model: resolved.parameters[spec.parameter] as number,
        pRight: m.pRight,
        ledger: m.steps,
        prior: m.prior,
      };
    }),
    pAllRight: resolved.ledger.pAllRight ?? 0,
    reasons: resolved.ledger.mates.map(m => m.reason),
    accepted: wish.accepted,
    volume: answer.part.volume,
  };
}

/** What a print of it will take, before a printer's own factor is known. */
export function estimate(version: Pick<Version, 'volume' | 'materialId'>, workshop: Workshop) {
  const material = workshop.materials.find(m => m.id === version.materialId) ?? workshop.materials[0]!;
  const grams = (version.volume / 1000) * material.density * FILL;
  return {
    grams: Number(grams.toFixed(1)),
    hours: Number((grams / GRAMS_PER_HOUR).toFixed(2)),
    cost: Number(((grams / 1000) * material.pricePerKg).toFixed(2)),
  };
}

/** A version's file: as frozen at its first print, else built. */
export async function versionFile(
  job: JobView,
  versionId: string,
  kind: FileKind,
  workshop: Workshop,
  pool: SolidPool,
  blobs: Blobs,
): Promise<{ name: string; bytes: Uint8Array }> {
  const version = job.history.versions.find(v => v.id === versionId);
  if (!version) throw notFound('That version');
  const name = fileName(job, version, kind, workshop);
  for (const print of job.history.prints) {
    const hash =
      print.versionId === versionId
        ? Object.entries(print.files).find(([file]) => file.endsWith(`.${kind}`))?.[1]
        : undefined;
    const bytes = hash ? await blobs.get(hash) : null;
    if (bytes) return { name, bytes };
  }
  const files = await buildFiles(job, version, [kind], workshop, pool);
  return { name, bytes: files[kind]! };
}

export async function buildFiles(
  job: JobView,
  version: Version,
  kinds: readonly FileKind[],
  workshop: Workshop,
  pool: SolidPool,
): Promise<Partial<Record<FileKind, Uint8Array>>> {
  const printer = workshop.printers.find(p => p.id === version.printerId);
  const material = workshop.materials.find(m => m.id === version.materialId);
  const answer = await pool.run({
    recipe: version.recipe,
    additions: version.additions,
    parameters: version.parameters,
    name: `${job.document.title} v${version.number}`,
    note: `Sizes compensated for ${printer?.name ?? 'the printer'}, ${material?.name ?? 'its plastic'}. Lengths in mm.`,
    files: kinds,
  });
  if (!answer.ok)
    throw new HttpError(422, 'not-buildable', answer.findings[0]?.message ?? 'The solid could not be built.');
  return answer.files;
}

/** For whom a file's sizes are meant, when not for the printer of its version. */
export type OtherSizes =
  | { for: 'designed' }
  /** A printer of this workshop with one of its plastics: what is known of them, without this version's tries. */
  | { for: 'profile'; printerId: string; materialId: string };

/**
 * The same version for somebody else's printer: each mate at reading and allowance, with what that printer does
 * to it. Sizes that a maker derived from a mate's number stay as they were.
 */
export async function otherFile(
  job: JobView,
  versionId: string,
  kind: FileKind,
  sizes: OtherSizes,
  workshop: Workshop,
  pool: SolidPool,
): Promise<{ name: string; bytes: Uint8Array }> {
  const version = job.history.versions.find(v => v.id === versionId);
  if (!version) throw notFound('That version');
  const recipe = recipeOf(version);
  const whose = sizes.for === 'designed' ? null : profileNamed(sizes, workshop);
  const parameters = { ...version.parameters };
  for (const mate of version.mates) {
    const spec = recipe.mates.find(m => m.id === mate.surface);
    if (!spec) continue;
    const own = mate.ledger
      .filter(s => s.step === 'compensation' || s.step === 'lesson')
      .reduce((sum, s) => sum + s.amount, 0);
    const designed = mate.model - own;
    parameters[spec.parameter] = Number(
      (designed + (whose ? whose.adds(spec, version, designed) : 0)).toFixed(3),
    );
  }
  const words = whose ? `for ${whose.name}` : 'as designed';
  const answer = await pool.run({
    recipe: version.recipe,
    additions: version.additions,
    parameters,
    name: `${job.document.title} v${version.number}, ${words}`,
    note: whose
      ? `Sizes compensated for ${whose.name}. Lengths in mm.`
      : 'Sizes as designed, compensated for no printer. Lengths in mm.',
    files: [kind],
  });
  if (!answer.ok)
    throw new HttpError(
      422,
      'not-buildable',
      answer.findings[0]?.message ?? `The solid could not be built ${words}.`,
    );
  const title = slug(job.document.title) || 'part';
  return {
    name: `${job.number}-${title}-v${version.number}-${slug(words)}.${kind}`,
    bytes: answer.files[kind]!,
  };
}

function profileNamed(
  { printerId, materialId }: Extract<OtherSizes, { for: 'profile' }>,
  workshop: Workshop,
) {
  const printer = workshop.printers.find(p => p.id === printerId);
  const material = workshop.materials.find(m => m.id === materialId);
  if (!printer) throw notFound('That printer');
  if (!material) throw notFound('That plastic');
  const printers = new Printers(workshop);
  return {
    name: `${printer.name}, ${material.name}`,
    /** What it takes so that the print comes out as designed. */
    adds: (spec: MateSpec, version: Version, size: number): number => {
      const ours = { of: 'part' as const, part: version.partId, surface: spec.id };
      const kind = kindOn({ side: spec.side, ours }, recipeOf(version), version.pose);
      const { mean } = printers.belief({ printerId, materialId }, spec.side, kind, size);
      return spec.side === 'inside' ? mean : -mean;
    },
  };
}

/** Tag, title, version and that it is compensated, so that a file found a year later says what it is. */
export function fileName(job: JobView, version: Version, kind: FileKind, workshop: Workshop): string {
  const material = workshop.materials.find(m => m.id === version.materialId);
  const title = slug(job.document.title) || 'part';
  return `${job.number}-${title}-v${version.number}-${slug(material?.name ?? 'as-printed')}-compensated.${kind}`;
}

const slug = (text: string) =>
  text
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .replace(/[^A-Za-z0-9]+/g, '-')
    .replace(/^-|-$/g, '')
    .toLowerCase()
    .slice(0, 60)
    .replace(/-$/, '');

/** A print row; its files are frozen by hash. */
export async function preparePrint(
  job: JobView,
  wish: { versionId: string; hours: number | null; grams: number | null; cost: number | null; note: string },
  practice: boolean,
  workshop: Workshop,
  pool: SolidPool,
  blobs: Blobs,
): Promise<Print> {
  const version = counting(job.history).versions.find(v => v.id === wish.versionId);
  if (!version) throw notFound('That version');
  const files: Record<string, string> = {};
  const frozen = job.history.prints.find(p => p.versionId === version.id && Object.keys(p.files).length > 0);
  if (frozen) Object.assign(files, frozen.files);
  else {
    const built = await buildFiles(job, version, ['3mf', 'step', 'stl'], workshop, pool);
    for (const [kind, bytes] of Object.entries(built))
      files[fileName(job, version, kind as FileKind, workshop)] = await blobs.put(bytes);
  }
  const guess = estimate(version, workshop);
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    versionId: version.id,
    number: job.history.prints.length + 1,
    hours: wish.hours ?? guess.hours,
    grams: wish.grams ?? guess.grams,
    cost:
      wish.cost ??
      (wish.grams !== null ? Number(((guess.cost / guess.grams) * wish.grams).toFixed(2)) : guess.cost),
    note: wish.note,
    practice,
    files,
  };
}
