import { Unzlib } from 'fflate';

/** The contents of a PNG file, checked before anything is unpacked (W3C PNG 5 and 11). */

/** Chunks that the picture itself needs; all others, packed profiles and texts among them, are left out. */
const NEEDED = new Set(['IHDR', 'PLTE', 'tRNS', 'IDAT', 'IEND']);
const HEADER = 8;
/** One byte unpacks to no more than this (zlib's own limit). */
const MOST_PACKED = 1032;
/** Less than this when unpacked is harmless, bytes. */
const HARMLESS = 64e6;

export interface PngSize {
  width: number;
  height: number;
}

/**
 * The file with its picture alone.
 * @throws Error where it is cut off, or would unpack to more than its size allows
 */
export function pictureOnly(bytes: Uint8Array, { width, height }: PngSize): Uint8Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const kept: Uint8Array[] = [bytes.subarray(0, HEADER)];
  const packed: Uint8Array[] = [];
  let at = HEADER;
  while (at + 12 <= bytes.length) {
    const length = view.getUint32(at);
    const end = at + 12 + length;
    if (end > bytes.length) throw new Error('it ends in the middle');
    const kind = String.fromCharCode(...bytes.subarray(at + 4, at + 8));
    if (NEEDED.has(kind)) kept.push(bytes.subarray(at, end));
    if (kind === 'IDAT') packed.push(bytes.subarray(at + 8, end - 4));
    at = end;
    if (kind === 'IEND') break;
  }
  // At most four channels of sixteen bits, and a filter byte per line, in each of seven passes.
  const most = 8 * width * height + 7 * (height + 8) + 64;
  const total = packed.reduce((sum, p) => sum + p.length, 0);
  if (MOST_PACKED * total > Math.max(HARMLESS, most) && unpacksBeyond(packed, most))
    throw new Error('it unpacks to more than its size says');
  return joined(kept);
}

function unpacksBeyond(packed: readonly Uint8Array[], most: number): boolean {
  let size = 0;
  const counter = new Unzlib(piece => {
    size += piece.length;
  });
  for (const chunk of packed)
    for (let from = 0; from < chunk.length; from += PIECE) {
      counter.push(chunk.subarray(from, from + PIECE));
      if (size > most) return true;
    }
  return false;
}

/** Unpacked in pieces of this size, bytes. */
const PIECE = 16_384;

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(parts.reduce((sum, p) => sum + p.length, 0));
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
