/** What windows and the worker that holds their one stream say to each other. */
export type FromEvents = { event: unknown } | { connected: boolean };
/** A window comes, with its own name, or goes. */
export type ToEvents = { come: string } | { gone: true };

/** Each window holds a lock of this name as long as it lives, so that one that crashed is no longer counted. */
export const WINDOW_LOCK = 'sagoma-window ';
