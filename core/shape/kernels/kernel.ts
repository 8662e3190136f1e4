import type { Font } from 'opentype.js';
import type { TriangleMesh } from '../mesh/mesh';
import type { Frame, Point2, Point3 } from '../vector';

/**
 * What a recipe may ask of a geometry kernel. The part kernel works on exact surfaces (B-rep), the mesh
 * kernel on triangles. Lengths mm, angles degrees.
 */
/** From the previous point straight to `to`, or along the arc through `via`. */
export interface OutlineEdge {
  to: Point2;
  via?: Point2;
}

/** A closed plane line; the last edge must end at `start`. */
export interface Outline {
  start: Point2;
  edges: readonly OutlineEdge[];
}

/** A solid in the kernel's memory; valid until `release`. */
export interface Body {
  /** Exact surfaces; a body of triangles has none. */
  readonly kernelBody: unknown;
  /** Only triangles are known of it: a thread. What is made with it is made of triangles too. */
  readonly triangles?: (sagitta: number) => TriangleMesh;
  /** What it was made of, where it was made of two bodies. */
  readonly made?: { readonly by: BodyOperation; readonly from: Body; readonly with: Body };
  /** How it is cut into triangles where that is not left to its exact surfaces: finer where it mates, or sooner. */
  readonly asTriangles?: (sagitta: number) => TriangleMesh;
}

/** Whether any of what it was made of is triangles only. */
export const hasTriangles = (body: Body): boolean =>
  body.triangles !== undefined ||
  (body.made !== undefined && (hasTriangles(body.made.from) || hasTriangles(body.made.with)));

/** Whether it must be joined as triangles: some of it is nothing else, or has its own. */
export const joinsAsTriangles = (body: Body): boolean =>
  body.triangles !== undefined ||
  body.asTriangles !== undefined ||
  (body.made !== undefined && (joinsAsTriangles(body.made.from) || joinsAsTriangles(body.made.with)));

/** The same body without its triangle-only parts, for the exact file; null when nothing is left. */
export function exactOf(body: Body, kernel: Pick<PartKernel, 'fuse' | 'cut'>): Body | null {
  if (!hasTriangles(body)) return body;
  if (!body.made) return null;
  const { by, from, with: other } = body.made;
  const [a, b] = [exactOf(from, kernel), exactOf(other, kernel)];
  if (!a) return by === 'fuse' ? b : null;
  return b ? kernel[by](a, b) : a;
}

export type BodyOperation = 'fuse' | 'cut';

/** An outline at a height. */
export interface Level {
  outline: Outline;
  z: number;
}

export interface PartKernel {
  readonly version: string;
  /** Turns an outline in (radius, height) about the frame's way up. Radius must not be below 0. */
  revolve(outline: Outline, frame?: Frame): Body;
  /** Pulls an outline in the frame's (x, y) up from `z` by `height`. */
  extrude(outline: Outline, z: number, height: number, frame?: Frame): Body;
  /** Several outlines at once as one tool to cut with; they must lie apart from each other. */
  extrudeAll(outlines: readonly Outline[], z: number, height: number, frame?: Frame): Body;
  /** A flat outline in the frame's (x, y), swept along a bend of `radius` towards its x: see `bentFrame`. */
  bend(outline: Outline, radius: number, angle: number, frame?: Frame): Body;
  /** Straight walls from each level's outline to the next one's; all must have equally many edges. */
  stack(levels: readonly Level[], frame?: Frame): Body;
  /**
   * Edges taken off: rounded, or cut at 45°. An inner edge is filled instead. `along` is asked with points on an
   * edge, both ends among them.
   * @throws KernelError where the surfaces do not allow it, or no edge was meant
   */
  takeOff(
    body: Body,
    along: (points: readonly Point3[]) => boolean,
    how: 'round' | 'chamfer',
    size: number,
  ): Body;
  /** How many edges these points lie on. */
  edgesAlong(body: Body, along: (points: readonly Point3[]) => boolean): number;
  /** The other hand: left and right changed, the rest as it is. */
  mirror(body: Body): Body;
  /** A body that exists as triangles only. */
  ofTriangles(make: (sagitta: number) => TriangleMesh): Body;
  fuse(a: Body, b: Body): Body;
  cut(from: Body, tool: Body): Body;
  /** Triangles, welded; `sagitta` is how far a flat may lie from the true surface. */
  mesh(body: Body, sagitta: number): TriangleMesh;
  /** STEP text, exact surfaces, mm, without a time stamp. */
  step(bodies: readonly { body: Body; name: string }[]): Promise<string>;
  /** Reads STEP text back, for tests and for neighbours of a part. */
  readStep(text: string): Promise<Body>;
  /** Forgets every body made so far. */
  release(): void;
  /** Bytes of the kernel's heap, which only grows. */
  memory(): number;
}

export interface SolidFacts {
  /** mm³ */
  volume: number;
  /** mm² */
  area: number;
  /** Handles: 0 for a ball, 1 for a ring. */
  genus: number;
  bodies: number;
}

export interface MeshKernel {
  readonly version: string;
  /** The same operation on triangles: for the screen, where exact surfaces are not waited for. */
  combine(by: BodyOperation, from: TriangleMesh, other: TriangleMesh): TriangleMesh;
  /** The part of one solid that is outside another; null when there is none. */
  beyond(mesh: TriangleMesh, other: TriangleMesh): TriangleMesh | null;
  /** What two solids have in common; null where they do not meet. */
  common(a: TriangleMesh, b: TriangleMesh): TriangleMesh | null;
  /** A body with at least `by` mm of room all round; an eighth more at most, where it has some hundred triangles. */
  grown(mesh: TriangleMesh, by: number): TriangleMesh;
  /** The least convex body around it: of a surface with holes too. */
  hull(mesh: TriangleMesh): TriangleMesh;
  /** With fewer triangles, at most `most` where that changes it by less than a tenth of a millimetre. */
  reduced(mesh: TriangleMesh, most: number): TriangleMesh;
  /** Plane lines drawn in by `by` mm all round, corners kept sharp; holes run the other way round. */
  inset(loops: readonly (readonly (readonly [number, number])[])[], by: number): [number, number][][];
  /** What a solid covers, seen along z: closed lines, holes the other way round. */
  shadow(mesh: TriangleMesh): [number, number][][];
  /** Plane lines pulled up from z = 0; holes run the other way round. */
  extrude(loops: readonly (readonly (readonly [number, number])[])[], height: number): TriangleMesh;
  /** Refuses anything but one closed, outward-facing solid. */
  facts(mesh: TriangleMesh): { ok: true; facts: SolidFacts } | { ok: false; message: string };
}

/** Triangles by SHA-256, as they were kept. */
export type Models = ReadonlyMap<string, TriangleMesh>;

export interface Kernels {
  part: PartKernel;
  mesh: MeshKernel;
  /** Letters; there where a part has words on it. */
  font?: Font;
  /** Bodies from elsewhere; there where a part is kept clear of one. */
  models?: Models;
}

/** The kernel could not make the shape; the message is for the maker. */
export class KernelError extends Error {
  override name = 'KernelError';
}

/** A WebAssembly program that ran into a wall says so in its own words (“memory access out of bounds”): not a maker’s. */
export const isKernelCrash = (error: unknown): boolean =>
  error instanceof Error &&
  (error.name === 'RuntimeError' ||
    /memory access out of bounds|unreachable|table index/i.test(error.message));

export const KERNEL_CRASHED =
  'The geometry kernel ran into something that it cannot work out. Change the last number a little, or make the part simpler.';
