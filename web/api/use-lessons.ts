import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { LessonsAnswer } from '../../contract/lessons';
import type { Evidence } from '../../core/learn/lessons';
import { get } from './client';
import { useStream } from './events';
import { fetchAnew } from './fetch-anew';

const NONE: readonly Evidence[] = [];

/**
 * What the workshop's other jobs taught; null while unknown. A job also works without lessons: they make it surer, not
 * possible.
 */
export function useLessons(jobId: string): readonly Evidence[] | null {
  const client = useQueryClient();
  // The same lessons that the server uses for a new version.
  useStream(event => {
    if (event.kind === 'back' || (event.kind === 'job' && event.jobId !== jobId))
      void fetchAnew(client, 'lessons');
  });
  const { data, error } = useQuery({
    queryKey: ['lessons'],
    queryFn: () => get('/lessons', LessonsAnswer),
    // The stream reports when another job has changed.
    staleTime: Number.POSITIVE_INFINITY,
  });
  const others = useMemo(() => data?.evidence.filter(e => e.jobId !== jobId), [data, jobId]);
  return others ?? (error ? NONE : null);
}
