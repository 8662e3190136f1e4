import exifr from 'exifr';

/** What a picture's file states besides the picture. */
export interface AboutPhoto {
  /** 35 mm equivalent focal length. */
  f35: number | null;
  /** How the picture is turned when shown, 1 to 8 (Exif 2.3). */
  orientation: number;
  /** Pixels per inch in each direction, where the file states them with a unit. */
  dpi: { x: number; y: number } | null;
}

const Sized = (value: unknown, least: number, most: number): number | null =>
  typeof value === 'number' && value >= least && value <= most ? value : null;

const NOTHING: AboutPhoto = { f35: null, orientation: 1, dpi: null };
/** Bounds of a scan's resolution; anything outside is a mistake. */
const [LEAST_DPI, MOST_DPI] = [50, 9600];

/** Reads a few numbers from the beginning of a file. Never throws: a file that states nothing is fine. */
export async function aboutPhoto(bytes: Uint8Array): Promise<AboutPhoto> {
  const tags = await tagsOf(bytes, { jfif: false });
  const jfif = await tagsOf(bytes, { jfif: true, tiff: false });
  return {
    ...NOTHING,
    f35: Sized(tags.FocalLengthIn35mmFormat, 5, 500),
    orientation: Sized(tags.Orientation, 1, 8) ?? 1,
    dpi: dpiOf(jfif) ?? dpiOf(tags) ?? pngDpi(bytes),
  };
}

type Tags = Record<string, unknown>;

async function tagsOf(bytes: Uint8Array, options: Record<string, boolean>): Promise<Tags> {
  try {
    const tags: unknown = await exifr.parse(bytes, { translateValues: false, sanitize: true, ...options });
    return typeof tags === 'object' && tags !== null ? (tags as Tags) : {};
  } catch (error) {
    // The reader throws all sorts of errors on a broken file.
    if (error instanceof Error) return {};
    throw error;
  }
}

/** By its unit: 2 is an inch and 3 a centimetre in Exif, 1 and 2 in JFIF; without one the numbers are a ratio. */
function dpiOf(tags: Tags): AboutPhoto['dpi'] {
  const isJfif = 'JFIFVersion' in tags;
  // Exif: a file that does not name the unit means the inch.
  const unit = Number(tags.ResolutionUnit ?? (isJfif ? 0 : 2)) + (isJfif ? 1 : 0);
  const inch = unit === 2 ? 1 : unit === 3 ? 2.54 : null;
  if (inch === null) return null;
  const [x, y] = [tags.XResolution, tags.YResolution].map(r => Sized(Number(r) * inch, LEAST_DPI, MOST_DPI));
  return x && y ? { x, y } : null;
}

/** A PNG's pHYs: pixels per metre (W3C PNG 11.3.4.3). */
function pngDpi(bytes: Uint8Array): AboutPhoto['dpi'] {
  if (bytes[0] !== 0x89 || bytes[1] !== 0x50) return null;
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 8; at + 21 <= bytes.length; at += 12 + view.getUint32(at)) {
    const kind = view.getUint32(at + 4);
    if (kind === 0x49444154) return null;
    if (kind !== 0x70485973 || bytes[at + 16] !== 1) continue;
    const [x, y] = [0, 4].map(o => Sized(view.getUint32(at + 8 + o) * 0.0254, LEAST_DPI, MOST_DPI));
    return x && y ? { x, y } : null;
  }
  return null;
}
