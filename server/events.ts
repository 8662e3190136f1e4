import type { Request, Response } from 'express';
import type { ServerEvent } from '../contract/events';

/** A window counts as open for this long after its last request, ms. */
const PRESENCE = 10_000;
const HEARTBEAT = 15_000;

/** The owner of an edit that no window made, such as an import: any window may undo it. */
export const NO_WINDOW = 'no window';

/** The window that a stream is for. */
export const tabOfStream = (req: Request): string => String(req.query.tab ?? 'script').slice(0, 60);

interface Listener {
  tab: string;
  wants(event: ServerEvent): boolean;
}

/** Server-sent events to every open window, and which windows are open. */
export class Events {
  private readonly windows = new Map<Response, Listener>();
  private readonly heard = new Map<string, number>();
  private readonly started = Date.now();
  private readonly pulse = setInterval(() => {
    for (const res of this.windows.keys()) res.write(': still here\n\n');
    for (const [tab, at] of this.heard) if (Date.now() - at > PRESENCE) this.heard.delete(tab);
  }, HEARTBEAT).unref();

  listen(req: Request, res: Response, tab: string, wants: Listener['wants'] = () => true): void {
    res.writeHead(200, {
      'content-type': 'text/event-stream',
      'cache-control': 'no-store',
      connection: 'keep-alive',
      'x-accel-buffering': 'no',
    });
    res.write('retry: 1000\n\n');
    this.windows.set(res, { tab, wants });
    this.hear(tab);
    req.on('close', () => {
      this.windows.delete(res);
      this.hear(tab);
    });
  }

  hear(tab: string): void {
    this.heard.set(tab, Date.now());
  }

  /** Whether another window may still want to undo its own edits. */
  isOpen(tab: string): boolean {
    if (tab === NO_WINDOW) return false;
    // Just after a start no window has reconnected yet: every window counts as open.
    if (Date.now() - this.started < PRESENCE) return true;
    return (
      [...this.windows.values()].some(w => w.tab === tab) ||
      Date.now() - (this.heard.get(tab) ?? 0) < PRESENCE
    );
  }

  send(event: ServerEvent): void {
    const line = `data: ${JSON.stringify(event)}\n\n`;
    for (const [res, { wants }] of this.windows) if (wants(event)) res.write(line);
  }

  close(): void {
    clearInterval(this.pulse);
    for (const res of this.windows.keys()) res.end();
    this.windows.clear();
  }
}
