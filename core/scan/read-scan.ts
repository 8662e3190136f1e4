import { NotAModel } from '../files/bodies/not-a-model';
import { meshOfThreeMf } from '../files/bodies/three-mf-mesh';
import { weld } from '../shape/mesh/mesh';
import { readObj } from './formats/obj';
import { readOff } from './formats/off';
import { readPly } from './formats/ply';
import { readPoints } from './formats/points';
import { readStlScan } from './formats/stl';
import { MOST_BYTES, MOST_COORDINATE, type RawScan, ScanError } from './scan-file';

/**
 * Triangles or points of a scan, recognised by its content. Nothing in the file is trusted; corners in the same place
 * are merged. @throws ScanError with a sentence that says what is wrong and where
 */
export function readScan(bytes: Uint8Array): RawScan {
  if (bytes.length > MOST_BYTES)
    throw new ScanError('too-large', `It is larger than ${MOST_BYTES / 1e6} MB: export it coarser.`);
  if (bytes.length === 0) throw new ScanError('empty', 'The file is empty: export it again.');
  const raw = rawScan(bytes);
  if (raw.positions.length === 0)
    throw new ScanError('empty', 'There is neither a surface nor a point in this file.');
  for (let i = 0; i < raw.positions.length; i++)
    if (!(Math.abs(raw.positions[i]!) < MOST_COORDINATE))
      throw new ScanError(
        'broken',
        `Corner ${Math.floor(i / 3) + 1} is not a number, or is kilometres away: export it again.`,
      );
  if (raw.triangles.length === 0) return raw;
  const corners = raw.positions.length / 3;
  for (let i = 0; i < raw.triangles.length; i++)
    if (raw.triangles[i]! >= corners)
      throw new ScanError(
        'broken',
        `Triangle ${Math.floor(i / 3) + 1} names corner ${raw.triangles[i]! + 1}, and there are ${corners}: the file was cut off, or written wrong.`,
      );
  const { positions, triangles } = weld(raw.positions, raw.triangles);
  if (triangles.length === 0)
    throw new ScanError('empty', 'None of its triangles has any area: there is no surface to look at.');
  return { format: raw.format, positions, triangles };
}

function rawScan(bytes: Uint8Array): RawScan {
  const head = String.fromCharCode(...bytes.subarray(0, 512));
  if (head.startsWith('PK')) return readPacked(bytes);
  if (/^ply\s/.test(head)) return readPly(bytes);
  if (/^\s*(ST)?(C)?(N)?(4)?OFF\b/.test(head)) return readOff(bytes);
  const stl = readStlScan(bytes, head);
  if (stl) return stl;
  if (/^\s*(v|vn|vt|o|g|mtllib|f)\s/m.test(head)) return readObj(bytes);
  const points = readPoints(bytes);
  if (points) return points;
  throw new ScanError(
    'unknown-format',
    'Sagoma cannot read this file: choose STL, PLY, OBJ, OFF, 3MF or a list of points.',
  );
}

/** A 3MF package; it states its unit, and the result is in mm. */
function readPacked(bytes: Uint8Array): RawScan {
  try {
    return { format: '3mf', ...meshOfThreeMf(bytes) };
  } catch (error) {
    // Unpackers of other people's formats throw all sorts of errors on a broken file.
    const why =
      error instanceof NotAModel ? error.message.replace(/\.$/, '') : 'This package cannot be unpacked';
    throw new ScanError('broken', `${why}: export the scan again, as STL, PLY, OBJ or 3MF.`, {
      cause: error,
    });
  }
}
