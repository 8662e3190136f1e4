import { z } from 'zod';

/** The one shape of every error, over HTTP and on the command line. */
export const ApiError = z.object({
  error: z.object({
    code: z.string(),
    message: z.string(),
    /** The field that is wrong, if any: "dimensions.0.readings". */
    path: z.string().optional(),
    /** For a conflict: the state of the other side. */
    details: z.unknown().optional(),
  }),
});
export type ApiError = z.infer<typeof ApiError>;

/** The first problem that Zod found, as one of our errors. */
export function errorOfZod(error: z.ZodError): ApiError['error'] {
  const issue = error.issues[0];
  const path = issue?.path.map(String).join('.') ?? '';
  return {
    code: 'bad-input',
    message: issue ? withPath(issue.message, path) : 'The input is not understood.',
    path: path || undefined,
  };
}

/** Zod's own sentences do not name the field; ours end with a full stop and need no addition. */
const withPath = (message: string, path: string) =>
  message.endsWith('.') || !path ? message : `${path}: ${message}`;
