import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import { WorkshopAnswer } from '../../../contract/workshop';
import type { Calibration } from '../../../core/job/workshop';
import { call, get } from '../../api/client';

/** One calibration of the workshop; every change shows at once and is saved on its own, in order. */
export function useCalibration(id: string) {
  const client = useQueryClient();
  const query = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const [error, setError] = useState<string | null>(null);
  const queue = useRef<Promise<unknown>>(Promise.resolve());
  const waiting = useRef(0);
  const change = useCallback(
    (to: (now: Calibration) => Calibration): Promise<void> => {
      const now = client.getQueryData<WorkshopAnswer>(['workshop']);
      const calibration = now?.workshop.calibrations?.find(c => c.id === id);
      if (!now || !calibration) return Promise.resolve();
      const next = to(calibration);
      const calibrations = now.workshop.calibrations!.map(c => (c.id === id ? next : c));
      client.setQueryData(['workshop'], { ...now, workshop: { ...now.workshop, calibrations } });
      waiting.current++;
      const saved = queue.current.then(async () => {
        try {
          const answer = await call('PUT', `/calibrations/${id}`, WorkshopAnswer, next);
          setError(null);
          // A later change is already shown: its own answer will follow.
          if (waiting.current === 1) client.setQueryData(['workshop'], answer);
        } catch (failure) {
          setError(`${(failure as Error).message} What you see is not saved yet.`);
        } finally {
          waiting.current--;
        }
      });
      queue.current = saved;
      return saved;
    },
    [client, id],
  );
  const calibration = query.data?.workshop.calibrations?.find(c => c.id === id);
  return { query, calibration, change, error };
}
