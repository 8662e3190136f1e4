import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Express } from 'express';
import type { Reach } from '../../contract/phone';
import { HttpError } from '../errors';
import { ownAddresses } from './network';

/** A photo over a weak radio link takes a while; a request that never ends blocks nobody, ms. */
const LONGEST_REQUEST = 180_000;
const LONGEST_HEADERS = 15_000;
const MOST_CONNECTIONS = 80;

/**
 * A second door, for phones on the same network. It has a port of its own, so that its visitors are recognised by the
 * door and not by what they claim. It opens only when the maker asks for it.
 */
export class PhoneDoor {
  private server: Server | null = null;
  private turn: Promise<unknown> = Promise.resolve();

  /** @param wanted the port that is tried first; where it is taken, a free one */
  constructor(
    private readonly app: Express,
    private readonly wanted: number,
  ) {}

  get port(): number | null {
    return this.server ? (this.server.address() as AddressInfo).port : null;
  }

  /** The addresses for phones, by network; empty while the door is shut. */
  reach(): Reach[] {
    const { port } = this;
    if (port === null) return [];
    return ownAddresses().map(({ network, address }) => ({
      network,
      address,
      url: `http://${address}:${port}`,
    }));
  }

  /** @throws HttpError where the system does not allow it */
  open = (): Promise<void> =>
    this.inTurn(async () => {
      this.server ??= (await listening(this.app, this.wanted)) ?? (await listening(this.app, 0));
      if (!this.server)
        throw new HttpError(503, 'no-door', 'This computer lets no program take visitors: no port is free.');
    });

  shut = (): Promise<void> =>
    this.inTurn(async () => {
      const { server } = this;
      if (!server) return;
      this.server = null;
      const ended = new Promise(done => server.close(done));
      server.closeAllConnections();
      await ended;
    });

  /** Opened and shut one after the other, however often the switch is pressed. */
  private inTurn(work: () => Promise<void>): Promise<void> {
    const done = this.turn.then(work);
    this.turn = done.catch(() => undefined);
    return done;
  }
}

/** @returns null where the port is taken or not allowed */
function listening(app: Express, port: number): Promise<Server | null> {
  const server = createServer(app);
  server.requestTimeout = LONGEST_REQUEST;
  server.headersTimeout = LONGEST_HEADERS;
  server.maxConnections = MOST_CONNECTIONS;
  return new Promise(done => {
    server.once('error', () => done(null));
    server.listen(port, '0.0.0.0', () => done(server));
  });
}
