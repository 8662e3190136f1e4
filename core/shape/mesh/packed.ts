import type { TriangleMesh } from './mesh';

/**
 * Several bodies in one block of bytes, exactly as they are in memory, for storing a solid. Little endian: the number
 * of bodies, for each its number of coordinates and of corners, then all coordinates (64-bit floats), then all corners
 * (32-bit). A mesh file would round to 32 bits and lose which corners are shared.
 */
export function packMeshes(meshes: readonly TriangleMesh[]): Uint8Array {
  const header = 4 * (1 + 2 * meshes.length);
  // Floats begin at a multiple of their size.
  const start = Math.ceil(header / 8) * 8;
  const coordinates = meshes.reduce((sum, m) => sum + m.positions.length, 0);
  const corners = meshes.reduce((sum, m) => sum + m.triangles.length, 0);
  const bytes = new Uint8Array(start + 8 * coordinates + 4 * corners);
  const head = new Uint32Array(bytes.buffer, 0, header / 4);
  head[0] = meshes.length;
  let p = start;
  let t = start + 8 * coordinates;
  meshes.forEach(({ positions, triangles }, i) => {
    head[1 + 2 * i] = positions.length;
    head[2 + 2 * i] = triangles.length;
    new Float64Array(bytes.buffer, p, positions.length).set(positions);
    new Uint32Array(bytes.buffer, t, triangles.length).set(triangles);
    p += 8 * positions.length;
    t += 4 * triangles.length;
  });
  return bytes;
}

/** @throws RangeError when the bytes are not what `packMeshes` wrote */
export function unpackMeshes(packed: Uint8Array): TriangleMesh[] {
  // A copy of its own: views need aligned data.
  const bytes = packed.slice();
  const cutOff = () => new RangeError(`Got ${bytes.length} bytes of a kept solid: it is cut off.`);
  if (bytes.length < 4) throw cutOff();
  const count = new Uint32Array(bytes.buffer, 0, 1)[0]!;
  const header = 4 * (1 + 2 * count);
  if (bytes.length < header) throw cutOff();
  const head = new Uint32Array(bytes.buffer, 0, header / 4);
  const sizes = Array.from({ length: count }, (_, i) => [head[1 + 2 * i]!, head[2 + 2 * i]!] as const);
  let p = Math.ceil(header / 8) * 8;
  let t = p + 8 * sizes.reduce((sum, [n]) => sum + n, 0);
  if (bytes.length !== t + 4 * sizes.reduce((sum, [, n]) => sum + n, 0)) throw cutOff();
  return sizes.map(([coordinates, corners]) => {
    const mesh = {
      positions: new Float64Array(bytes.buffer, p, coordinates).slice(),
      triangles: new Uint32Array(bytes.buffer, t, corners).slice(),
    };
    p += 8 * coordinates;
    t += 4 * corners;
    return mesh;
  });
}
