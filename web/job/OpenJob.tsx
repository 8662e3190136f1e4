import { useQuery } from '@tanstack/react-query';
import { type ReactNode, useEffect, useState, useSyncExternalStore } from 'react';
import { WorkshopAnswer } from '../../contract/workshop';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import { get } from '../api/client';
import { JobSession } from '../api/job-session';
import { useLessons } from '../api/use-lessons';
import { Failure, Loading } from '../ui/layout';
import type { OpenJob as Open } from './use-bench-of';

interface Props {
  jobId: string;
  children(open: Open): ReactNode;
}

/** A job with the workshop and other jobs' lessons; until all are there, what it is waiting for. */
export function OpenJob({ jobId, children }: Props) {
  const workshop = useQuery({ queryKey: ['workshop'], queryFn: () => get('/workshop', WorkshopAnswer) });
  const lessons = useLessons(jobId);
  if (workshop.error) return <Failure error={workshop.error} retry={() => void workshop.refetch()} />;
  if (!workshop.data || lessons === null) return <Loading what="Opening the workshop" />;
  return (
    <WithWorkshop key={jobId} jobId={jobId} workshop={workshop.data.workshop} lessons={lessons}>
      {children}
    </WithWorkshop>
  );
}

interface WithProps extends Props {
  workshop: Workshop;
  lessons: readonly Evidence[];
}

function WithWorkshop({ jobId, workshop, lessons, children }: WithProps) {
  const [session] = useState(() => new JobSession(jobId, workshop));
  const state = useSyncExternalStore(session.watch, session.read);
  useEffect(() => session.start(), [session]);
  useEffect(() => session.setWorkshop(workshop), [session, workshop]);
  useEffect(() => {
    // Unsaved edits survive a reload; closing the window for good while the server is unreachable would lose them.
    const warn = (event: BeforeUnloadEvent) => session.read().pending.length > 0 && event.preventDefault();
    addEventListener('beforeunload', warn);
    return () => removeEventListener('beforeunload', warn);
  }, [session]);
  if (state.failure) return <Failure error={state.failure} retry={() => void session.refresh()} />;
  if (!state.base || !state.document)
    return <Loading what={state.offline ? 'Waiting for the server' : 'Opening the job'} />;
  return children({ session, state, workshop, lessons, document: state.document });
}
