import { decode as decodePng } from 'fast-png';
import { imageSize } from 'image-size';
import jpeg from 'jpeg-js';
import type { Picture } from '../picture';
import { type AboutPhoto, aboutPhoto } from './about-photo';
import { type PngSize, pictureOnly } from './png-chunks';

/** An upright picture with its file's statements. For places where no browser decodes. */
export interface PhotoFile extends Pick<AboutPhoto, 'f35' | 'dpi'> {
  picture: Picture;
}

/** The file is not a picture that can be read; the message is for the maker. */
export class PhotoFileError extends Error {
  override name = 'PhotoFileError';
  constructor(
    readonly code: 'bad-photo' | 'photo-too-large',
    message: string,
  ) {
    super(message);
  }
}

/** The most megapixels that are decoded, and MB that a JPEG may take meanwhile. */
const [MOST_PIXELS, MOST_MEMORY] = [60, 1400];

export async function readPhotoFile(bytes: Uint8Array): Promise<PhotoFile> {
  const { kind, size } = kindOf(bytes);
  const { f35, dpi, orientation } = await aboutPhoto(bytes);
  let picture: Picture;
  try {
    picture =
      kind === 'jpeg'
        ? jpeg.decode(bytes, {
            useTArray: true,
            maxResolutionInMP: MOST_PIXELS,
            maxMemoryUsageInMB: MOST_MEMORY,
          })
        : ofPng(pictureOnly(bytes, size));
  } catch (error) {
    if (error instanceof PhotoFileError || !(error instanceof Error)) throw error;
    throw new PhotoFileError(
      'bad-photo',
      `The picture’s file is broken (${error.message.slice(0, 120)}): save it again, or take another photo.`,
    );
  }
  return { picture: upright(picture, orientation), f35, dpi };
}

function kindOf(bytes: Uint8Array): { kind: 'jpeg' | 'png'; size: PngSize } {
  const isPng = [0x89, 0x50, 0x4e, 0x47].every((b, i) => bytes[i] === b);
  if (!isPng && !(bytes[0] === 0xff && bytes[1] === 0xd8 && bytes[2] === 0xff))
    throw new PhotoFileError('bad-photo', 'This picture cannot be read: give a JPEG or a PNG file.');
  let size: PngSize;
  try {
    size = imageSize(bytes);
  } catch (error) {
    if (!(error instanceof Error)) throw error;
    throw new PhotoFileError('bad-photo', 'The picture’s file ends before its size: it is cut short.');
  }
  if (size.width * size.height > MOST_PIXELS * 1e6)
    throw new PhotoFileError(
      'photo-too-large',
      `The picture has ${Math.round((size.width * size.height) / 1e6)} megapixels: give one of at most ${MOST_PIXELS}.`,
    );
  return { kind: isPng ? 'png' : 'jpeg', size };
}

function ofPng(bytes: Uint8Array): Picture {
  const { width, height, data, channels, depth, palette } = decodePng(bytes);
  const out = new Uint8ClampedArray(4 * width * height);
  const shift = depth === 16 ? 8 : 0;
  for (let i = 0; i < width * height; i++) {
    for (let k = 0; k < 3; k++) {
      const value = palette ? palette[data[i]!]?.[k] : data[channels * i + (channels > 2 ? k : 0)]! >> shift;
      out[4 * i + k] = value ?? 0;
    }
    out[4 * i + 3] = 255;
  }
  return { width, height, data: out };
}

/** Rotated for display (Exif 2.3, tag 274). */
export function upright(picture: Picture, orientation: number): Picture {
  if (orientation === 1) return picture;
  const { width: w, height: h, data } = picture;
  const swapped = orientation >= 5;
  const [width, height] = swapped ? [h, w] : [w, h];
  const from: Record<number, (x: number, y: number) => number> = {
    2: (x, y) => y * w + (w - 1 - x),
    3: (x, y) => (h - 1 - y) * w + (w - 1 - x),
    4: (x, y) => (h - 1 - y) * w + x,
    5: (x, y) => x * w + y,
    6: (x, y) => (h - 1 - x) * w + y,
    7: (x, y) => (h - 1 - x) * w + (w - 1 - y),
    8: (x, y) => x * w + (w - 1 - y),
  };
  const at = from[orientation];
  if (!at) return picture;
  const [source, out] = [new Uint32Array(data.slice().buffer), new Uint32Array(width * height)];
  for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) out[y * width + x] = source[at(x, y)]!;
  return { width, height, data: new Uint8ClampedArray(out.buffer) };
}
