import { type RawScan, refuseTooMany, ScanError } from '../scan-file';
import { TextLines } from '../text-lines';
import { fanned } from './fanned';

/** OFF; colours or normals after the coordinates are ignored. */
export function readOff(bytes: Uint8Array): RawScan {
  const lines = new TextLines(bytes);
  const first = (lines.next() ?? '').replace(/#.*/, '').trim();
  const keyword = /^(ST)?(C)?(N)?(4)?OFF\s*/.exec(first)!;
  if (keyword[4]) throw new ScanError('broken', 'Its corners have four coordinates: export it with three.');
  const values = new Float64Array(12);
  // The counts may follow on the first line.
  const rest = first.slice(keyword[0].length).trim();
  const counts = rest ? rest.split(/\s+/).map(Number) : [];
  if (counts.length === 0) {
    const found = lines.numbers(values);
    counts.push(...values.subarray(0, Math.max(0, found)));
  }
  const [corners, faces] = counts;
  if (!isCount(corners) || !isCount(faces))
    throw new ScanError('broken', `Line ${lines.line} should say how many corners and faces there are.`);
  refuseTooMany(faces, 'triangles');
  refuseTooMany(corners, 'points');
  const positions = new Float64Array(3 * corners);
  for (let v = 0; v < corners; v++) {
    if (lines.numbers(values) < 3)
      throw new ScanError(
        'broken',
        `Corner ${v + 1} of ${corners} is missing on line ${lines.line}: the file was cut off, or written wrong.`,
      );
    positions.set(values.subarray(0, 3), 3 * v);
  }
  const triangles: number[] = [];
  const wide = new Float64Array(64);
  for (let f = 0; f < faces; f++) {
    const found = lines.numbers(wide);
    const sides = wide[0]!;
    if (found < 4 || !(sides >= 3 && sides < wide.length && found > sides))
      throw new ScanError(
        'broken',
        `Face ${f + 1} of ${faces} on line ${lines.line} is not written as a number of corners and as many names.`,
      );
    fanned(wide, 1, sides, corners, triangles, `Face ${f + 1}`);
  }
  return { format: 'off', positions, triangles: Uint32Array.from(triangles) };
}

const isCount = (n: number | undefined): n is number => Number.isInteger(n) && n! >= 0;
