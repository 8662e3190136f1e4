import { type RawScan, refuseTooMany, ScanError } from '../scan-file';
import { TextLines } from '../text-lines';
import { fanned } from './fanned';

/** OBJ: corners and faces; everything else in it is about appearance. */
export function readObj(bytes: Uint8Array): RawScan {
  const lines = new TextLines(bytes);
  const positions: number[] = [];
  const triangles: number[] = [];
  for (let line = lines.next(); line !== null; line = lines.next()) {
    if (line.startsWith('v ')) {
      const [x, y, z] = line.slice(2).trim().split(/\s+/).map(Number);
      if (![x, y, z].every(Number.isFinite))
        throw new ScanError(
          'broken',
          `Line ${lines.line} should be a corner with three numbers: “${line.slice(0, 60)}”.`,
        );
      positions.push(x!, y!, z!);
      refuseTooMany(positions.length / 3, 'points');
    } else if (line.startsWith('f ')) {
      const corners = positions.length / 3;
      // Names may have texture and normal after a slash, and may count back from the last corner.
      const names = line
        .slice(2)
        .trim()
        .split(/\s+/)
        .map(word => Number.parseInt(word, 10))
        .map(n => (n < 0 ? corners + n : n - 1));
      if (names.length < 3)
        throw new ScanError('broken', `The face on line ${lines.line} has ${names.length} corners.`);
      fanned(names, 0, names.length, corners, triangles, `The face on line ${lines.line}`);
      refuseTooMany(triangles.length / 3, 'triangles');
    }
  }
  return { format: 'obj', positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
