import fc from 'fast-check';
import { encode as encodePng } from 'fast-png';
import { zlibSync } from 'fflate';
import jpeg from 'jpeg-js';
import { describe, expect, test } from 'vitest';
import { aboutPhoto } from './about-photo';
import { PhotoFileError, readPhotoFile, upright } from './decode';

const picture = (width: number, height: number) => ({
  width,
  height,
  data: Uint8Array.from({ length: 4 * width * height }, (_, i) => (i % 4 === 3 ? 255 : (i * 37) % 256)),
});

/** An APP1 segment with a focal length and a quarter turn, little-endian (Exif 2.3). */
function withExif(file: Uint8Array): Uint8Array {
  const tiff = [0x49, 0x49, 42, 0, 8, 0, 0, 0];
  const entry = (tag: number, type: number, value: number) => [
    tag & 255,
    tag >> 8,
    type,
    0,
    1,
    0,
    0,
    0,
    value & 255,
    value >> 8,
    0,
    0,
  ];
  // IFD0: orientation, and the offset of the Exif numbers.
  const ifd0 = [2, 0, ...entry(0x0112, 3, 6), ...entry(0x8769, 4, 8 + 2 + 24 + 4), 0, 0, 0, 0];
  const exif = [1, 0, ...entry(0xa405, 3, 52), 0, 0, 0, 0];
  const body = [0x45, 0x78, 0x69, 0x66, 0, 0, ...tiff, ...ifd0, ...exif];
  const size = body.length + 2;
  return Uint8Array.from([0xff, 0xd8, 0xff, 0xe1, size >> 8, size & 255, ...body, ...file.subarray(2)]);
}

describe('what a file says', () => {
  test('a phone’s focal length and how it was held', async () => {
    const file = withExif(new Uint8Array(jpeg.encode(picture(40, 20), 80).data));
    expect(await aboutPhoto(file)).toMatchObject({ f35: 52, orientation: 6 });
    const read = await readPhotoFile(file);
    expect([read.picture.width, read.picture.height, read.f35]).toEqual([20, 40, 52]);
  });

  test('a scanner’s pixels of an inch; without a unit they are asked for', async () => {
    const plain = { width: 8, height: 8, data: new Uint8Array(64), channels: 1 as const };
    const said = encodePng({ ...plain, text: {} });
    expect((await aboutPhoto(said)).dpi).toBeNull();
    // pHYs right after IHDR: 23 622 pixels per metre are 600 per inch (W3C PNG 11.3.4.3).
    const phys = Uint8Array.from([
      0, 0, 0, 9, 0x70, 0x48, 0x59, 0x73, 0, 0, 0x5c, 0x46, 0, 0, 0x5c, 0x46, 1, 0, 0, 0, 0,
    ]);
    const with600 = Uint8Array.from([...said.subarray(0, 33), ...phys, ...said.subarray(33)]);
    expect((await aboutPhoto(with600)).dpi?.x).toBeCloseTo(600, 0);
    const file = new Uint8Array(jpeg.encode(picture(16, 16), 80).data);
    // The encoder writes a JFIF segment with unit 0: a ratio, not a resolution.
    expect((await aboutPhoto(file)).dpi).toBeNull();
    const inches = Uint8Array.from(file);
    inches[13] = 1;
    inches.set([1, 44, 1, 44], 14);
    expect((await aboutPhoto(inches)).dpi).toEqual({ x: 300, y: 300 });
  });
});

test('a picture is turned upright, each of the eight ways', () => {
  const marked = (orientation: number) => {
    const p = { width: 3, height: 2, data: new Uint8Array(24) };
    p.data[0] = 9;
    const { width, height, data } = upright(p, orientation);
    const at = Array.from({ length: 6 }, (_, i) => data[4 * i]).indexOf(9);
    return [width, height, at % width, Math.floor(at / width)];
  };
  // Where the first pixel goes (Exif 2.3, tag 274): row 0 and column 0 as the tag names them.
  expect([1, 2, 3, 4].map(marked)).toEqual([
    [3, 2, 0, 0],
    [3, 2, 2, 0],
    [3, 2, 2, 1],
    [3, 2, 0, 1],
  ]);
  expect([5, 6, 7, 8].map(marked)).toEqual([
    [2, 3, 0, 0],
    [2, 3, 1, 0],
    [2, 3, 1, 2],
    [2, 3, 0, 2],
  ]);
});

/** A PNG chunk; only the decoder checks its checksum. */
function chunk(kind: string, data: Uint8Array): Uint8Array {
  const out = new Uint8Array(12 + data.length);
  const view = new DataView(out.buffer);
  view.setUint32(0, data.length);
  out.set(
    [...kind].map(c => c.charCodeAt(0)),
    4,
  );
  out.set(data, 8);
  return out;
}

test('a small picture that unpacks to many megabytes is refused before it does', async () => {
  const png = encodePng({ width: 20, height: 20, data: new Uint8Array(400), channels: 1 });
  const head = png.subarray(0, 33);
  const bomb = zlibSync(new Uint8Array(80e6), { level: 6 });
  const file = Uint8Array.from([...head, ...chunk('IDAT', bomb), ...chunk('IEND', new Uint8Array(0))]);
  await expect(readPhotoFile(file)).rejects.toThrow('unpacks to more than its size says');
  // A bomb in a chunk that is not part of the picture is never unpacked.
  const profile = Uint8Array.from([
    ...head,
    ...chunk('iCCP', Uint8Array.from([97, 0, 0, ...bomb])),
    ...png.subarray(33),
  ]);
  const { picture: read } = await readPhotoFile(profile);
  expect([read.width, read.height]).toEqual([20, 20]);
});

test('broken and hostile files get a sentence, never anything else', async () => {
  const good = new Uint8Array(jpeg.encode(picture(60, 40), 70).data);
  const png = encodePng({ width: 20, height: 20, data: new Uint8Array(400), channels: 1 });
  // A header that promises two thousand million pixels.
  const bomb = Uint8Array.from(png);
  new DataView(bomb.buffer).setUint32(16, 60_000);
  new DataView(bomb.buffer).setUint32(20, 40_000);
  await expect(readPhotoFile(bomb)).rejects.toMatchObject({ code: 'photo-too-large' });
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(good, png),
      fc.array(fc.tuple(fc.nat(3000), fc.nat(255)), { maxLength: 30 }),
      fc.double({ min: 0, max: 1, noNaN: true }),
      async (file, changes, kept) => {
        const bytes = file.slice(0, Math.ceil(kept * file.length));
        for (const [at, to] of changes) if (at < bytes.length) bytes[at] = to;
        try {
          const { picture: read } = await readPhotoFile(bytes);
          expect(read.data.length).toBe(4 * read.width * read.height);
        } catch (error) {
          expect(error).toBeInstanceOf(PhotoFileError);
        }
      },
    ),
    { numRuns: 400 },
  );
});
