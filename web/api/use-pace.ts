import { useQuery, useQueryClient } from '@tanstack/react-query';
import { PaceAnswer } from '../../contract/pace';
import type { NotedPrint } from '../../core/print/pace';
import { get } from './client';
import { useStream } from './events';

const NONE: readonly NotedPrint[] = [];

/** What noted prints tell of a printer's pace; none while that is not known. */
export function useNoted(printerId: string): readonly NotedPrint[] {
  const client = useQueryClient();
  useStream(event => {
    if (event.kind === 'back' || event.kind === 'job') void client.invalidateQueries({ queryKey: ['pace'] });
  });
  const { data } = useQuery({ queryKey: ['pace'], queryFn: () => get('/pace', PaceAnswer) });
  return data?.noted[printerId] ?? NONE;
}
