/** A stream that the server refused is opened again after this time, ms. */
const AGAIN = 3000;

export interface Heard {
  /** The message, not checked yet. */
  told(event: unknown): void;
  connected(now: boolean): void;
}

/**
 * The server's events for as long as the page lives. Browsers reconnect by themselves after a broken connection, but
 * give up for good after a refusal: a phone that was removed, a passphrase that was not given yet.
 */
export function openLasting(url: string, heard: Heard, make = (at: string) => new EventSource(at)): void {
  const source = make(url);
  source.onmessage = ({ data }) => heard.told(JSON.parse(String(data)));
  source.onopen = () => heard.connected(true);
  source.onerror = () => {
    heard.connected(false);
    // 2: closed for good.
    if (source.readyState === 2) setTimeout(() => openLasting(url, heard, make), AGAIN);
  };
}
