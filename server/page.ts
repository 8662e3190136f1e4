import express, { type Express, type RequestHandler } from 'express';
import expressStaticGzip from 'express-static-gzip';
import { unknownRoute } from './errors';

/** The built page's files, compressed where the browser accepts that. */
const files = (page: string): RequestHandler =>
  expressStaticGzip(page, {
    enableBrotli: true,
    orderPreference: ['br'],
    serveStatic: {
      setHeaders: (res, path) => {
        // Built files carry a hash in their name; the page itself does not.
        res.setHeader(
          'cache-control',
          path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
        );
      },
    },
  });

const sendPage =
  (page: string): RequestHandler =>
  (_req, res) =>
    res.sendFile('index.html', { root: page, headers: { 'cache-control': 'no-cache' } });

/** The page at every address that is not one of its files. */
export function servePage(server: Express, page: string): void {
  server.use(files(page));
  server.get('/{*path}', (req, res, next) => {
    // A missing file, from a page before an update, is not answered with the page.
    if (!req.accepts('html') || req.path.startsWith('/assets/') || /\.\w+$/.test(req.path)) return next();
    return sendPage(page)(req, res, next);
  });
  server.use(unknownRoute);
}

/** The page at these addresses only. */
export function servePageAt(server: Express, page: string, paths: string[]): void {
  server.get(paths, sendPage(page));
  const assets = express.Router();
  assets.use('/assets', files(`${page}/assets`));
  server.use(assets);
}
