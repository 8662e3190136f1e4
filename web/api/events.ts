import { useEffect, useRef, useSyncExternalStore } from 'react';
import { ServerEvent } from '../../contract/events';
import { tabId } from './client';

/** 'back': the stream was interrupted; events in between are unknown. */
export type PageEvent = ServerEvent | { kind: 'back' };

type Listener = (event: PageEvent) => void;

/** One stream for the whole page; the browser reconnects by itself. */
class Stream {
  private readonly listeners = new Set<Listener>();
  private readonly watchers = new Set<() => void>();
  private source: EventSource | undefined;
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
    if (this.source) return;
    this.source = new EventSource(`/api/events?tab=${encodeURIComponent(tabId)}`);
    this.source.onmessage = message => this.send(ServerEvent.parse(JSON.parse(message.data)));
    this.source.onopen = () => {
      const wasGone = !this.connected;
      this.set(true);
      // Events during the interruption are unknown: every listener fetches again.
      if (wasGone) this.send({ kind: 'back' });
    };
    this.source.onerror = () => this.set(false);
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
