import type { RequestHandler } from 'express';
import { type Options, rateLimit } from 'express-rate-limit';
import { HttpError } from './errors';

/** At most this many requests per minute from one address, unless `more` says otherwise. */
export const atMost = (limit: number, more: Partial<Options> = {}): RequestHandler =>
  rateLimit({
    windowMs: 60_000,
    limit,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw new HttpError(429, 'too-often', 'Too many requests: wait a minute, then try again.');
    },
    ...more,
  });

/** Guesses at a secret: wrong ones are counted, per address and in total. They are counted before they are checked. */
export const atMostWrong = (
  each: number,
  all: number,
  more: Partial<Options> = {},
): [RequestHandler, RequestHandler] => [
  atMost(each, { skipSuccessfulRequests: true, ...more }),
  atMost(all, { skipSuccessfulRequests: true, keyGenerator: () => 'everybody', ...more }),
];
