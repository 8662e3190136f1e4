import { type RawScan, refuseTooMany, ScanError } from '../scan-file';
import { TextLines } from '../text-lines';

/** STL of both kinds; null where it is neither. @param head the first bytes as text */
export function readStlScan(bytes: Uint8Array, head: string): RawScan | null {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = bytes.length >= 84 ? view.getUint32(80, true) : -1;
  const long = 84 + 50 * count;
  // Some programs begin a binary file with “solid” too: its length decides.
  if (count > 0 && bytes.length === long) return binary(view, count);
  if (/^\s*solid\b/i.test(head) && /\bfacet\b|\bendsolid\b/i.test(head)) return ascii(bytes);
  if (count <= 0 || isText(bytes)) return null;
  refuseTooMany(count, 'triangles');
  if (bytes.length > long && bytes.length - long < 4096) return binary(view, count);
  if (bytes.length < long)
    throw new ScanError(
      'broken',
      `It says ${count.toLocaleString('en')} triangles, and ends in triangle ${Math.max(1, Math.floor((bytes.length - 84) / 50) + 1).toLocaleString('en')}: the file was cut off. Export or copy it again.`,
    );
  return null;
}

function binary(view: DataView, count: number): RawScan {
  refuseTooMany(count, 'triangles');
  const positions = new Float64Array(9 * count);
  for (let t = 0; t < count; t++) {
    const at = 84 + 50 * t + 12;
    for (let i = 0; i < 9; i++) positions[9 * t + i] = view.getFloat32(at + 4 * i, true);
  }
  return { format: 'stl', positions, triangles: Uint32Array.from({ length: 3 * count }, (_, i) => i) };
}

function ascii(bytes: Uint8Array): RawScan {
  const lines = new TextLines(bytes);
  const corners: number[] = [];
  let [inLoop, ended] = [0, false];
  for (let line = lines.next(); line !== null; line = lines.next()) {
    const words = line.trim().toLowerCase().split(/\s+/);
    if (words[0] === 'outer') inLoop = 0;
    else if (words[0] === 'vertex') {
      const [x, y, z] = words.slice(1).map(Number);
      if (![x, y, z].every(Number.isFinite))
        throw new ScanError(
          'broken',
          `Line ${lines.line} should be a corner with three numbers: “${line.trim().slice(0, 60)}”.`,
        );
      corners.push(x!, y!, z!);
      inLoop++;
      refuseTooMany(corners.length / 9, 'triangles');
    } else if (words[0] === 'endloop' && inLoop !== 3)
      throw new ScanError('broken', `The triangle that ends on line ${lines.line} has ${inLoop} corners.`);
    else if (words[0] === 'endsolid') ended = true;
  }
  if (!ended || corners.length % 9 !== 0)
    throw new ScanError('broken', `It ends on line ${lines.line} without “endsolid”: the file was cut off.`);
  const positions = Float64Array.from(corners);
  return {
    format: 'stl',
    positions,
    triangles: Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
  };
}

/** No byte of a text is below the space, except line ends and tabs. */
const isText = (bytes: Uint8Array): boolean =>
  bytes.subarray(0, 2000).every(b => b >= 32 || b === 10 || b === 13 || b === 9);
