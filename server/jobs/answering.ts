import type { Request } from 'express';
import type { JobAnswer, JobChange } from '../../contract/jobs';
import type { App } from '../context';
import type { Editor } from './editing';
import { answerChange, answerJob } from './repository';

/** The window that asks; a script without one counts as a window of its own. */
export const tabOf = (req: Request): string => (req.get('x-sagoma-tab') ?? 'script').slice(0, 60);

/** How the routes of a job answer the window that asks, and notify the others. */
export function answers({ store, events }: App) {
  const isOpen = (tab: string) => events.isOpen(tab);
  return {
    editor: (req: Request): Editor => ({ tab: tabOf(req), isOpen }),
    whole: (req: Request, id: string): Promise<JobAnswer> => answerJob(store.db, id, tabOf(req), isOpen),
    change: (req: Request, id: string, what: Parameters<typeof answerChange>[2]): Promise<JobChange> =>
      answerChange(store.db, id, what, tabOf(req), isOpen),
    tell: (req: Request, jobId: string, revision: number): void =>
      events.send({ kind: 'job', jobId, revision, tab: tabOf(req) }),
  };
}
