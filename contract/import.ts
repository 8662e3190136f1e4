import { z } from 'zod';

/** What becomes of a job that is here already and in the bundle too. */
export const IMPORT_CHOICES = ['theirs', 'merge', 'both', 'ours'] as const;
export type ImportChoice = (typeof IMPORT_CHOICES)[number];

/** What the maker chose, by job; a job that is not named gets what loses nothing. */
export type ImportChoices = ReadonlyMap<string, ImportChoice>;

/** The choices as an address carries them: `choose=JOB:both`, once a job. */
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
      /** Not here yet, here just so, or here otherwise. */
      here: z.enum(['no', 'same', 'otherwise']),
      differences: z.array(z.object({ what: z.string(), here: z.string(), there: z.string() })),
      /** What can be done without losing anything, what is done unasked first. */
      choices: z.array(z.enum(IMPORT_CHOICES)),
      /** Why the two cannot be made one, where they cannot. */
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
  /** Files that the bundle left out, since they were missing where it was made. */
  missing: z.number().int().default(0),
});
export type ImportAnswer = z.infer<typeof ImportAnswer>;
