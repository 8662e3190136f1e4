import type { RequestHandler } from 'express';
import helmet from 'helmet';
import { HttpError } from './errors';

/**
 * Only pages that this server served may talk to it: another site's page could otherwise reach a server
 * on this machine through the maker's browser (by name rebinding or a plain cross-site post).
 * @param names hosts besides this machine's own that the maker asked to be reached by
 */
export function hostAndOrigin(names: readonly string[]): RequestHandler {
  const allowed = new Set(['localhost', '127.0.0.1', '[::1]', ...names]);
  return (req, _res, next) => {
    const host = req.headers.host ?? '';
    if (!allowed.has(hostName(host))) {
      throw new HttpError(403, 'wrong-host', 'This address is not one Sagoma answers to. Open it as http://localhost.');
    }
    const origin = req.headers.origin;
    if (origin !== undefined && !sameHost(origin, host)) {
      throw new HttpError(403, 'wrong-origin', 'Only Sagoma’s own page may ask for this.');
    }
    next();
  };
}

const hostName = (host: string) => host.replace(/:\d+$/, '');

function sameHost(origin: string, host: string): boolean {
  try {
    return new URL(origin).host === host;
  } catch {
    return false;
  }
}

/** Scripts and WebAssembly from here only; styled-components writes style elements. */
export const securityHeaders = helmet({
  contentSecurityPolicy: {
    useDefaults: false,
    directives: {
      defaultSrc: ["'self'"],
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      workerSrc: ["'self'", 'blob:'],
      connectSrc: ["'self'"],
      objectSrc: ["'none'"],
      baseUri: ["'none'"],
      formAction: ["'self'"],
      frameAncestors: ["'none'"],
    },
  },
  // Served over plain HTTP on this machine: there is nothing to upgrade to.
  strictTransportSecurity: false,
});
