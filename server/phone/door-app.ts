import express, { type Express, type Request, type RequestHandler, type Router } from 'express';
import type { ServerEvent } from '../../contract/events';
import { Pair } from '../../contract/phone';
import { atMost, atMostWrong } from '../at-most';
import { errorHandler, HttpError, unknownRoute } from '../errors';
import { type Events, tabOfStream } from '../events';
import { hostAndOrigin, onlyOwnPage, securityHeaders } from '../guard';
import { type Log, logRequests } from '../log';
import { servePageAt } from '../page';
import type { Store } from '../store/database';
import { onlyForThumbs } from './allowed';
import { deviceOf, letIn } from './devices';
import { isNear, ownNames } from './network';
import type { Pairing } from './pairing';
import type { Visits } from './visits';

/** What is behind the phones' door: each rule refuses what the ones before it let through. */

const COOKIE = 'sagoma_phone';
/** A browser forgets a phone that was not used for this long, ms. */
const REMEMBERED = 180 * 24 * 3_600_000;
/** Requests per minute from one address, and wrong codes from one and in total. */
const MOST = { requests: 900, wrong: 12, wrongOfAll: 40 };
const NAMES = { phone: 'Phone', tablet: 'Tablet', computer: 'Computer' };

interface Needs {
  store: Store;
  events: Events;
  log: Log;
  pairing: Pairing;
  visits: Visits;
  /** The routes of the bench, of which a phone may use some. */
  api: Router;
  /** Folder of the built page. */
  page?: string;
}

export function createDoorApp({ store, events, log, pairing, visits, api, page }: Needs): Express {
  const door = express();
  door.disable('x-powered-by');
  door.use(securityHeaders);
  door.use(onlyNear);
  door.use(hostAndOrigin(ownNames));
  door.use(atMost(MOST.requests));
  door.use(logRequests(log));
  door.use(onlyOwnPage);

  const pair: RequestHandler = async (req, res) => {
    const { code, kind } = Pair.parse(req.body);
    pairing.redeem(code);
    const { device, token } = await letIn(store, NAMES[kind]);
    events.send({ kind: 'phones' });
    res.cookie(COOKIE, token, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: REMEMBERED });
    res.status(201).json(device);
  };
  door.post('/api/pair', ...atMostWrong(MOST.wrong, MOST.wrongOfAll), express.json({ limit: '2kb' }), pair);

  const knows = async (req: Request) => {
    const token = tokenOf(req);
    return token === null ? null : deviceOf(store, token);
  };
  const onlyPaired: RequestHandler = async (req, res, next) => {
    const device = await knows(req);
    if (!device)
      throw new HttpError(
        401,
        'not-paired',
        'This phone has no access: show a code on the workshop page and open it here.',
      );
    visits.begin(device.id, res);
    const { method, path } = req;
    res.on('finish', () => {
      const jobId = /^\/jobs\/(\w+)\/photos$/.exec(path)?.[1];
      if (jobId && method === 'POST' && res.statusCode === 201)
        events.send({ kind: 'photo', jobId, from: device.name });
    });
    next();
  };
  door.use('/api', onlyPaired, onlyForThumbs());
  door.get('/api/events', (req, res) => events.listen(req, res, tabOfStream(req), isForPhones));
  door.use('/api', api);

  door.get('/', async (req, res) => res.redirect((await knows(req)) ? '/phone' : '/pair'));
  if (page) servePageAt(door, page, ['/pair', '/phone', '/phone/:what']);
  door.use(unknownRoute);
  door.use(errorHandler(log));
  return door;
}

/** Nobody from outside this machine's own networks, whatever a router forwards. */
const onlyNear: RequestHandler = (req, _res, next) => {
  if (!isNear(req.socket.remoteAddress))
    throw new HttpError(403, 'not-near', 'Only phones on the same network are let in.');
  next();
};

/** Readings sent by an instrument at the bench belong to the bench. */
const isForPhones = ({ kind }: ServerEvent): boolean => kind === 'job' || kind === 'bench';

const tokenOf = ({ headers }: Request): string | null =>
  /(?:^|;\s*)sagoma_phone=([\w-]{43})(?:;|$)/.exec(headers.cookie ?? '')?.[1] ?? null;
