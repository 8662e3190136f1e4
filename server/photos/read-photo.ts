import { imageSize } from 'image-size';
import type { Photo } from '../../core/job/document';

/** The type of a photo, from its first bytes. */
export type PhotoRead =
  | { ok: true; type: Photo['type']; width: number; height: number }
  | { ok: false; code: 'bad-photo' | 'photo-too-large'; message: string };

const TYPES: Record<string, Photo['type']> = { jpg: 'image/jpeg', png: 'image/png', webp: 'image/webp' };
const NO_PHOTO = 'This is not a photo Sagoma reads: take a JPEG, PNG or WebP file.';

/** A page draws it: a larger one would fill a phone's memory. */
const MOST_PIXELS = 60e6;
const MOST_WIDE = 20_000;
/** Its size comes before the picture itself, after the camera's metadata, bytes. */
export const PHOTO_HEAD = 2_000_000;

const begins = (bytes: Uint8Array, at: number, wanted: readonly number[]): boolean =>
  wanted.every((b, i) => bytes[at + i] === b);

/** By its first bytes, whatever its name: nothing else is parsed. */
export const isPhoto = (bytes: Uint8Array): boolean =>
  begins(bytes, 0, [0xff, 0xd8, 0xff]) ||
  begins(bytes, 0, [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]) ||
  (begins(bytes, 0, [0x52, 0x49, 0x46, 0x46]) && begins(bytes, 8, [0x57, 0x45, 0x42, 0x50]));

/** Runs in a thread: a file may be made to keep its reader busy. @param head the first bytes */
export function readPhoto(head: Uint8Array): PhotoRead {
  const refused: PhotoRead = { ok: false, code: 'bad-photo', message: NO_PHOTO };
  if (!isPhoto(head)) return refused;
  let seen: ReturnType<typeof imageSize>;
  try {
    seen = imageSize(head);
  } catch (error) {
    // The reader of sizes throws on a file that it does not know.
    if (error instanceof TypeError || error instanceof RangeError) return refused;
    throw error;
  }
  const type = TYPES[seen.type ?? ''];
  if (!type || !(seen.width > 0) || !(seen.height > 0)) return refused;
  if (seen.width * seen.height > MOST_PIXELS || seen.width > MOST_WIDE || seen.height > MOST_WIDE)
    return {
      ok: false,
      code: 'photo-too-large',
      message: `The photo has ${Math.round((seen.width * seen.height) / 1e6)} megapixels: send one of at most ${MOST_PIXELS / 1e6}.`,
    };
  // Held upright: a quarter turn swaps the sides.
  const turned = seen.orientation !== undefined && seen.orientation >= 5;
  return {
    ok: true,
    type,
    width: turned ? seen.height : seen.width,
    height: turned ? seen.width : seen.height,
  };
}
