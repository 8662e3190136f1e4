import type { JobView } from '../../contract/jobs';
import type { Hand, Plate, PlateAsked, Queue, QueueAid, QueueItem } from '../../contract/queue';
import { Rack } from '../../contract/rack';
import type { Material, Printer, Workshop } from '../../core/job/workshop';
import { solidEstimate } from '../../core/print/estimate';
import { GAUGE_HEIGHT, gaugeVolume } from '../../core/print/gauge';
import { rungEstimate } from '../../core/print/ladder';
import { machineOf, paceOfPrinter, settingsOf, takesOf } from '../../core/print/of-printer';
import type { NotedPrint } from '../../core/print/pace';
import { type Estimate, inTurn, together } from '../../core/print/time';
import type { App } from '../context';
import { HttpError, notFound } from '../errors';
import type { PlateBody, PlateMade } from '../solids/tasks';
import { readWorkshop } from '../workshop/repository';
import { estimateOfVersion, notedPrints, printerOf, sliceOfVersion } from './prints';
import { readJob } from './repository';
import { notBuildable, versionName } from './versions';

/** What waits for a printer over all jobs, and plates of several parts. */

/** Nobody prints more than this in an evening. */
const MOST_LISTED = 60;

type Kinds = Pick<App, 'store' | 'rack' | 'solids'>;

export async function queueOf({ store, rack }: Kinds): Promise<Queue> {
  const { workshop } = await readWorkshop(store.db);
  const { jobs } = Rack.parse(JSON.parse((await rack.read()).toString()));
  const waiting = jobs.filter(
    j => j.away === null && j.toPrint.length + j.aids.length + j.onPrinter.length > 0,
  );
  const items: QueueItem[] = [];
  const aids: QueueAid[] = [];
  const running: Queue['running'] = [];
  let more = 0;
  for (const tag of waiting) {
    for (const { printerId, ...print } of tag.onPrinter)
      running.push({
        ...print,
        jobId: tag.id,
        number: tag.number,
        title: tag.title,
        printerId: printerOf({ printerId: printerId ?? '' }, workshop).id,
      });
    if (items.length + aids.length >= MOST_LISTED) {
      more += tag.toPrint.length + tag.aids.length;
      continue;
    }
    // Test pieces need nothing else of their job.
    if (tag.toPrint.length > 0) items.push(...itemsOf(tag, await readJob(store.db, tag.id), workshop));
    for (const { kind, id, words, printerId, materialId } of tag.aids) {
      const material = materialFor(materialId, workshop);
      aids.push({
        kind,
        id,
        jobId: tag.id,
        number: tag.number,
        title: tag.title,
        words,
        printerId: printerOf({ printerId: printerId ?? '' }, workshop).id,
        materialId: material.id,
        material: material.name,
      });
    }
  }
  const printers = workshop.printers.map(p => ({
    id: p.id,
    name: p.name,
    inTurn: p.clearance !== undefined,
  }));
  return { printers, items, aids, running, more };
}

/** Versions of a job that wait for a printer. */
function itemsOf(
  { toPrint }: Pick<Rack['jobs'][number], 'toPrint'>,
  job: JobView,
  workshop: Workshop,
): QueueItem[] {
  return toPrint.flatMap(({ versionId, pieces, words, partId }): QueueItem[] => {
    const version = job.history.versions.find(v => v.id === versionId);
    if (!version) return [];
    const printer = printerOf(version, workshop);
    const material = materialFor(version.materialId, workshop);
    return [
      {
        jobId: job.id,
        number: job.number,
        title: job.document.title,
        partId,
        versionId,
        words,
        printerId: printer.id,
        materialId: material.id,
        material: material.name,
        pieces,
        mates: version.mates.map(m => ({
          id: m.mateId,
          name: job.document.mates.find(x => x.id === m.mateId)?.name ?? m.surface,
        })),
      },
    ];
  });
}

const materialFor = (id: string | null, { materials }: Workshop): Material =>
  materials.find(m => m.id === id) ?? materials[0]!;

/** Time and plastic of one piece. */
export async function queueTakes(
  jobId: string,
  versionId: string,
  { store, solids }: Kinds,
): Promise<ReturnType<typeof shownTakes> | null> {
  const { workshop } = await readWorkshop(store.db);
  const job = await readJob(store.db, jobId);
  const version = job.history.versions.find(v => v.id === versionId);
  if (!version) throw notFound('That version');
  const estimate = await estimateOfVersion(version, workshop, solids, job.id);
  if (!estimate) return null;
  const printer = printerOf(version, workshop);
  const noted = (await notedPrints(store.db))[printer.id] ?? [];
  return shownTakes(estimate, printer, materialFor(version.materialId, workshop), noted);
}

function shownTakes(estimate: Estimate, printer: Printer, material: Material, noted: readonly NotedPrint[]) {
  const { hours, from, to, grams, cost } = takesOf(estimate, paceOfPrinter(printer, noted), material);
  return { hours, from, to, grams, cost };
}

interface OnPlate {
  of: PlateBody;
  name: string;
  pieces: number;
  printer: Printer;
  material: Material;
  estimate: Estimate;
  note: string;
}

/** Beds and their content, and the file of one of them. @throws HttpError where the pieces cannot share a plate */
export async function plateOf(
  asked: PlateAsked,
  makers: Kinds,
  wantsFile: boolean,
): Promise<{ plate: Plate; file: { name: string; bytes: Uint8Array } | null }> {
  const { workshop } = await readWorkshop(makers.store.db);
  const bodies: OnPlate[] = [];
  for (const wish of asked.of) bodies.push(...(await bodiesOf(wish, workshop, makers)));
  const [first] = bodies;
  if (!first) throw new HttpError(422, 'nothing', 'Nothing was chosen for the plate.');
  const { printer, material } = first;
  const other = bodies.find(b => b.printer.id !== printer.id || b.material.id !== material.id);
  if (other)
    throw new HttpError(
      422,
      'several-printers',
      `“${first.name}” is for ${printer.name} in ${material.name}, “${other.name}” for ${other.printer.name} in ${other.material.name}: one plate has one printer and one plastic.`,
    );
  const turns = asked.inTurn === 'yes';
  if (turns && !printer.clearance)
    throw new HttpError(
      422,
      'no-clearance',
      `Say in the workshop what the head of ${printer.name} needs beside it and above, then parts can be printed one after the other.`,
    );
  const title = `Plate of ${bodies.reduce((sum, b) => sum + b.pieces, 0)} pieces`;
  const note = `${material.name} on ${printer.name}. ${bodies.map(b => b.note).join(' ')} Lengths in mm.`;
  const made = await makers.solids.pool.run(
    'plate',
    {
      bodies: bodies.map(({ of, name, pieces }) => ({ of, name, pieces })),
      bed: printer.bed,
      ...gapOf(asked, turns ? printer.clearance!.beside : 0),
      ...(wantsFile ? { file: { bed: asked.bed, title, note } } : {}),
    },
    { owner: 'plate' },
  );
  if (made.why !== null) throw notBuildable(made.why);
  if (turns) refuseTooHigh(made, bodies, printer);
  const noted = (await notedPrints(makers.store.db))[printer.id] ?? [];
  const takes = (estimate: Estimate) => shownTakes(estimate, printer, material, noted);
  const plate: Plate = {
    bed: { width: printer.bed.width, depth: printer.bed.depth },
    beds: made.beds.map(pieces => {
      const estimates = pieces.map(p => bodies[p.body]!.estimate);
      const alone = estimates.map(takes);
      const dearest = alone.reduce((a, b) => (b.hours > a.hours ? b : a), alone[0]!);
      return {
        pieces: pieces.map(({ body, outline }) => ({ name: bodies[body]!.name, outline })),
        takes: takes(turns ? inTurn(estimates) : together(estimates)),
        lost: { hours: dearest.hours, grams: dearest.grams },
      };
    }),
    left: made.left.flatMap((pieces, i) => (pieces > 0 ? [{ name: bodies[i]!.name, pieces }] : [])),
  };
  const file = made.file && { name: `sagoma-plate-bed-${asked.bed + 1}.3mf`, bytes: made.file };
  if (wantsFile && !file) throw notFound(`Bed ${asked.bed + 1} of that plate`);
  return { plate, file };
}

/** The highest part of a bed may be higher than the head's clearance: it is printed last. */
function refuseTooHigh(
  { beds, heights }: PlateMade,
  bodies: readonly OnPlate[],
  { name, clearance }: Printer,
): void {
  for (const bed of beds) {
    const high = bed.filter(p => heights[p.body]! > clearance!.above);
    if (high.length < 2) continue;
    throw new HttpError(
      422,
      'too-high',
      `“${bodies[high[0]!.body]!.name}” stands ${heights[high[0]!.body]!.toFixed(0)} mm high, and ${name} passes ${clearance!.above} mm: only the last of a bed may be higher. Print them all at once.`,
    );
  }
}

async function bodiesOf(
  wish: PlateAsked['of'][number],
  workshop: Workshop,
  { store, solids }: Kinds,
): Promise<OnPlate[]> {
  const job = await readJob(store.db, wish.jobId);
  if (wish.kind === 'ladder') {
    const ladder = job.history.ladders.find(l => l.id === wish.aidId);
    const mate = job.document.mates.find(m => m.id === ladder?.mateId);
    if (!ladder || mate?.kind !== 'fit') throw notFound('That ladder');
    const printer = printerOf({ printerId: ladder.printerId ?? '' }, workshop);
    return ladder.sizes.map((size, i) => ({
      of: { kind: 'ring', side: mate.side, sizes: ladder.sizes, number: i + 1 },
      name: `${job.number} ring ${i + 1}: ${size.toFixed(2)}`,
      pieces: 1,
      printer,
      material: materialFor(ladder.materialId, workshop),
      estimate: rungEstimate(mate.side, size, settingsOf(printer, 'usual'), machineOf(printer)),
      note: `Ring ${i + 1} measures ${size.toFixed(2)}.`,
    }));
  }
  if (wish.kind === 'gauge') {
    const gauge = job.history.gauges.find(g => g.id === wish.aidId);
    if (!gauge) throw notFound('That gauge');
    const printer = printerOf({ printerId: gauge.printerId ?? '' }, workshop);
    const of = { side: gauge.side, form: gauge.form, size: gauge.drawn };
    return [
      {
        of: { kind: 'gauge', ...of },
        name: `${job.number} gauge: ${gauge.drawn.toFixed(2)}`,
        pieces: 1,
        printer,
        material: materialFor(gauge.materialId, workshop),
        estimate: solidEstimate(
          gaugeVolume(of),
          GAUGE_HEIGHT,
          settingsOf(printer, 'usual'),
          machineOf(printer),
        ),
        note: `The gauge stands in for an object of ${gauge.drawn.toFixed(2)}: measure it before anything is tried on it.`,
      },
    ];
  }
  const version = job.history.versions.find(v => v.id === wish.versionId);
  if (!version) throw notFound('That version');
  const printer = printerOf(version, workshop);
  const material = materialFor(version.materialId, workshop);
  const name = versionName(job, version);
  const solid = await solids.built(version, { owner: job.id });
  if (!solid.ok) throw notBuildable(solid.findings[0]?.message);
  if (wish.kind === 'slice') {
    const slice = await sliceOfVersion(job, version, [wish.mateId], workshop, solids);
    if (!slice.ok) throw new HttpError(422, 'no-slice', slice.why);
    const { surface } = version.mates.find(m => m.mateId === wish.mateId)!;
    return [
      {
        of: { kind: 'slice', solid, pose: version.pose, surfaces: [surface] },
        name: `${name}, slice`,
        pieces: 1,
        printer,
        material,
        estimate: slice.estimate,
        note: `${name}: a slice, sizes compensated.`,
      },
    ];
  }
  const estimate = await estimateOfVersion(version, workshop, solids, job.id);
  if (!estimate) throw notBuildable();
  if (wish.hand !== 'drawn' && solid.record.surfaces.some(m => m.kind === 'thread'))
    throw new HttpError(
      422,
      'mirrored-thread',
      `“${name}” has a thread: mirrored it would turn the other way. Make its other hand on Shape instead.`,
    );
  return HANDS_OF[wish.hand].map(mirrored => ({
    of: { kind: 'part', solid, pose: version.pose, mirrored },
    name: mirrored ? `${name}, other hand` : name,
    pieces: wish.pieces,
    printer,
    material,
    estimate,
    note: `${name}${mirrored ? ', other hand' : ''}: sizes compensated.`,
  }));
}

/** The gap that was asked for, at least what the head needs. */
const gapOf = ({ apart }: PlateAsked, least: number): { gap?: number } =>
  apart !== undefined ? { gap: Math.max(apart, least) } : least > 0 ? { gap: least } : {};

/** By hand: for each of its bodies, whether it is mirrored. */
const HANDS_OF: Readonly<Record<Hand, readonly boolean[]>> = {
  drawn: [false],
  other: [true],
  both: [false, true],
};
