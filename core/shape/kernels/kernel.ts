import type { Font } from 'opentype.js';
import type { TriangleMesh } from '../mesh/mesh';
import type { Frame, Point2, Point3 } from '../vector';

/**
 * What a recipe may ask of a geometry kernel. The part kernel works on exact surfaces (B-rep), the mesh kernel on
 * triangles. Lengths mm, angles degrees.
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
  /** It has exact surfaces; a body of triangles has none. */
  readonly kernelBody: unknown;
  /** It exists as triangles only: a thread. Anything made with it becomes triangles too. */
  readonly triangles?: (sagitta: number) => TriangleMesh;
  /** Its two operands, where it was made from two bodies. */
  readonly made?: { readonly by: BodyOperation; readonly from: Body; readonly with: Body };
  /** How it is divided into triangles, where that is not left to its exact surfaces: finer on mates, or faster. */
  readonly asTriangles?: (sagitta: number) => TriangleMesh;
}

/** Whether any of its operands exists as triangles only. */
export const hasTriangles = (body: Body): boolean =>
  body.triangles !== undefined ||
  (body.made !== undefined && (hasTriangles(body.made.from) || hasTriangles(body.made.with)));

/** Whether it must be joined as triangles, because a part of it has no exact surfaces or has triangles of its own. */
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
  /** Revolves an outline in (radius, height) about the frame's up axis. Radius must not be below 0. */
  revolve(outline: Outline, frame?: Frame): Body;
  /** Extrudes an outline in the frame's (x, y) from `z` by `height`. */
  extrude(outline: Outline, z: number, height: number, frame?: Frame): Body;
  /** Several outlines at once as one cutting tool; they must not touch each other. */
  extrudeAll(outlines: readonly Outline[], z: number, height: number, frame?: Frame): Body;
  /** A flat outline in the frame's (x, y), swept along a bend of `radius` towards its x: see `bentFrame`. */
  bend(outline: Outline, radius: number, angle: number, frame?: Frame): Body;
  /** Straight walls from each level's outline to the next; all must have the same number of edges. */
  stack(levels: readonly Level[], frame?: Frame): Body;
  /**
   * Edges rounded, or cut at 45°. An inner edge is filled instead. `along` receives points on an edge, including both
   * ends.
   * @throws KernelError where the surfaces do not allow it, or no edge was selected
   */
  takeOff(
    body: Body,
    along: (points: readonly Point3[]) => boolean,
    how: 'round' | 'chamfer',
    size: number,
  ): Body;
  /** The number of edges that these points lie on. */
  edgesAlong(body: Body, along: (points: readonly Point3[]) => boolean): number;
  /** The other hand: left and right swapped. */
  mirror(body: Body): Body;
  /** A body that exists as triangles only. */
  ofTriangles(make: (sagitta: number) => TriangleMesh): Body;
  fuse(a: Body, b: Body): Body;
  cut(from: Body, tool: Body): Body;
  /** Triangles, welded; `sagitta` is how far a flat may lie from the true surface. */
  mesh(body: Body, sagitta: number): TriangleMesh;
  /** STEP text, exact surfaces, mm, without a time stamp. */
  step(bodies: readonly { body: Body; name: string }[]): Promise<string>;
  /** Reads STEP text, for tests and for neighbours of a part. */
  readStep(text: string): Promise<Body>;
  /** Releases every body made so far. */
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
  /** The same operation on triangles: for the screen, which does not wait for exact surfaces. */
  combine(by: BodyOperation, from: TriangleMesh, other: TriangleMesh): TriangleMesh;
  /** The part of one solid that is outside another; null when there is none. */
  beyond(mesh: TriangleMesh, other: TriangleMesh): TriangleMesh | null;
  /** The intersection of two solids; null where they do not meet. */
  common(a: TriangleMesh, b: TriangleMesh): TriangleMesh | null;
  /** A body grown by at least `by` mm all round; by an eighth more at most, where it has some hundred triangles. */
  grown(mesh: TriangleMesh, by: number): TriangleMesh;
  /** Its convex hull, also for a surface with holes. */
  hull(mesh: TriangleMesh): TriangleMesh;
  /** With fewer triangles, at most `most` where that changes it by less than a tenth of a millimetre. */
  reduced(mesh: TriangleMesh, most: number): TriangleMesh;
  /** Plane outlines inset by `by` mm all round, corners kept sharp; holes run the other way round. */
  inset(loops: readonly (readonly (readonly [number, number])[])[], by: number): [number, number][][];
  /** The footprint of a solid, seen along z: closed lines, holes the other way round. */
  shadow(mesh: TriangleMesh): [number, number][][];
  /** Plane outlines extruded from z = 0; holes run the other way round. */
  extrude(loops: readonly (readonly (readonly [number, number])[])[], height: number): TriangleMesh;
  /** Refuses anything but one closed, outward-facing solid. */
  facts(mesh: TriangleMesh): { ok: true; facts: SolidFacts } | { ok: false; message: string };
}

/** Stored triangles, by SHA-256. */
export type Models = ReadonlyMap<string, TriangleMesh>;

export interface Kernels {
  part: PartKernel;
  mesh: MeshKernel;
  /** The font; only where a part has words on it. */
  font?: Font;
  /** Bodies from files; only where a part is kept clear of one. */
  models?: Models;
}

/** The kernel could not make the shape; the message is for the maker. */
export class KernelError extends Error {
  override name = 'KernelError';
}

/**
 * A crashed WebAssembly program reports in its own words (“memory access out of bounds”), which mean nothing to a
 * maker.
 */
export const isKernelCrash = (error: unknown): boolean =>
  error instanceof Error &&
  (error.name === 'RuntimeError' ||
    /memory access out of bounds|unreachable|table index/i.test(error.message));

export const KERNEL_CRASHED =
  'The geometry kernel ran into something that it cannot work out. Change the last number a little, or make the part simpler.';
