import { z } from 'zod';

/** What to do with a job that exists here and is also in the bundle. */
export const IMPORT_CHOICES = ['theirs', 'merge', 'both', 'ours'] as const;
export type ImportChoice = (typeof IMPORT_CHOICES)[number];

/** The maker's choice, by job; a job that is not named gets the one that loses nothing. */
export type ImportChoices = ReadonlyMap<string, ImportChoice>;

/** The choices in the form of an address: `choose=JOB:both`, once per job. */
export const ChoicesAsked = z
  .union([z.string(), z.array(z.string()).max(500)])
  .default([])
  .transform((asked, context): ImportChoices => {
    const pairs = [asked].flat().map(one => one.split(':', 2) as [string, ImportChoice]);
    if (pairs.some(([, choice]) => !IMPORT_CHOICES.includes(choice)))
      context.addIssue(`A choice is JOB:${IMPORT_CHOICES.join(', JOB:')}.`);
    return new Map(pairs);
  });

/** What an import would do, job by job; nothing was written. */
export const ImportLook = z.object({
  jobs: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      /** Not here yet, here and equal, or here and different. */
      here: z.enum(['no', 'same', 'otherwise']),
      differences: z.array(z.object({ what: z.string(), here: z.string(), there: z.string() })),
      /** What can be done without losing anything, the default first. */
      choices: z.array(z.enum(IMPORT_CHOICES)),
      /** Why the two cannot be merged, where they cannot. */
      clash: z.string().nullable(),
    }),
  ),
});
export type ImportLook = z.infer<typeof ImportLook>;

/** What an import did, job by job. */
export const ImportAnswer = z.object({
  jobs: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      outcome: z.enum(['added', 'updated', 'merged', 'same', 'kept-ours', 'kept-both']),
      message: z.string(),
    }),
  ),
  /** Files that the bundle lacks, since they were missing where it was made. */
  missing: z.number().int().default(0),
});
export type ImportAnswer = z.infer<typeof ImportAnswer>;
