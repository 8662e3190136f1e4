import { request } from 'node:http';

export interface Knock {
  method?: string;
  path: string;
  headers?: Record<string, string>;
  body?: object | Uint8Array;
  /** Receives the data as it comes. */
  hear?(text: string): void;
}

/** A request exactly as given: a browser's own functions would not allow made-up `Host` and `Origin` headers. */
export function knock(
  port: number,
  { method = 'GET', path, headers = {}, body, hear }: Knock,
): Promise<{ status: number; headers: Record<string, string | string[] | undefined>; text: string }> {
  const bytes =
    body === undefined ? undefined : body instanceof Uint8Array ? body : Buffer.from(JSON.stringify(body));
  return new Promise((done, fail) => {
    const asked = request(
      {
        host: '127.0.0.1',
        port,
        // Each over a connection of its own.
        agent: false,
        method,
        path,
        headers: {
          host: `127.0.0.1:${port}`,
          ...(body === undefined || body instanceof Uint8Array ? {} : { 'content-type': 'application/json' }),
          ...(bytes ? { 'content-length': String(bytes.length) } : {}),
          ...headers,
        },
      },
      answer => {
        let text = '';
        answer.setEncoding('utf8');
        answer.on('data', part => {
          text += String(part);
          hear?.(text);
        });
        answer.on('end', () => done({ status: answer.statusCode ?? 0, headers: answer.headers, text }));
        answer.on('error', fail);
      },
    );
    asked.on('error', fail);
    asked.end(bytes);
  });
}
