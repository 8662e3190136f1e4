import type { TriangleMesh } from '../shape/mesh/mesh';
import { facing } from '../shape/mesh/mesh';

const HEADER = 80;
const RECORD = 50;

/** Binary STL: no units in the format, so the header says mm. Little endian, 32-bit floats. */
export function writeStl(mesh: TriangleMesh, name: string): Uint8Array {
  const count = mesh.triangles.length / 3;
  const bytes = new Uint8Array(HEADER + 4 + RECORD * count);
  const view = new DataView(bytes.buffer);
  // A file that begins with "solid" would be taken for the text form.
  const header = asciiBytes(`Sagoma mm ${name}`).subarray(0, HEADER);
  bytes.set(header);
  view.setUint32(HEADER, count, true);
  let at = HEADER + 4;
  for (let t = 0; t < count; t++) {
    const normal = facing(mesh, t);
    const length = Math.hypot(...normal) || 1;
    for (const x of normal) at = put(view, at, x / length);
    for (let corner = 0; corner < 3; corner++) {
      const v = 3 * mesh.triangles[3 * t + corner]!;
      for (let axis = 0; axis < 3; axis++) at = put(view, at, mesh.positions[v + axis]!);
    }
    at += 2;
  }
  return bytes;
}

function put(view: DataView, at: number, x: number): number {
  view.setFloat32(at, x, true);
  return at + 4;
}

const asciiBytes = (text: string) =>
  Uint8Array.from(text.normalize('NFKD').replace(/[^\x20-\x7e]/g, '?'), c => c.charCodeAt(0));
