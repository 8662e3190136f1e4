import { strFromU8, unzipSync } from 'fflate';
import { type TriangleMesh, weld } from '../shape/mesh/mesh';

/** Plain readers of files that we wrote ourselves. Lengths mm. */
export function readStl(bytes: Uint8Array): TriangleMesh {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const count = view.getUint32(80, true);
  if (bytes.length !== 84 + 50 * count)
    throw new RangeError(`Got ${bytes.length} bytes, need ${84 + 50 * count}: the STL is cut off.`);
  const corners = new Float64Array(9 * count);
  for (let t = 0; t < count; t++) {
    for (let i = 0; i < 9; i++) corners[9 * t + i] = view.getFloat32(84 + 50 * t + 12 + 4 * i, true);
  }
  return weld(
    corners,
    Uint32Array.from({ length: 3 * count }, (_, i) => i),
  );
}

export function readThreeMf(bytes: Uint8Array): {
  unit: string;
  title: string;
  /** The meshes of its bodies, in order. */
  names: string[];
  meshes: TriangleMesh[];
} {
  const model = strFromU8(unzipSync(bytes)['3D/3dmodel.model']!);
  const numbers = (text: string, tag: string, names: string[]) =>
    [...text.matchAll(new RegExp(`<${tag} ([^>]*)/>`, 'g'))].flatMap(m =>
      names.map(name => Number(new RegExp(`\\b${name}="([^"]*)"`).exec(m[1]!)![1])),
    );
  const meshes = [...model.matchAll(/<object .*?<\/object>/gs)].map(([text]) => ({
    positions: Float64Array.from(numbers(text, 'vertex', ['x', 'y', 'z'])),
    triangles: Uint32Array.from(numbers(text, 'triangle', ['v1', 'v2', 'v3'])),
  }));
  return {
    unit: /<model [^>]*unit="(\w+)"/.exec(model)![1]!,
    names: [...model.matchAll(/<object [^>]*name="([^"]*)"/g)].map(([, name]) => name!),
    title: /name="Title">([^<]*)</.exec(model)![1]!,
    meshes,
  };
}
