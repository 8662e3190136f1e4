import { strFromU8 } from 'fflate';
import type { BufferGeometry, Mesh } from 'three';
import { OBJLoader } from 'three/examples/jsm/loaders/OBJLoader.js';
import { STLLoader } from 'three/examples/jsm/loaders/STLLoader.js';
import { readScan } from '../../scan/read-scan';
import { ScanError } from '../../scan/scan-file';
import { KernelError, type Kernels } from '../../shape/kernels/kernel';
import { boundsOf, joined, type TriangleMesh, weld } from '../../shape/mesh/mesh';
import { writeStl } from '../stl';
import { NotAModel } from './not-a-model';
import { meshOfThreeMf } from './three-mf-mesh';

/** The result of reading a maker's file. */
export type BodyAnswer =
  | { ok: true; stl: Uint8Array; size: [number, number, number]; triangles: number; hull: boolean }
  | { ok: false; message: string };

/** A neighbour is checked and cut out, not printed: a finer one only costs time. */
const MOST_KEPT = 20_000;
const MOST_READ = 400_000;
/** For a surface that a part follows: more than a thinned scan ever has. */
const MOST_SURFACE = 150_000;
/** How far a flat may lie from a STEP file's true surface, mm. */
const STEP_SAGITTA = 0.02;

/**
 * The triangles of a STEP, STL, OBJ or 3MF file, recognised by its content; a surface with holes is replaced by its
 * hull. Nothing in the file is trusted.
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
      throw new NotAModel('Some of its corners are not numbers, or are kilometres away.');
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

/** A surface that a part follows: unchanged, holes and all. Nothing in the file is trusted. */
export function readSurface(bytes: Uint8Array): BodyAnswer {
  try {
    const mesh = readScan(bytes);
    const count = mesh.triangles.length / 3;
    if (count === 0) throw new ScanError('empty', 'Points alone have no surface: export triangles.');
    if (count > MOST_SURFACE)
      throw new ScanError(
        'too-large',
        `It has ${count.toLocaleString('en')} triangles; a part follows at most ${MOST_SURFACE.toLocaleString('en')}. Take it in as a scan, on Measure: it is thinned out there.`,
      );
    const { min, max } = boundsOf(mesh);
    return {
      ok: true,
      stl: writeStl(mesh, 'surface'),
      size: [max[0] - min[0], max[1] - min[1], max[2] - min[2]],
      triangles: count,
      hull: false,
    };
  } catch (error) {
    if (!(error instanceof ScanError)) throw error;
    return { ok: false, message: error.message };
  }
}

/** Parsers of other people's formats throw all sorts of errors on a broken file; our own errors pass through. */
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
  if (head.startsWith('PK')) return meshOfThreeMf(bytes);
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
