import { z } from 'zod';
import { JOB_SCHEMA_VERSION, JobDocument, PLAIN_PART } from './document';

/** Older documents, one function a step: the function at n takes schema n to n + 1. */
const UPGRADES: Record<number, (old: Record<string, unknown>) => Record<string, unknown>> = {
  1: old => ({
    ...old,
    object: { ...(old.object as object), goneAt: null, toRead: [] },
    photos: [],
    threads: [],
  }),
  2: old => ({
    ...old,
    models: [],
    parts: (old.parts as object[]).map(part => ({ ...part, ...PLAIN_PART })),
  }),
  // At that time every mate was a fit.
  3: old => old,
  // At that time a pose was one of three names; reading it makes a rotation of it.
  4: old => old,
  5: old => ({ ...old, scans: [] }),
};

/**
 * Reads a stored document of any schema up to ours.
 * @throws RangeError for a newer schema; ZodError for a broken document
 */
export function readJobDocument(stored: unknown): JobDocument {
  let document = z.looseObject({ schemaVersion: z.number().int() }).parse(stored) as Record<
    string,
    unknown
  > & {
    schemaVersion: number;
  };
  if (document.schemaVersion > JOB_SCHEMA_VERSION) {
    throw new RangeError(
      `This job was made by a newer Sagoma (schema ${document.schemaVersion}, ours is ${JOB_SCHEMA_VERSION}): update Sagoma to open it.`,
    );
  }
  while (document.schemaVersion < JOB_SCHEMA_VERSION) {
    const upgrade = UPGRADES[document.schemaVersion];
    if (!upgrade) throw new RangeError(`No upgrade from job schema ${document.schemaVersion}.`);
    document = { ...upgrade(document), schemaVersion: document.schemaVersion + 1 };
  }
  return JobDocument.parse(document);
}
