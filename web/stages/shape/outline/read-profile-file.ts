import { LARGEST_PROFILE } from '../../../../core/files/profile/read-profile';
import type { ProfileReply, ProfileRequest } from '../../../workers/profile-worker';

/** Longer than any honest profile takes. */
const PATIENCE = 20_000;

/** Reads a drawing in a worker of its own: whatever the file does, the page goes on. */
export function readProfileFile(request: ProfileRequest): Promise<ProfileReply> {
  if (request.text.length > LARGEST_PROFILE)
    return Promise.resolve({ ok: false, message: 'This file is over 4 MB: export only the profile.' });
  const worker = new Worker(new URL('../../../workers/profile-worker.ts', import.meta.url), {
    type: 'module',
  });
  return new Promise<ProfileReply>(done => {
    const timer = setTimeout(
      () => done({ ok: false, message: 'This file takes too long: export only the profile.' }),
      PATIENCE,
    );
    worker.onmessage = (message: MessageEvent<ProfileReply>) => {
      clearTimeout(timer);
      done(message.data);
    };
    worker.onerror = () => {
      clearTimeout(timer);
      done({ ok: false, message: 'This file cannot be read. Export the profile again.' });
    };
    worker.postMessage(request);
  }).finally(() => worker.terminate());
}
