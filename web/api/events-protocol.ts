/** Messages between windows and the worker that holds their one stream. */
export type FromEvents = { event: unknown } | { connected: boolean };
/** A window arrives, with its own name, or leaves. */
export type ToEvents = { come: string } | { gone: true };

/** Each window holds a lock of this name as long as it lives, so that a crashed one is no longer counted. */
export const WINDOW_LOCK = 'sagoma-window ';
