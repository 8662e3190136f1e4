import { pino } from 'pino';

/** Structured log on standard error; standard output belongs to the maker. */
export const createLog = () => pino({ level: process.env.SAGOMA_LOG ?? 'info' }, pino.destination(2));
export type Log = ReturnType<typeof createLog>;
