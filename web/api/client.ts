import { ApiError } from '../../contract/errors';

/** What the server said no to, in its words. */
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

/** The server could not be reached at all: whatever was asked may be asked again. */
export class Unreachable extends Error {
  override message = 'Sagoma’s server does not answer. Is it still running?';
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

export async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  const raw = body instanceof Blob;
  let response: Response;
  try {
    response = await fetch(`/api${path}`, {
      method,
      headers: {
        'x-sagoma-tab': tabId,
        ...(body === undefined || raw ? {} : { 'content-type': 'application/json' }),
      },
      body: body === undefined ? undefined : raw ? body : JSON.stringify(body),
    });
  } catch {
    throw new Unreachable();
  }
  if (response.ok) return (await response.json()) as T;
  const said = ApiError.safeParse(await response.json().catch(() => null));
  if (!said.success)
    throw response.status >= 500
      ? new Unreachable()
      : new ServerSaid(response.status, 'unknown', `The server answered ${response.status}.`);
  const { code, message, path: at, details } = said.data.error;
  throw new ServerSaid(response.status, code, message, at, details);
}

export const get = <T>(path: string) => call<T>('GET', path);
export const post = <T>(path: string, body: unknown = {}) => call<T>('POST', path, body);
