import { type DBSchema, type IDBPDatabase, openDB } from 'idb';
import { useEffect, useSyncExternalStore } from 'react';
import { JobAnswer, JobChange } from '../../contract/jobs';
import { get, post, ServerSaid } from '../api/client';
import { sendPhoto } from '../stages/measure/photos';
import { newTrace } from '../stages/measure/photos/new-trace';
import { Outbox, type Shelf, type Waiting } from './outbox';

interface Kept extends DBSchema {
  photos: { key: string; value: Waiting };
}

/** In the browser's own database: it outlives the page. */
class BrowserShelf implements Shelf {
  private opened: Promise<IDBPDatabase<Kept>> | undefined;

  private open() {
    this.opened ??= openDB<Kept>('sagoma-outbox', 1, {
      upgrade: db => void db.createObjectStore('photos', { keyPath: 'id' }),
    });
    return this.opened;
  }
  async all() {
    return (await this.open()).getAll('photos');
  }
  async put(photo: Waiting) {
    await (await this.open()).put('photos', photo);
  }
  async remove(id: string) {
    await (await this.open()).delete('photos', id);
  }
}

async function send({ id, jobId, name, trace, file }: Waiting): Promise<void> {
  const named = new File([file], name, { type: file.type });
  const { photo } = await sendPhoto(jobId, named, { id, whole: trace !== null });
  if (trace !== null) await traceIt(jobId, trace, photo.id, named);
}

/** On top of the job's current state: a photo never causes a conflict at the bench. */
async function traceIt(jobId: string, id: string, photo: string, file: File): Promise<void> {
  for (;;) {
    const { revision, document } = await get(`/jobs/${jobId}`, JobAnswer);
    if (document.traces?.some(t => t.id === id)) return;
    const trace = await newTrace({ id, photo, file, last: document.traces?.at(-1)?.by });
    try {
      await post(`/jobs/${jobId}/edits`, JobChange, { revision, edit: { kind: 'add-trace', trace } });
      return;
    } catch (error) {
      if (!(error instanceof ServerSaid && error.code === 'stale')) throw error;
    }
  }
}

export const outbox = new Outbox(new BrowserShelf(), send);

/** Photos waiting in this phone; they are sent while any page of it is open. */
export function useOutbox() {
  useEffect(() => {
    void outbox.start();
    addEventListener('online', outbox.hurry);
    return () => removeEventListener('online', outbox.hurry);
  }, []);
  return useSyncExternalStore(outbox.watch, outbox.read);
}
