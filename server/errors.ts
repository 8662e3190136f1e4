import type { ErrorRequestHandler, RequestHandler } from 'express';
import { ZodError } from 'zod';
import { type ApiError, errorOfZod } from '../contract/errors';
import { EditRefused } from '../core/job/edits/tools';
import { isKernelCrash, KERNEL_CRASHED } from '../core/shape/kernels/kernel';
import type { Log } from './log';
import { Busy, Cancelled, TookTooLong, TooMuchMemory } from './solids/pool';
import { FolderGone } from './store/database';

/** An error that the caller can do something about. */
export class HttpError extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message);
  }
}

export const notFound = (what: string) =>
  new HttpError(404, 'not-found', `${what} is not here. It may have been removed.`);

export const unknownRoute: RequestHandler = req => {
  throw new HttpError(404, 'no-route', `There is nothing at ${req.method} ${req.path}.`);
};

/** Every failure leaves in the one error shape; unexpected ones are logged and not shown. */
export function errorHandler(log: Log): ErrorRequestHandler {
  return (error, req, res, next) => {
    if (res.headersSent) return next(error);
    const { status, body } = answerFor(error);
    if (status >= 500) log.error({ err: error, method: req.method, path: req.path }, 'request failed');
    res.status(status).json({ error: body });
  };
}

function answerFor(error: unknown): { status: number; body: ApiError['error'] } {
  if (error instanceof HttpError) {
    return {
      status: error.status,
      body: { code: error.code, message: error.message, details: error.details },
    };
  }
  if (error instanceof ZodError) return { status: 400, body: errorOfZod(error) };
  if (error instanceof EditRefused)
    return { status: 422, body: { code: 'edit-refused', message: error.message } };
  if (error instanceof Cancelled) return { status: 409, body: { code: 'cancelled', message: error.message } };
  if (error instanceof TookTooLong || error instanceof TooMuchMemory)
    return {
      status: 422,
      body: {
        code: error instanceof TookTooLong ? 'took-too-long' : 'too-much-memory',
        message: error.message,
      },
    };
  if (error instanceof Busy) return { status: 503, body: { code: 'busy', message: error.message } };
  if (isKernelCrash(error)) return { status: 422, body: { code: 'kernel-failed', message: KERNEL_CRASHED } };
  if (error instanceof FolderGone)
    return { status: 507, body: { code: 'folder-gone', message: error.message } };
  const disk = diskProblem(error);
  if (disk) return { status: 507, body: disk };
  const known = error as { type?: string; status?: number; name?: string; message?: string };
  if (known.type === 'entity.too.large') {
    return {
      status: 413,
      body: { code: 'too-large', message: 'That is larger than Sagoma takes in one go.' },
    };
  }
  if (known.type === 'entity.parse.failed') {
    return { status: 400, body: { code: 'bad-json', message: 'The request is not valid JSON.' } };
  }
  if (known.status === 415)
    return {
      status: 415,
      body: { code: 'bad-encoding', message: 'Send plain UTF-8: this charset or encoding is not read.' },
    };
  if (known.status === 400)
    return { status: 400, body: { code: 'bad-request', message: 'The request could not be read.' } };
  return {
    status: 500,
    body: { code: 'internal', message: 'Sagoma failed at this. Nothing was changed; try again.' },
  };
}

/** Where nothing can be written: what the maker can do about it. SQLite reports it by its own codes. */
function diskProblem(error: unknown): ApiError['error'] | null {
  const codes: string[] = [];
  for (let e = error as { code?: string; cause?: unknown } | undefined; e; e = e.cause as typeof e)
    if (typeof e.code === 'string') codes.push(e.code);
  const is = (...wanted: string[]) => codes.some(c => wanted.some(w => c.startsWith(w)));
  if (is('ENOSPC', 'EDQUOT', 'SQLITE_FULL'))
    return {
      code: 'disk-full',
      message: 'The disk is full: nothing was changed. Make room on it, then do this again.',
    };
  if (is('EROFS', 'EACCES', 'EPERM', 'SQLITE_READONLY', 'SQLITE_CANTOPEN', 'SQLITE_IOERR'))
    return {
      code: 'disk-read-only',
      message:
        'Sagoma cannot write to its data folder: nothing was changed. Give it the right to, then do this again.',
    };
  return null;
}
