import type { RequestHandler } from 'express';
import { pino } from 'pino';

/** Structured log on standard error; standard output belongs to the maker. */
export const createLog = () => pino({ level: process.env.SAGOMA_LOG ?? 'info' }, pino.destination(2));
export type Log = ReturnType<typeof createLog>;

/** Each data request: its path, never its content. */
export const logRequests =
  (log: Log): RequestHandler =>
  (req, res, next) => {
    const start = performance.now();
    const { method, path } = req;
    res.on('finish', () => {
      if (path.startsWith('/api'))
        log.info(
          { method, path, status: res.statusCode, ms: Math.round(performance.now() - start) },
          'request',
        );
    });
    next();
  };
