import { decode } from 'fast-png';
import { strFromU8, unzipSync } from 'fflate';
import { describe, expect, test } from 'vitest';
import type { TriangleMesh } from '../shape/mesh/mesh';
import { boxMesh } from '../shape/sides';
import { partPicture } from './part-picture';
import { writeThreeMf } from './three-mf';

const box = (
  x: number,
  y: number,
  z: number,
  at: readonly [number, number, number] = [0, 0, 0],
): TriangleMesh => boxMesh({ min: [...at], max: [at[0] + x, at[1] + y, at[2] + z] });

/** Opaque pixels as a share, and the shades of a picture. */
function read(png: Uint8Array) {
  const { data, width, height } = decode(png);
  let opaque = 0;
  const shades = new Set<number>();
  for (let i = 0; i < width * height; i++) {
    if (data[4 * i + 3] !== 255) continue;
    opaque++;
    shades.add(data[4 * i]!);
  }
  return { share: opaque / (width * height), shades, width, height };
}

describe('a picture of a part', () => {
  test('a cube shows three faces of three shades, its outline filling the picture', () => {
    const { share, shades, width, height } = read(partPicture([box(10, 10, 10)]));
    expect([width, height]).toEqual([256, 256]);
    // Three faces and the ink.
    expect(shades.size).toBe(4);
    expect(share).toBeGreaterThan(0.5);
    expect(share).toBeLessThan(0.88);
  });
  test('what is nearer hides what is behind, whichever comes first', () => {
    const [near, far] = [box(10, 10, 10, [0, -30, 0]), box(4, 4, 4, [2, 0, 0])];
    expect(partPicture([near, far])).toEqual(partPicture([far, near]));
  });
  test('nothing at all, or a flat thing, is a picture too', () => {
    expect(read(partPicture([])).share).toBe(0);
    expect(read(partPicture([box(10, 10, 0)])).share).toBeGreaterThan(0.1);
  });
});

test('a 3MF carries it where readers look for it, and the same part gives the same bytes', () => {
  const bytes = writeThreeMf('A part', 'note', [
    { name: 'lid', mesh: box(10, 10, 2) },
    { name: 'tray', mesh: box(12, 12, 8, [20, 0, 0]) },
  ]);
  const files = unzipSync(bytes);
  expect(read(files['Metadata/thumbnail.png']!).share).toBeGreaterThan(0.1);
  expect(strFromU8(files['_rels/.rels']!)).toContain(
    'Target="/Metadata/thumbnail.png" Id="rel1" Type="http://schemas.openxmlformats.org/package/2006/relationships/metadata/thumbnail"',
  );
  expect(strFromU8(files['[Content_Types].xml']!)).toContain('Extension="png" ContentType="image/png"');
  expect(strFromU8(files['3D/3dmodel.model']!).match(/<object /g)).toHaveLength(2);
});
