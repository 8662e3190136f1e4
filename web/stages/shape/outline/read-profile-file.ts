import { wrap } from 'comlink';
import { LARGEST_PROFILE } from '../../../../core/files/profile/read-profile';
import type { ProfileApi, ProfileReply, ProfileRequest } from '../../../workers/profile-worker';

/** Longer than any sound profile takes, ms. */
const PATIENCE = 20_000;

/** Reads a drawing in a web worker, so that a bad file cannot stop the page. */
export async function readProfileFile(request: ProfileRequest): Promise<ProfileReply> {
  if (request.text.length > LARGEST_PROFILE)
    return { ok: false, message: 'This file is over 4 MB: export only the profile.' };
  const worker = new Worker(new URL('../../../workers/profile-worker.ts', import.meta.url), {
    type: 'module',
  });
  const patience = new Promise<ProfileReply>(done =>
    setTimeout(
      () => done({ ok: false, message: 'This file takes too long: export only the profile.' }),
      PATIENCE,
    ),
  );
  const broken = new Promise<ProfileReply>((_, fail) => {
    worker.onerror = () => fail(new Error('the worker stopped'));
  });
  try {
    return await Promise.race([wrap<ProfileApi>(worker).read(request), patience, broken]);
  } catch (error) {
    return {
      ok: false,
      message: `Sagoma failed at this file (${(error as Error).message}): export the profile again, as DXF or SVG.`,
    };
  } finally {
    worker.terminate();
  }
}
