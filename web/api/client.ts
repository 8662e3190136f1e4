import type { z } from 'zod';
import { ApiError } from '../../contract/errors';

/** The server refused, with its own words. */
export class ServerSaid extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly path?: string,
    readonly details?: unknown,
  ) {
    super(message);
  }
}

/** The server could not be reached: the request may be sent again. */
export class Unreachable extends Error {
  override message = 'Sagoma’s server does not answer. Is it still running?';
}

/** The server's answer does not match this page's version. */
export class UnknownAnswer extends Error {
  override message =
    'The server’s answer is not what this page expects: they are of different versions. Reload the page.';
}

const KEY = 'sagoma.tab';

/** This window's name, kept over a reload: a window undoes its own edits. */
export const tabId: string = (() => {
  const kept = sessionStorage.getItem(KEY);
  if (kept) return kept;
  const made = crypto.randomUUID?.() ?? `${Date.now()}-${Math.floor(Math.random() * 1e9)}`;
  sessionStorage.setItem(KEY, made);
  return made;
})();

/** @param schema what the answer must be @throws ServerSaid, Unreachable, UnknownAnswer */
export async function call<T>(
  method: string,
  path: string,
  schema: z.ZodType<T>,
  body?: unknown,
): Promise<T> {
  const response = await reach(method, path, body);
  if (!response.ok) throw await refusal(response);
  const answer = schema.safeParse(await response.json());
  if (!answer.success) throw new UnknownAnswer();
  return answer.data;
}

/** Downloads a file that the server makes, under the server's name for it. @throws ServerSaid, Unreachable */
export async function fileFrom(
  method: string,
  path: string,
  body?: unknown,
): Promise<{ content: Blob; name: string | undefined; headers: Headers }> {
  const response = await reach(method, path, body);
  if (!response.ok) throw await refusal(response);
  const name = /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1];
  return { content: await response.blob(), name, headers: response.headers };
}

async function reach(method: string, path: string, body: unknown): Promise<Response> {
  const raw = body instanceof Blob;
  try {
    return await fetch(`/api${path}`, {
      method,
      headers: {
        'x-sagoma-tab': tabId,
        ...(body === undefined || raw ? {} : { 'content-type': 'application/json' }),
      },
      body: body === undefined ? undefined : raw ? body : JSON.stringify(body),
    });
  } catch (error) {
    // A browser gives no more detail about a failed connection.
    if (error instanceof TypeError) throw new Unreachable();
    throw error;
  }
}

async function refusal(response: Response): Promise<Error> {
  const said = ApiError.safeParse(await response.json().catch(() => null));
  if (!said.success)
    return response.status >= 500
      ? new Unreachable()
      : new ServerSaid(response.status, 'unknown', `The server answered ${response.status}.`);
  const { code, message, path: at, details } = said.data.error;
  return new ServerSaid(response.status, code, message, at, details);
}

export const get = <T>(path: string, schema: z.ZodType<T>) => call('GET', path, schema);
export const post = <T>(path: string, schema: z.ZodType<T>, body: unknown = {}) =>
  call('POST', path, schema, body);
