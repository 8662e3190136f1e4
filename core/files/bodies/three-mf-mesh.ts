import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync } from 'fflate';
import { Matrix4, Vector3 } from 'three';
import { joined, type TriangleMesh, weld } from '../../shape/mesh/mesh';
import { NotAModel } from './not-a-model';

const MOST_UNPACKED = 200e6;
const MOST_PLACED = 1000;

const list = <T>(x: T | T[] | undefined): T[] => (x === undefined ? [] : Array.isArray(x) ? x : [x]);

interface Object3mf {
  id: string;
  mesh?: { vertices: { vertex: Attributes[] }; triangles: { triangle: Attributes[] } };
  components?: { component: Attributes | Attributes[] };
}
type Attributes = Record<string, string>;

/** mm for each unit that a 3MF package may use. 3MF Core Specification 1.3, 3.4. */
const UNITS: Readonly<Record<string, number>> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};

/** Triangles of a 3MF package, in mm, with each body in its place. @throws NotAModel */
export function meshOfThreeMf(bytes: Uint8Array): TriangleMesh {
  let unpacked = 0;
  const files = unzipSync(bytes, {
    filter: file => {
      unpacked += file.originalSize;
      if (unpacked > MOST_UNPACKED) throw new NotAModel('It unpacks to more than 200 MB: export it coarser.');
      return /\.model$/i.test(file.name);
    },
  });
  const [name] = Object.keys(files).sort((a, b) => a.length - b.length);
  if (!name) throw new NotAModel('This package has no 3MF model in it.');
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', processEntities: false });
  const { model } = parser.parse(strFromU8(files[name]!)) as {
    model?: Attributes & {
      resources?: { object?: Object3mf | Object3mf[] };
      build?: { item?: Attributes | Attributes[] };
    };
  };
  if (!model) throw new NotAModel('This package has no 3MF model in it.');
  const objects = new Map(list(model.resources?.object).map(o => [String(o.id), o]));
  const factor = UNITS[model.unit ?? 'millimeter'] ?? 1;
  let placements = 0;
  const placed = (id: string, at: Matrix4, depth: number): TriangleMesh[] => {
    const object = objects.get(id);
    if (!object || depth > 8) return [];
    // Components of components multiply: a file of a few kilobytes could ask for millions.
    if (++placements > MOST_PLACED)
      throw new NotAModel(`It places more than ${MOST_PLACED} bodies: join them.`);
    const own = object.mesh ? [movedBy(meshOf(object.mesh), at)] : [];
    const inner = list(object.components?.component).flatMap(c =>
      placed(String(c.objectid), at.clone().multiply(matrixOf(c.transform)), depth + 1),
    );
    return [...own, ...inner];
  };
  const items = list(model.build?.item);
  const scale = new Matrix4().makeScale(factor, factor, factor);
  const parts = items.flatMap(item =>
    placed(String(item.objectid), scale.clone().multiply(matrixOf(item.transform)), 0),
  );
  const whole = joined(parts);
  return weld(whole.positions, whole.triangles);
}

function meshOf({ vertices, triangles }: NonNullable<Object3mf['mesh']>): TriangleMesh {
  return {
    positions: Float64Array.from(list(vertices.vertex).flatMap(v => [Number(v.x), Number(v.y), Number(v.z)])),
    triangles: Uint32Array.from(
      list(triangles.triangle).flatMap(t => [Number(t.v1), Number(t.v2), Number(t.v3)]),
    ),
  };
}

/** Twelve numbers, row by row of the transposed matrix, as in the specification. */
function matrixOf(text: string | undefined): Matrix4 {
  if (!text) return new Matrix4();
  const n = text.trim().split(/\s+/).map(Number);
  if (n.length !== 12 || !n.every(Number.isFinite))
    throw new NotAModel('The numbers that place its bodies cannot be read.');
  return new Matrix4().fromArray(
    [0, 1, 2, 3].flatMap(row => [...n.slice(3 * row, 3 * row + 3), row === 3 ? 1 : 0]),
  );
}

function movedBy({ positions, triangles }: TriangleMesh, at: Matrix4): TriangleMesh {
  const moved = new Float64Array(positions.length);
  const point = new Vector3();
  for (let i = 0; i < positions.length; i += 3)
    point
      .set(positions[i]!, positions[i + 1]!, positions[i + 2]!)
      .applyMatrix4(at)
      .toArray(moved, i);
  // Mirroring turns a body inside out.
  if (at.determinant() >= 0) return { positions: moved, triangles };
  const turned = triangles.slice();
  for (let t = 0; t < turned.length; t += 3) [turned[t], turned[t + 1]] = [turned[t + 1]!, turned[t]!];
  return { positions: moved, triangles: turned };
}
