import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import { LessonsAnswer } from '../../contract/lessons';
import type { Evidence } from '../../core/learn/lessons';
import { get } from './client';

/** They change when another job was tried: not while one works on this one. ms */
const FRESH = 60_000;
const NONE: readonly Evidence[] = [];

/**
 * What the workshop's other jobs taught; null while that is not known. A job is worked on without them where they
 * cannot be had: they make it surer, not possible.
 */
export function useLessons(jobId: string): readonly Evidence[] | null {
  const { data, error } = useQuery({
    queryKey: ['lessons'],
    queryFn: () => get('/lessons', LessonsAnswer),
    staleTime: FRESH,
  });
  const others = useMemo(() => data?.evidence.filter(e => e.jobId !== jobId), [data, jobId]);
  return others ?? (error ? NONE : null);
}
