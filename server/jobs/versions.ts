import { ulid } from 'ulid';
import type { JobView } from '../../contract/jobs';
import { FILE_KINDS, type FileKind, type FileWords, namedStep } from '../../core/files/part-files';
import type { Version } from '../../core/job/history';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import type { Pose } from '../../core/print/pose';
import { isAccepted } from '../../core/shape/findings/finding';
import type { SolidSpec } from '../../core/shape/solid-key';
import type { PartWork } from '../../core/work/part-work';
import { baseOf } from '../../core/work/version-tree';
import { Work } from '../../core/work/work';
import { KERNEL_VERSIONS } from '../../kernels/versions';
import type { Blobs } from '../blobs/blobs';
import { HttpError } from '../errors';
import type { Asker } from '../solids/pool';
import type { Solids } from '../solids/solids';
import { fileName, sizesNote } from './file-names';

export interface VersionWish {
  partId: string;
  accepted: Version['accepted'];
}

/** Who makes it, and where its steps are reported. */
export interface Maker extends Asker {
  onStep?(words: string): void;
}

/** What makes solids and stores files. */
export interface Makers {
  solids: Solids;
  blobs: Blobs;
}

/**
 * Freezes the current numbers as a version, with its files, after building the solid and running the checks on it.
 * Kernel work: call it outside any transaction.
 * @throws HttpError when a finding stops it that was not accepted; Cancelled when its maker gave up
 */
export async function prepareVersion(
  job: JobView,
  workshop: Workshop,
  lessons: readonly Evidence[],
  wish: VersionWish,
  { solids, blobs }: Makers,
  maker: Maker = {},
): Promise<Version> {
  const work = Work.of(job, workshop, lessons).part(wish.partId);
  refuseUnready(work);
  const spec: SolidSpec = work.solidSpec;
  maker.onStep?.('Building the solid');
  const solid = await solids.built(spec, maker);
  if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
  maker.onStep?.('Checking it');
  const findings = await solids.inspected(solid, spec, work.checkContext, maker);
  const stop = findings.find(f => f.level === 'stop' && !isAccepted(f, wish.accepted));
  if (stop) throw new HttpError(422, 'finding', stop.message, { findings });
  const version: Version = {
    ...frozen(work),
    accepted: wish.accepted,
    volume: solid.record.volume,
  };
  return { ...version, ...(await filesOf(job, version, workshop, { solids, blobs }, maker)) };
}

/** @throws HttpError when a number is missing or based on an example */
function refuseUnready({ problems, ledger }: PartWork): void {
  const [problem] = Object.values(problems);
  if (problem) throw new HttpError(422, 'number-missing', `${problem} Mend it on Shape first.`);
  if (ledger.unread.length === 0) return;
  const names = ledger.unread.map(m => m.name).join(', ');
  throw new HttpError(
    422,
    'not-measured',
    `Not measured yet: ${names}. A version made now would be a guess.`,
  );
}

/** The numbers as they are now. */
function frozen(work: PartWork): Omit<Version, 'accepted' | 'volume'> {
  const { part, recipe, ledger, parameters } = work;
  return {
    id: ulid(),
    at: new Date().toISOString(),
    voided: null,
    partId: part.id,
    number: work.nextNumber,
    follows: baseOf(part, work.versions)?.id ?? null,
    recipe: recipe.id,
    recipeVersion: recipe.version,
    kernels: KERNEL_VERSIONS,
    printerId: work.printer.id,
    materialId: work.material.id,
    pose: part.pose,
    quality: part.quality,
    expressions: work.expressions,
    parameters: { ...parameters },
    additions: part.additions,
    mates: ledger.mates.map(m => {
      const spec = recipe.mates.find(s => s.id === m.mate.ours.surface)!;
      return {
        mateId: m.mate.id,
        surface: m.mate.ours.surface,
        want: m.mate.want,
        reading: { value: m.reading.value, u: m.reading.u },
        // The drawn number, which the maker may have set instead of the ledger's.
        model: parameters[spec.parameter] as number,
        pRight: m.tooLarge ? 0 : m.pRight,
        ledger: m.steps,
        prior: m.prior,
        ...(m.mate.own
          ? { own: { ...m.mate.own, name: m.mate.name, side: m.mate.side, dimension: m.dimension.id } }
          : {}),
      };
    }),
    signed: ledger.signed.map(m => ({
      mateId: m.mate.id,
      name: m.mate.name,
      number: m.mate.number,
      target: { value: m.target.value, u: m.target.u },
      tolerance: m.mate.tolerance,
      model: parameters[m.mate.number] as number,
      pRight: m.pRight,
      ledger: m.steps,
      prior: m.prior,
    })),
    pAllRight: ledger.pAllRight ?? 0,
    reasons: [...ledger.mates, ...ledger.signed].map(m => m.reason),
    files: {},
    without: {},
  };
}

/**
 * A version's files, stored as blobs. Not every part has a STEP file: then the version says why.
 * @throws HttpError where the solid itself can no longer be built
 */
export async function filesOf(
  job: JobView,
  version: Version,
  workshop: Workshop,
  makers: Makers,
  maker: Maker,
): Promise<Pick<Version, 'files' | 'without'>> {
  const files: Version['files'] = {};
  const without: Version['without'] = {};
  const made = await partFiles(version, FILE_KINDS, named(job, version, workshop), makers, maker);
  for (const kind of FILE_KINDS) {
    const file = made[kind];
    if (file instanceof Uint8Array)
      files[fileName(job, version, kind, workshop)] = await makers.blobs.put(file);
    else if (file) without[kind] = file.problem;
  }
  return { files, without };
}

const named = (job: JobView, version: Version, workshop: Workshop): FileWords & { pose: Pose } => ({
  name: versionName(job, version),
  note: sizesNote(version, workshop),
  pose: version.pose,
});

export const versionName = (job: JobView, version: Version): string =>
  `${job.document.title} v${version.number}`;

/** Files of a solid, each with its bytes or why it cannot be made. @throws HttpError where the solid cannot be built */
export async function partFiles(
  spec: SolidSpec,
  kinds: readonly FileKind[],
  { name, note, pose }: FileWords & { pose: Pose },
  { solids }: Makers,
  maker: Maker,
): Promise<Partial<Record<FileKind, Uint8Array | { problem: string }>>> {
  const solid = await solids.built(spec, maker);
  if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
  const made: Partial<Record<FileKind, Uint8Array | { problem: string }>> = {};
  if (kinds.includes('3mf') || kinds.includes('stl')) {
    maker.onStep?.('Writing 3MF and STL');
    Object.assign(made, await solids.files(solid, { name, note }, pose, maker));
  }
  if (kinds.includes('step')) {
    maker.onStep?.('Writing exact surfaces for STEP');
    const step = await solids.step(spec, maker);
    made.step = step.ok ? namedStep(new TextDecoder().decode(step.step), name) : { problem: step.message };
  }
  return made;
}

/** A version's file: as stored; for one from before files were stored, as printed; otherwise built. */
export async function versionFile(
  job: JobView,
  version: Version,
  kind: FileKind,
  workshop: Workshop,
  makers: Makers,
): Promise<{ name: string; bytes: Uint8Array }> {
  const kept = [version, ...job.history.prints.filter(p => p.versionId === version.id)];
  for (const { files } of kept) {
    const [name, hash] = Object.entries(files).find(([file]) => file.endsWith(`.${kind}`)) ?? [];
    const bytes = hash ? await makers.blobs.get(hash) : null;
    if (name && bytes) return { name, bytes };
  }
  const made = await partFiles(version, [kind], named(job, version, workshop), makers, { owner: job.id });
  return { name: fileName(job, version, kind, workshop), bytes: bytesOf(made[kind]) };
}

/** @throws HttpError with the reason why there is no such file */
export function bytesOf(file: Uint8Array | { problem: string } | undefined): Uint8Array {
  if (file instanceof Uint8Array) return file;
  throw notBuildable(file?.problem);
}

export const notBuildable = (message = 'The solid could not be built.'): HttpError =>
  new HttpError(422, 'not-buildable', message);
