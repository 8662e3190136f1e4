import { useEffect, useRef, useSyncExternalStore } from 'react';
import { ServerEvent } from '../../contract/events';
import { tabId } from './client';
import { type FromEvents, type ToEvents, WINDOW_LOCK } from './events-protocol';
import { openLasting } from './lasting-source';

/** 'back': the stream was interrupted; events in between are unknown. */
export type PageEvent = ServerEvent | { kind: 'back' };

type Listener = (event: PageEvent) => void;

/** The server's events, once for the whole browser; the stream reconnects by itself. */
class Stream {
  private readonly listeners = new Set<Listener>();
  private readonly watchers = new Set<() => void>();
  private opened = false;
  connected = true;

  listen(listener: Listener): () => void {
    this.open();
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  }

  watch = (watcher: () => void) => {
    this.open();
    this.watchers.add(watcher);
    return () => this.watchers.delete(watcher);
  };

  private open(): void {
    if (this.opened) return;
    this.opened = true;
    if (typeof SharedWorker === 'undefined') this.openOwn();
    else this.openShared();
  }

  /** The stream that all windows of this browser share. */
  private openShared(): void {
    const worker = new SharedWorker(new URL('../workers/events-worker.ts', import.meta.url), {
      type: 'module',
      name: 'sagoma-events',
    });
    // Where the worker cannot start, this window has a stream of its own.
    worker.onerror = () => this.openOwn();
    worker.port.onmessage = ({ data }: MessageEvent<FromEvents>) => {
      if ('event' in data) this.send(ServerEvent.parse(data.event));
      else this.heardOf(data.connected);
    };
    const say = (said: ToEvents) => worker.port.postMessage(said);
    say({ come: tabId });
    // Held as long as this window lives, however it ends.
    void navigator.locks?.request(WINDOW_LOCK + tabId, { mode: 'shared' }, () => new Promise(() => {}));
    addEventListener('pagehide', () => say({ gone: true }));
    addEventListener('pageshow', event => event.persisted && say({ come: tabId }));
  }

  private openOwn(): void {
    openLasting(`/api/events?tab=${encodeURIComponent(tabId)}`, {
      told: event => this.send(ServerEvent.parse(event)),
      connected: now => this.heardOf(now),
    });
  }

  private heardOf(now: boolean): void {
    const wasGone = !this.connected;
    if (now === this.connected) return;
    this.set(now);
    // Events during the interruption are unknown: every listener fetches again.
    if (now && wasGone) this.send({ kind: 'back' });
  }

  private set(connected: boolean): void {
    this.connected = connected;
    for (const watcher of this.watchers) watcher();
  }

  private send(event: PageEvent): void {
    for (const listener of this.listeners) listener(event);
  }
}

export const stream = new Stream();

export function useStream(listener: Listener): void {
  const latest = useRef(listener);
  latest.current = listener;
  useEffect(() => stream.listen(event => latest.current(event)), []);
}

export const useConnected = () => useSyncExternalStore(stream.watch, () => stream.connected);
