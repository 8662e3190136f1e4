import { proxy, wrap } from 'comlink';
import { ulid } from 'ulid';
import { z } from 'zod';
import { type JobDocument, Model, type Reading } from '../../core/job/document';
import type { Edit } from '../../core/job/edits';
import type { Scan } from '../../core/job/scans';
import { scannedReading } from '../../core/scan/scanned-reading';
import type { Lay } from '../../core/shape/laid-object';
import type { ParameterSpec } from '../../core/shape/recipes/parameters';
import type { Recipe } from '../../core/shape/recipes/recipe';
import { preparedAs } from '../../core/work/scan-trust';
import { call } from '../api/client';
import type { FollowAsked, FollowedSurface, ScanApi, ScanReply } from '../workers/scan-protocol';

/** Guide steps that a scan answers by its bounding box. */
const BOX_STEPS = { width: 'width', length: 'length', high: 'high' } as const;

type Reads = (asked: FollowAsked) => Promise<ScanReply<{ surface: FollowedSurface }> | null>;

/** With a worker that is made for it and ends with it: used where the scan is not open on the page. */
const byItself =
  (jobId: string, { scans }: JobDocument, scan: Scan): Reads =>
  async asked => {
    const worker = new Worker(new URL('../workers/scan-worker.ts', import.meta.url), { type: 'module' });
    try {
      const api = wrap<ScanApi>(worker);
      const others = scans.filter(s => s.id !== scan.id).map(s => ({ ...s, jobId }));
      const { unit, steps } = scan;
      const from = { jobId, scanId: scan.id };
      const opened = await api.open(
        { from, unit, steps, others },
        proxy(() => {}),
      );
      return opened.ok ? await api.surface(asked) : opened;
    } finally {
      worker.terminate();
    }
  };

/** The parameter of a recipe that is the object its part follows; undefined where it follows none. */
export const followedBy = (recipe: Pick<Recipe, 'parameters'>) =>
  recipe.parameters.find(s => s.kind === 'model' && s.surface);

interface Follows extends Omit<Lay, 'object'> {
  partId: string;
  spec: Pick<ParameterSpec, 'name'>;
  /** Where the scan is open already. */
  reads?: Reads | undefined;
}

/**
 * Edits that make a part follow a scan in its prepared state, in order: the thinned surface was sent to the server and
 * becomes a body of the job. @throws Error with words for the maker
 */
export async function followEdits(
  jobId: string,
  document: JobDocument,
  scan: Scan,
  { partId, spec, reads = byItself(jobId, document, scan), ...lay }: Follows,
): Promise<Edit[]> {
  const reply = await reads({ ...lay, factor: scan.trust?.factor ?? 1 });
  if (!reply) return [];
  if (!reply.ok) throw new Error(reply.message);
  const path = `/models?as=surface&label=${encodeURIComponent(scan.label)}`;
  const stl = new Blob([reply.surface.stl as BlobPart]);
  const { model } = await call('POST', path, z.object({ model: Model }), stl);
  const readings = boxReadings(document, scan, reply.surface);
  return [
    { kind: 'add-model', model: { ...model, from: { scan: scan.id, prepared: preparedAs(scan) } } },
    ...(readings ? [readings] : []),
    { kind: 'parameter', partId, name: spec.name, expression: { text: model.id, unit: 'none' } },
  ];
}

/** The scan's sizes for the steps of the part's guide; readings that exist already are not added twice. */
function boxReadings(document: JobDocument, scan: Scan, surface: FollowedSurface): Edit | null {
  const readings = document.dimensions.flatMap(d => {
    const step = d.guide as keyof typeof BOX_STEPS;
    if (!d.guide || !(step in BOX_STEPS)) return [];
    if (d.readings.some(r => r.scanned?.scan === scan.id && r.struck === null)) return [];
    return [{ dimensionId: d.id, reading: boxReading(scan, surface[BOX_STEPS[step]], surface.u) }];
  });
  return readings.length > 0 ? { kind: 'add-readings', readings } : null;
}

/** The surface already has its true size. */
const boxReading = (scan: Scan, value: number, u: number): Reading =>
  scannedReading({
    id: ulid(),
    at: new Date().toISOString(),
    value: value / (scan.trust?.factor ?? 1),
    u,
    place: { scan: scan.id, kind: 'across', near: [0, 0, 0] },
  });
