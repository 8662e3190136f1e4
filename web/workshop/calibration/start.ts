import type { QueryClient } from '@tanstack/react-query';
import { ulid } from 'ulid';
import { WorkshopAnswer } from '../../../contract/workshop';
import type { Calibration, Printer } from '../../../core/job/workshop';
import { call } from '../../api/client';

/** A calibration with nothing read yet. @returns the address of its page */
export async function startCalibration(
  client: QueryClient,
  printer: Pick<Printer, 'id' | 'nozzle'>,
  materialId: string,
): Promise<string> {
  const id = ulid();
  const fresh: Omit<Calibration, 'id'> = {
    printerId: printer.id,
    materialId,
    at: new Date().toISOString(),
    nozzle: printer.nozzle,
    note: '',
    rows: [],
  };
  client.setQueryData(['workshop'], await call('PUT', `/calibrations/${id}`, WorkshopAnswer, fresh));
  return `/workshop/calibrations/${id}`;
}
