import { Router } from 'express';
import { DeviceReading } from '../../contract/device';
import type { App } from '../context';

/** A caliper's bridge (a script, a radio dongle's driver) posts its numbers here, one at a time. */
export function deviceRoutes({ events }: App): Router {
  const router = Router();
  router.post('/readings', (req, res) => {
    const reading = DeviceReading.parse(req.body);
    events.send({ kind: 'reading', ...reading, jobId: null, dimensionId: null });
    res.status(202).json({ sent: true });
  });
  return router;
}
