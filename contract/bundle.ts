import { z } from 'zod';
import { JobView } from './jobs';

/**
 * The share bundle: a zip with `manifest.json`, one `jobs/<id>.json` per job and one `blobs/<sha256>` per file that its
 * prints name. Its form is fixed from the first release: a reader refuses a higher `schemaVersion`.
 */
export const BUNDLE_SCHEMA_VERSION = 1;

export const Sha256 = z.string().regex(/^[0-9a-f]{64}$/);

export const BundleManifest = z.object({
  format: z.literal('sagoma-bundle'),
  schemaVersion: z.number().int().positive(),
  application: z.object({ name: z.literal('Sagoma'), version: z.string() }),
  /** Whether sizes are compensated for the maker's own printer, or as designed. */
  contains: z.enum(['jobs', 'workshop']),
  jobs: z
    .array(
      z.object({
        id: z.string(),
        title: z.string(),
        revision: z.number().int(),
        path: z.string(),
        sha256: Sha256,
      }),
    )
    .max(500),
  blobs: z.array(z.object({ sha256: Sha256, size: z.number().int().min(0), path: z.string() })).max(5000),
  /** Files that the job names but that were missing or damaged when it was packed. */
  missing: z.array(Sha256).max(5000).optional(),
});
export const BundledJob = JobView;
export type BundleManifest = z.infer<typeof BundleManifest>;
