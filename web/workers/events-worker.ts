import { type FromEvents, type ToEvents, WINDOW_LOCK } from '../api/events-protocol';
import { openLasting } from '../api/lasting-source';

/**
 * One stream of events for all windows of a browser: over HTTP/1.1 a browser opens six connections to a server, and a
 * stream in each window would use them all. It also tells the server which windows are open.
 */
/** The server counts a window as open for ten seconds after its last message, ms. */
const TELL_EVERY = 4000;

const windows = new Map<MessagePort, string>();
let opened = false;
let connected = true;

const tell = (said: FromEvents) => {
  for (const port of windows.keys()) port.postMessage(said);
};

function open(): void {
  if (opened) return;
  opened = true;
  openLasting('/api/events?tab=all', { told: event => tell({ event }), connected: connect });
}

function connect(now: boolean): void {
  connected = now;
  tell({ connected });
  if (now) void tellPresence();
}

async function openWindows(): Promise<string[]> {
  // Locks exist only where the page is served to this machine, or over HTTPS.
  if (!navigator.locks) return [...windows.values()];
  const { held = [] } = await navigator.locks.query();
  return held.flatMap(({ name }) => (name?.startsWith(WINDOW_LOCK) ? [name.slice(WINDOW_LOCK.length)] : []));
}

async function tellPresence(): Promise<void> {
  const tabs = await openWindows();
  if (tabs.length === 0 || !connected) return;
  await fetch('/api/presence', {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ tabs: tabs.slice(0, 200) }),
  }).catch(() => undefined);
}

setInterval(() => void tellPresence(), TELL_EVERY);

addEventListener('connect', event => {
  const port = (event as MessageEvent).ports[0]!;
  port.onmessage = ({ data }: MessageEvent<ToEvents>) => {
    if ('gone' in data) {
      windows.delete(port);
      return;
    }
    windows.set(port, data.come);
    open();
    port.postMessage({ connected } satisfies FromEvents);
    void tellPresence();
  };
});
