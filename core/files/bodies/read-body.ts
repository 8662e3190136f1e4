import { XMLParser } from 'fast-xml-parser';
import { strFromU8, unzipSync } from 'fflate';
import { type BufferGeometry, Matrix4, type Mesh, Vector3 } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { KernelError, type Kernels } from '../../shape/kernels/kernel';
import { boundsOf, joined, type TriangleMesh, weld } from '../../shape/mesh/mesh';
import { writeStl } from '../stl';

/** What became of a file that somebody brought. */
export type BodyAnswer =
  | { ok: true; stl: Uint8Array; size: [number, number, number]; triangles: number; hull: boolean }
  | { ok: false; message: string };

/** A neighbour is looked at and cut out, not printed: finer than this only costs time. */
const MOST_KEPT = 20_000;
const MOST_READ = 400_000;
const MOST_UNPACKED = 200e6;
const MOST_PLACED = 1000;
/** How far a flat may lie from a STEP file's true surface, mm. */
const STEP_SAGITTA = 0.02;

class NotAModel extends Error {}

/**
 * Triangles of a STEP, STL, OBJ or 3MF file, decided by its content; a surface with holes becomes the hull around
 * it. Nothing in the file is trusted.
 */
export async function readBody(bytes: Uint8Array, kernels: Kernels): Promise<BodyAnswer> {
  try {
    const mesh = await parsed(bytes, kernels);
    const count = mesh.triangles.length / 3;
    if (count === 0) throw new NotAModel('There is no surface in this file.');
    if (count > MOST_READ)
      throw new NotAModel(
        `It has ${count.toLocaleString('en')} triangles; at most ${MOST_READ.toLocaleString('en')} are read. Export it coarser.`,
      );
    if (!mesh.positions.every(x => Math.abs(x) < 1e6))
      throw new NotAModel('Some of its corners are no numbers, or are kilometres away.');
    const closed = kernels.mesh.facts(mesh).ok;
    const solid = kernels.mesh.reduced(closed ? mesh : kernels.mesh.hull(mesh), MOST_KEPT);
    const { min, max } = boundsOf(solid);
    return {
      ok: true,
      stl: writeStl(solid, 'body'),
      size: [max[0] - min[0], max[1] - min[1], max[2] - min[2]],
      triangles: solid.triangles.length / 3,
      hull: !closed,
    };
  } catch (error) {
    if (!(error instanceof NotAModel || error instanceof KernelError)) throw error;
    return { ok: false, message: `${error.message.replace(/\.$/, '')}.` };
  } finally {
    kernels.part.release();
  }
}

/** Parsers of other people's formats throw whatever they like at a broken file; our own errors go on. */
async function parsed(bytes: Uint8Array, kernels: Kernels): Promise<TriangleMesh> {
  try {
    return await trianglesOf(bytes, kernels);
  } catch (error) {
    if (error instanceof NotAModel || error instanceof KernelError) throw error;
    throw new NotAModel('This file cannot be read: export it again, as STEP or STL', { cause: error });
  }
}

async function trianglesOf(bytes: Uint8Array, kernels: Kernels): Promise<TriangleMesh> {
  const head = strFromU8(bytes.subarray(0, 400), true);
  if (head.includes('ISO-10303-21')) {
    const body = await kernels.part.readStep(strFromU8(bytes));
    return kernels.part.mesh(body, STEP_SAGITTA);
  }
  if (head.startsWith('PK')) return ofThreeMf(bytes);
  const count = bytes.length >= 84 ? new DataView(bytes.buffer, bytes.byteOffset).getUint32(80, true) : -1;
  if (bytes.length === 84 + 50 * count || /^\s*solid[\s\S]*facet/i.test(head)) {
    const buffer = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    return ofGeometry(new STLLoader().parse(buffer));
  }
  if (/^\s*(#|v |vn |vt |o |g |mtllib )/m.test(head)) return ofObj(strFromU8(bytes));
  throw new NotAModel('Sagoma cannot read this file: choose STEP, STL, OBJ or 3MF.');
}

function ofGeometry(geometry: BufferGeometry): TriangleMesh {
  const positions = Float64Array.from(geometry.getAttribute('position').array);
  return weld(
    positions,
    Uint32Array.from({ length: positions.length / 3 }, (_, i) => i),
  );
}

function ofObj(text: string): TriangleMesh {
  const parts: TriangleMesh[] = [];
  new OBJLoader().parse(text).traverse(child => {
    const { isMesh, geometry } = child as Mesh;
    if (isMesh) parts.push(ofGeometry(geometry));
  });
  const whole = joined(parts);
  return weld(whole.positions, whole.triangles);
}

const list = <T>(x: T | T[] | undefined): T[] => (x === undefined ? [] : Array.isArray(x) ? x : [x]);

interface Object3mf {
  id: string;
  mesh?: { vertices: { vertex: Attributes[] }; triangles: { triangle: Attributes[] } };
  components?: { component: Attributes | Attributes[] };
}
type Attributes = Record<string, string>;

/** Of a 3MF package's unit, mm. 3MF Core Specification 1.3, 3.4. */
const UNITS: Readonly<Record<string, number>> = {
  micron: 0.001,
  millimeter: 1,
  centimeter: 10,
  inch: 25.4,
  foot: 304.8,
  meter: 1000,
};

function ofThreeMf(bytes: Uint8Array): TriangleMesh {
  let unpacked = 0;
  const files = unzipSync(bytes, {
    filter: file => {
      unpacked += file.originalSize;
      if (unpacked > MOST_UNPACKED) throw new NotAModel('It unpacks to more than 200 MB: export it coarser.');
      return /\.model$/i.test(file.name);
    },
  });
  const [name] = Object.keys(files).sort((a, b) => a.length - b.length);
  if (!name) throw new NotAModel('This package holds no 3MF model.');
  const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: '', processEntities: false });
  const { model } = parser.parse(strFromU8(files[name]!)) as {
    model?: Attributes & {
      resources?: { object?: Object3mf | Object3mf[] };
      build?: { item?: Attributes | Attributes[] };
    };
  };
  if (!model) throw new NotAModel('This package holds no 3MF model.');
  const objects = new Map(list(model.resources?.object).map(o => [String(o.id), o]));
  const factor = UNITS[model.unit ?? 'millimeter'] ?? 1;
  let placements = 0;
  const placed = (id: string, at: Matrix4, depth: number): TriangleMesh[] => {
    const object = objects.get(id);
    if (!object || depth > 8) return [];
    // Components of components multiply: a file of some kilobytes could ask for millions.
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

/** Twelve numbers, row by row of the transposed matrix, as the specification has them. */
function matrixOf(text: string | undefined): Matrix4 {
  if (!text) return new Matrix4();
  const n = text.trim().split(/\s+/).map(Number);
  if (n.length !== 12 || !n.every(Number.isFinite))
    throw new NotAModel('Its bodies are placed by no numbers.');
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
  // A mirrored body is inside out.
  if (at.determinant() >= 0) return { positions: moved, triangles };
  const turned = triangles.slice();
  for (let t = 0; t < turned.length; t += 3) [turned[t], turned[t + 1]] = [turned[t + 1]!, turned[t]!];
  return { positions: moved, triangles: turned };
}
