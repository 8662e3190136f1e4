import { z } from 'zod';
import { Calibration } from '../core/job/workshop';

/** A printer's profile as a file of its own. A reader refuses a higher `schemaVersion`. */
export const PROFILE_SCHEMA_VERSION = 1;

export const ProfileFile = z.object({
  format: z.literal('sagoma-printer-profile', { error: 'This is not a printer profile of Sagoma’s.' }),
  schemaVersion: z
    .number()
    .int()
    .positive()
    .max(PROFILE_SCHEMA_VERSION, 'This profile was written by a newer Sagoma: update to read it.'),
  printer: z.object({ name: z.string().max(80), nozzle: z.number().min(0.1).max(2) }),
  plastic: z.object({ name: z.string().max(80), polymer: z.string().max(40).optional() }),
  calibration: Calibration.omit({ id: true, printerId: true, materialId: true }),
});
export type ProfileFile = z.infer<typeof ProfileFile>;

/** The result of importing a profile. */
export const ImportedProfile = z.object({
  id: z.string(),
  /** What could not be matched and should be checked. */
  notes: z.array(z.string()),
});
export type ImportedProfile = z.infer<typeof ImportedProfile>;
