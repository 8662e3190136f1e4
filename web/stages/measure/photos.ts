import { PhotoAnswer } from '../../../contract/jobs';
import { call } from '../../api/client';

/** Longest side kept, pixels: enough to mark places on, small enough for a phone's line. */
const LONGEST = 2400;

/**
 * A photo on its way to the job: drawn anew and smaller, which leaves behind what a phone writes into it
 * (place, owner). What the browser cannot draw is sent as it is; the server decides.
 */
export async function sendPhoto(jobId: string, file: File): Promise<{ photo: { id: string } }> {
  const body = await smaller(file).catch(() => file);
  const label = file.name.replace(/\.\w{1,5}$/, '').slice(0, 100);
  return call('POST', `/jobs/${jobId}/photos?label=${encodeURIComponent(label)}`, PhotoAnswer, body);
}

async function smaller(file: File): Promise<Blob> {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, LONGEST / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height);
  picture.close();
  return new Promise((done, fail) =>
    canvas.toBlob(blob => (blob ? done(blob) : fail(new Error('not drawn'))), 'image/jpeg', 0.86),
  );
}
