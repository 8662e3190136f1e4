import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { PaceAnswer } from '../../contract/pace';
import type { Printer } from '../../core/job/workshop';
import { paceOfPrinter } from '../../core/print/of-printer';
import type { NotedPrint, Pace } from '../../core/print/pace';
import { get } from './client';
import { useStream } from './events';
import { fetchAnew } from './fetch-anew';

const NONE: readonly NotedPrint[] = [];

/** What noted prints say about a printer's pace; none while unknown. */
export function useNoted(printerId: string): readonly NotedPrint[] {
  const client = useQueryClient();
  useStream(event => {
    if (event.kind === 'back' || event.kind === 'job') void fetchAnew(client, 'pace');
  });
  const { data } = useQuery({ queryKey: ['pace'], queryFn: () => get('/pace', PaceAnswer) });
  return data?.noted[printerId] ?? NONE;
}

/** A printer's pace, from noted prints or its own figures. */
export function usePace(printer: Pick<Printer, 'id' | 'speed' | 'acceleration'>): Pace {
  const noted = useNoted(printer.id);
  return useMemo(() => paceOfPrinter(printer, noted), [printer, noted]);
}
