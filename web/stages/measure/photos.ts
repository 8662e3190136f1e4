import { PhotoAnswer } from '../../../contract/jobs';
import { call } from '../../api/client';

/** Longest side kept, pixels: enough to mark places on, small enough for a phone's line. */
const LONGEST = 2400;

/** JPEG quality: for looking, and for measuring. */
const [SMALLER, WHOLE] = [0.86, 0.95];

/**
 * Prepares a photo for the job: drawn again and smaller, which removes the phone's metadata (place, owner); a photo for
 * tracing keeps all of its pixels. What the browser cannot draw is sent unchanged; the server decides.
 * @param id identifies it when it is sent again
 */
export async function sendPhoto(
  jobId: string,
  file: File,
  { whole = false, id }: { whole?: boolean; id?: string } = {},
): Promise<{ photo: { id: string } }> {
  const body = await (whole ? drawnAnew(file, Infinity, WHOLE) : drawnAnew(file, LONGEST, SMALLER)).catch(
    () => file,
  );
  const label = file.name.replace(/\.\w{1,5}$/, '').slice(0, 100);
  const asked = new URLSearchParams({ label, ...(id === undefined ? {} : { id }) });
  return call('POST', `/jobs/${jobId}/photos?${asked}`, PhotoAnswer, body);
}

async function drawnAnew(file: File, longest: number, quality: number): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, longest / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((done, fail) =>
    canvas.toBlob(blob => (blob ? done(blob) : fail(new Error('not drawn'))), 'image/jpeg', quality),
  );
}
