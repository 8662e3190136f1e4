import { createHash, randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';
import express, { type Request, type RequestHandler, type Response, Router } from 'express';
import { atMostWrong } from './at-most';
import { HttpError } from './errors';

/**
 * Visitors from another machine are asked for the workshop's passphrase, once per browser. The passphrase itself is not
 * stored: only its slow hash, in memory; so are the sessions, which end with the server.
 */

export const SHORTEST_PASSPHRASE = 8;
const COOKIE = 'sagoma_session';
/** A browser is remembered for this long, s. */
const REMEMBERED = 30 * 24 * 3600;
/** Wrong answers per minute, from one address and in total. */
const MOST_WRONG = { one: 5, all: 40 };
/** scrypt's cost: some 100 ms and 32 MB per attempt. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64e6 };

export function passphraseGate(passphrase: string): Router {
  const salt = randomBytes(16);
  const slow = (text: string) => scryptSync(text.normalize('NFKC'), salt, 32, COST);
  const wanted = slow(passphrase);
  const sessions = new Set<string>();
  const key = (token: string) => createHash('sha256').update(token).digest('hex');

  const enter: RequestHandler = (req, res) => {
    const said: unknown = (req.body as { passphrase?: unknown } | undefined)?.passphrase;
    if (typeof said !== 'string' || said.length > 200 || !timingSafeEqual(slow(said), wanted))
      return ask(res.status(401), 'That is not the passphrase.');
    const token = randomBytes(32).toString('base64url');
    sessions.add(key(token));
    res.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: REMEMBERED * 1000 });
    return res.redirect(303, '/');
  };

  const router = Router();
  const tooOften = {
    handler: (_req: Request, res: Response) => ask(res.status(429), 'Too many wrong answers: wait a minute.'),
  };
  router.post(
    '/enter',
    ...atMostWrong(MOST_WRONG.one, MOST_WRONG.all, tooOften),
    express.urlencoded({ extended: false, limit: '2kb' }),
    enter,
  );
  router.use((req, res, next) => {
    const token = cookieOf(req);
    if (token !== null && sessions.has(key(token))) return next();
    if (req.path.startsWith('/api'))
      throw new HttpError(
        401,
        'passphrase',
        'This browser has not given the workshop’s passphrase yet: reload the page.',
      );
    ask(res.status(401), '');
  });
  return router;
}

function cookieOf({ headers }: Request): string | null {
  const found = /(?:^|;\s*)sagoma_session=([\w-]{20,100})/.exec(headers.cookie ?? '');
  return found?.[1] ?? null;
}

function ask(res: Response, problem: string): void {
  res.set({ 'content-type': 'text/html; charset=utf-8', 'cache-control': 'no-store' }).end(`<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>Sagoma</title>
<style>body{font:16px/1.5 sans-serif;background:#f3f0e8;color:#1f242b;display:grid;place-items:center;min-height:90vh;margin:0}
form{background:#fcfaf6;border:1px solid #d6d0c2;border-radius:6px;padding:24px;display:grid;gap:12px;width:min(340px,80vw)}
input,button{font:inherit;padding:8px 10px;border-radius:4px;border:1px solid #8a8f98}button{background:#1f3d66;color:#fff;border:0}
p{margin:0;color:#9b2c1f}</style>
<form method="post" action="/enter"><label for="p">The workshop’s passphrase</label>
<input id="p" name="passphrase" type="password" autocomplete="current-password" autofocus required maxlength="200">
${problem ? `<p role="alert">${problem}</p>` : ''}<button>Come in</button></form></html>`);
}

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '::1']);
export const isThisMachine = (host: string): boolean => LOOPBACK.has(host);
