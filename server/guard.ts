import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { HttpError } from './errors';

/**
 * Only pages that this server served may talk to it: otherwise another site's page could reach a server on this machine
 * through the maker's browser (by DNS rebinding or a plain cross-site post).
 * @param names current hosts of this server besides this machine's own
 */
export function hostAndOrigin(names: () => readonly string[]): RequestHandler {
  return (req, _res, next) => {
    const host = req.headers.host ?? '';
    const name = hostName(host);
    if (!OWN.has(name) && !names().includes(name)) {
      throw new HttpError(
        403,
        'wrong-host',
        'This address is not one Sagoma answers to. Open it as http://localhost.',
      );
    }
    const origin = req.headers.origin;
    if (origin !== undefined && !sameHost(origin, host)) {
      throw new HttpError(403, 'wrong-origin', 'Only Sagoma’s own page may ask for this.');
    }
    next();
  };
}

const OWN = new Set(['localhost', '127.0.0.1', '[::1]']);
const hostName = (host: string) => host.replace(/:\d+$/, '').toLowerCase();

/** A changing request must state that it comes from our own page: browsers always do. */
export const onlyOwnPage: RequestHandler = (req, _res, next) => {
  if (!['GET', 'HEAD'].includes(req.method) && req.headers.origin === undefined)
    throw new HttpError(403, 'wrong-origin', 'Only Sagoma’s own page may ask for this.');
  next();
};

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host;
  } catch (error) {
    // A malformed address is refused.
    if (error instanceof TypeError) return false;
    throw error;
  }
}

const DIRECTIVES = {
  defaultSrc: ["'self'"],
  scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
  // styled-components writes style elements.
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:', 'blob:'],
  workerSrc: ["'self'", 'blob:'],
  connectSrc: ["'self'"],
  objectSrc: ["'none'"],
  baseUri: ["'none'"],
  formAction: ["'self'"],
  frameAncestors: ["'none'"],
};

const headers = (directives: typeof DIRECTIVES) =>
  helmet({
    contentSecurityPolicy: { useDefaults: false, directives },
    // Served over plain HTTP on this machine: there is nothing to upgrade to.
    strictTransportSecurity: false,
  });

/** Scripts and WebAssembly from here only. */
const forPage = headers(DIRECTIVES);
/** The geometry kernel's bindings make functions from text; a worker has no document that could be attacked. */
const forKernelWorker = headers({ ...DIRECTIVES, scriptSrc: [...DIRECTIVES.scriptSrc, "'unsafe-eval'"] });

export const securityHeaders: RequestHandler = (req, res, next) =>
  (/^\/assets\/solid-worker-[\w-]+\.js$/.test(req.path) ? forKernelWorker : forPage)(req, res, next);
