import { type RawScan, refuseTooMany, ScanError } from '../scan-file';
import { TextLines } from '../text-lines';

/** A list of points, three numbers a line, further numbers ignored; null where it is not one. */
export function readPoints(bytes: Uint8Array): RawScan | null {
  const lines = new TextLines(bytes);
  const values = new Float64Array(8);
  const found: number[] = [];
  for (let count = lines.numbers(values); count >= 0; count = lines.numbers(values)) {
    const right = count >= 3 && [0, 1, 2].every(i => Number.isFinite(values[i]));
    if (!right) {
      // It may begin with a heading, or the number of points.
      if (found.length === 0 && lines.line <= 2) continue;
      if (found.length < 30) return null;
      throw new ScanError('broken', `Line ${lines.line} should be a point, with three numbers.`);
    }
    found.push(values[0]!, values[1]!, values[2]!);
    refuseTooMany(found.length / 3, 'points');
  }
  return found.length < 30
    ? null
    : { format: 'xyz', positions: Float64Array.from(found), triangles: new Uint32Array(0) };
}
