import express, { Router } from 'express';
import { z } from 'zod';
import { DeviceName, type PhoneDoor as DoorAnswer, type OnBench } from '../../contract/phone';
import { HttpError } from '../errors';
import type { Events } from '../events';
import type { Store } from '../store/database';
import { listDevices, renameDevice, sendAway } from './devices';
import type { PhoneDoor } from './door';
import type { OnBench as Bench } from './on-bench';
import type { Pairing } from './pairing';
import type { Visits } from './visits';

interface Needs {
  store: Store;
  events: Events;
  door: PhoneDoor;
  pairing: Pairing;
  visits: Visits;
}

/** The door for phones, controlled by the maker: at the bench, never from a phone. */
export function phoneRoutes({ store, events, door, pairing, visits }: Needs): Router {
  const router = Router();
  router.use(express.json({ limit: '10kb' }));
  const state = async (): Promise<DoorAnswer> => ({
    open: door.port !== null,
    port: door.port,
    reach: door.reach(),
    devices: await listDevices(store),
  });

  router.get('/', async (_req, res) => {
    res.json(await state());
  });

  router.put('/', async (req, res) => {
    const { open } = z.object({ open: z.boolean() }).parse(req.body);
    if (open) await door.open();
    else {
      pairing.withdraw();
      await door.shut();
    }
    events.send({ kind: 'phones' });
    res.json(await state());
  });

  router.post('/codes', (_req, res) => {
    if (door.port === null)
      throw new HttpError(409, 'door-shut', 'Phones are not let in at present: switch that on first.');
    res.status(201).set('cache-control', 'no-store').json(pairing.make());
  });

  router.delete('/codes', (_req, res) => {
    pairing.withdraw();
    res.json({ withdrawn: true });
  });

  router.put('/devices/:id', async (req, res) => {
    await renameDevice(store, req.params.id, DeviceName.parse(req.body).name);
    events.send({ kind: 'phones' });
    res.json(await state());
  });

  router.delete('/devices/:id', async (req, res) => {
    await sendAway(store, req.params.id);
    visits.end(req.params.id);
    events.send({ kind: 'phones' });
    res.json(await state());
  });

  return router;
}

export function onBenchRoutes(onBench: Bench): Router {
  const router = Router();
  const state = async (): Promise<OnBench> => ({ jobId: await onBench.read() });
  router.get('/', async (_req, res) => {
    res.json(await state());
  });
  router.put('/', async (req, res) => {
    onBench.put(z.object({ jobId: z.string().max(40) }).parse(req.body).jobId);
    res.json(await state());
  });
  return router;
}
