import { readFile } from 'node:fs/promises';
import { filedAs } from '../../core/bench/filed';
import { practiceScan } from '../../core/bench/practice-scan';
import { readBody, readSurface } from '../../core/files/bodies/read-body';
import { partStep, partStl, partThreeMf } from '../../core/files/part-files';
import { readStl } from '../../core/files/reading-back';
import { writeStl } from '../../core/files/stl';
import { writeThreeMf } from '../../core/files/three-mf';
import { footprintOf } from '../../core/print/footprint';
import { copiesOnBed, placedOn, platesOf } from '../../core/print/plate/plate';
import { type Pose, posed } from '../../core/print/pose';
import { sliceOf } from '../../core/print/slice';
import { supportsIn } from '../../core/print/supports';
import { estimateOf, withSupports } from '../../core/print/time';
import { readScan } from '../../core/scan/read-scan';
import { ScanError } from '../../core/scan/scan-file';
import type { BuiltPart } from '../../core/shape/built-part';
import { inspectPart } from '../../core/shape/checks/inspect';
import { SAGITTA } from '../../core/shape/finish';
import { KernelError, type Kernels } from '../../core/shape/kernels/kernel';
import { boundsOf, mirroredMesh, type TriangleMesh } from '../../core/shape/mesh/mesh';
import { packMeshes, unpackMeshes } from '../../core/shape/mesh/packed';
import { Recent } from '../../core/shape/recent';
import { recipeWith } from '../../core/shape/recipe-with';
import { wholeOf } from '../../core/shape/recipes/recipe';
import { meshesOf, recordOf, type Solid, solidOf, solidOfRecord } from '../../core/shape/solid';
import { heapInUse, kernels } from '../../kernels/node';
import { readBundle } from '../bundle/read-bundle';
import { rackTag } from '../jobs/rack-tag';
import { readPhoto } from '../photos/read-photo';
import { drawingFile, handOverFile, sheetFile } from '../sheet/paper';
import { buildGauge, buildLadder, buildPiece, gaugeBody, ladderRing } from './piece';
import type { Answer, KeptSolid, PlateBody, TaskName, Tasks } from './tasks';

/** Bodies that were used lately; a thread lives for minutes. */
const MOST_READ = 12;
const read = new Recent<TriangleMesh>(MOST_READ);
/** A solid is inspected and written right after it was built. */
const built = new Recent<Solid>(3);

type Handlers = { [T in TaskName]: (asked: Tasks[T]['asked']) => Promise<Tasks[T]['answer']> };

const handlers: Handlers = {
  async build({ key, spec, modelFiles }) {
    const solid = solidOf(spec, await withModels(modelFiles));
    if (!solid.ok) return solid;
    built.put(key, solid);
    return { ok: true, record: recordOf(solid), packed: packMeshes(meshesOf(solid.part)) };
  },

  async step({ spec, modelFiles }) {
    try {
      const step = await partStep(spec, await withModels(modelFiles));
      return { ok: true, step: new TextEncoder().encode(step) };
    } catch (error) {
      if (error instanceof KernelError) return { ok: false, message: `${error.message}.` };
      throw error;
    }
  },

  async inspect({ solid, spec, context, modelFiles }) {
    const recipe = recipeWith(spec.recipe, spec.additions);
    const { part, findings } = await solidAt(solid);
    const tools = await withModels(modelFiles);
    return inspectPart(recipe, wholeOf(recipe, spec.parameters), part, context, tools, findings);
  },

  async files({ solid, words, pose }) {
    const { part } = await solidAt(solid);
    return { stl: partStl(part, words.name, pose), '3mf': partThreeMf(part, words, pose) };
  },

  async copies({ of, pieces, bed }) {
    const body = await plateBody(of);
    return { onOneBed: typeof body === 'string' ? 0 : copiesOnBed(body, bed, pieces) };
  },

  async estimate({ solid, pose, settings, machine, rules }) {
    const { part } = await solidAt(solid);
    const { mesh } = await kernels();
    const bare = estimateOf(lying(part, pose), settings, machine, mesh);
    const { volume } =
      part.pieces.length > 0 ? { volume: 0 } : supportsIn(part.whole, pose, rules, part.surfaces);
    return { estimate: withSupports(bare, volume, settings, machine) };
  },

  async slice({ solid, surfaces, words, pose, settings, machine }) {
    const { part } = await solidAt(solid);
    const { mesh: kernel } = await kernels();
    const slice = sliceOf(part, surfaces, pose, kernel, SAGITTA.file);
    if (!slice.ok) return { slice };
    const mesh = posed(slice.mesh, pose);
    const files = {
      stl: writeStl(mesh, words.name),
      '3mf': writeThreeMf(words.name, words.note, [{ name: words.name, mesh }]),
    };
    const estimate = estimateOf(mesh, settings, machine, kernel);
    return { slice: { ok: true, estimate, files } };
  },

  async plate({ bodies, bed, gap, file }) {
    const made: { mesh: TriangleMesh; pieces: number }[] = [];
    for (const { of, pieces } of bodies) {
      const mesh = await plateBody(of);
      if (typeof mesh === 'string')
        return { beds: [], left: bodies.map(b => b.pieces), heights: [], why: mesh, file: null };
      made.push({ mesh, pieces });
    }
    const { beds, left } = platesOf(made, bed, gap);
    const placed = beds.map(one => one.map(p => ({ body: p.body, mesh: placedOn(made[p.body]!.mesh, p) })));
    const wanted = file && placed[file.bed];
    return {
      beds: placed.map(one =>
        one.map(({ body, mesh }) => ({
          body,
          outline: footprintOf(mesh).map(([x, y]): [number, number] => [x, y]),
        })),
      ),
      left,
      heights: made.map(b => boundsOf(b.mesh).max[2]),
      why: null,
      file: wanted ? writeThreeMf(file.title, file.note, named(wanted, bodies)) : null,
    };
  },

  async readScan({ path }) {
    try {
      const { positions, triangles } = readScan(await readFile(path));
      return { scan: { ok: true, triangles: triangles.length / 3, vertices: positions.length / 3 } };
    } catch (error) {
      if (error instanceof ScanError) return { scan: { ok: false, message: error.message } };
      throw error;
    }
  },

  readBody: async ({ file, as }) => ({
    body: as === 'surface' ? readSurface(file) : await readBody(file, await kernels()),
  }),
  practiceScan: async ({ recipe, world, count }) => {
    const mesh = practiceScan(recipe, world, count);
    return { file: mesh && writeStl(mesh, 'practice scan') };
  },
  async practiceFile({ file, solid, pose }) {
    const { part } = await solidAt(solid);
    try {
      const read = readScan(file);
      if (read.triangles.length === 0)
        return { filed: null, why: 'There are only points in it, no surface.' };
      return { filed: filedAs(read, part, pose), why: null };
    } catch (error) {
      if (error instanceof ScanError) return { filed: null, why: error.message };
      throw error;
    }
  },
  // Needed only now and then: otherwise every thread would read them at its start.
  practicePhoto: async ({ recipe, world, count }) => {
    const { practicePhoto } = await import('../../core/bench/practice-photo');
    const { jpegOf } = await import('../../core/bench/jpeg');
    const taken = practicePhoto(recipe, world, count);
    if (!taken) return { photo: null };
    const { picture, ...read } = taken;
    return { photo: { ...read, file: jpegOf(picture) } };
  },
  drawReferenceSheet: async ({ paper, middle }) => {
    const { referenceSheet } = await import('../sheet/reference-sheet');
    return { file: await referenceSheet(paper, middle) };
  },
  readPhoto: async ({ head }) => ({ photo: readPhoto(head) }),
  readBundle: async ({ file }) => ({ bundle: readBundle(file) }),
  drawSheet: sheetFile,
  drawHandOver: handOverFile,
  drawPart: drawingFile,
  tag: async ({ job, workshop, lessons }) => rackTag(job, workshop, lessons),
  piece: buildPiece,
  gauge: buildGauge,
  ladder: buildLadder,
};

/** Runs in a thread of the pool: kernels start with the first task and stay warm. */
export default async function run<T extends TaskName>({
  task,
  asked,
}: {
  task: T;
  asked: Tasks[T]['asked'];
}): Promise<Answer<T>> {
  const answer = await handlers[task](asked);
  return { ...answer, heap: await heapInUse() };
}

/** Each piece by its name, numbered where there are several alike. */
function named(
  placed: readonly { body: number; mesh: TriangleMesh }[],
  bodies: Tasks['plate']['asked']['bodies'],
) {
  const seen = new Map<number, number>();
  const inOrder = [...placed].sort((a, b) => a.body - b.body);
  return inOrder.map(({ body, mesh }) => {
    const count = (seen.get(body) ?? 0) + 1;
    seen.set(body, count);
    const { name, pieces } = bodies[body]!;
    return { name: pieces > 1 ? `${name}, ${count}` : name, mesh };
  });
}

/** As it lies on the bed, or why it cannot be made. */
async function plateBody(of: PlateBody): Promise<TriangleMesh | string> {
  if (of.kind === 'ring') return ladderRing(of);
  if (of.kind === 'gauge') return gaugeBody(of);
  const { part } = await solidAt(of.solid);
  if (of.kind === 'part') {
    const lies = lying(part, of.pose);
    return of.mirrored ? mirroredMesh(lies) : lies;
  }
  const slice = sliceOf(part, of.surfaces, of.pose, (await kernels()).mesh, SAGITTA.file);
  return slice.ok ? posed(slice.mesh, of.pose) : slice.why;
}

/** A part as it lies on the bed; a part in pieces already has them laid there. */
const lying = ({ mesh, pieces }: BuiltPart, pose: Pose): TriangleMesh =>
  pieces.length > 0 ? mesh : posed(mesh, pose);

async function withModels(files: Readonly<Record<string, string>>): Promise<Kernels> {
  const started = await kernels();
  const models = new Map<string, TriangleMesh>();
  for (const [sha256, path] of Object.entries(files)) {
    const mesh = read.get(sha256) ?? (await stlAt(path));
    // Missing on the disk: the part then says that the body is not at hand.
    if (!mesh) continue;
    read.put(sha256, mesh);
    models.set(sha256, mesh);
  }
  started.models = models;
  return started;
}

async function stlAt(path: string): Promise<TriangleMesh | null> {
  const bytes = await readFile(path).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return null;
    throw error;
  });
  return bytes && readStl(bytes);
}

async function solidAt({ key, record, meshFile }: KeptSolid): Promise<Solid> {
  const known = built.get(key);
  if (known) return known;
  const solid = solidOfRecord(record, unpackMeshes(await readFile(meshFile)));
  built.put(key, solid);
  return solid;
}
