import { useState } from 'react';
import { ulid } from 'ulid';
import { z } from 'zod';
import { call, ServerSaid } from '../../api/client';
import { useStream } from '../../api/events';

/** A long task on the server: its current step, and a way to cancel it. */
export interface Build {
  id: string;
  step: string;
}

export function useBuild() {
  const [build, setBuild] = useState<Build | null>(null);
  useStream(event => {
    if (event.kind === 'build')
      setBuild(now => (now?.id === event.buildId ? { ...now, step: event.step } : now));
  });
  return {
    build,
    /** @param work gets the id under which the server reports its steps */
    async run(work: (buildId: string) => Promise<unknown>): Promise<void> {
      const id = ulid();
      setBuild({ id, step: 'Waiting for its turn' });
      try {
        await work(id);
      } finally {
        setBuild(null);
      }
    },
    async cancel(): Promise<void> {
      if (!build) return;
      try {
        await call('DELETE', `/builds/${build.id}`, z.object({ cancelled: z.literal(true) }));
      } catch (error) {
        // It had just finished.
        if (!(error instanceof ServerSaid && error.status === 404)) throw error;
      }
    },
  };
}
