import type { Addition } from '../../core/shape/additions/addition';
import type { Bounds } from '../../core/shape/mesh/mesh';
import type { CheckContext, Finding, Parameters } from '../../core/shape/recipes/recipe';
import type { LoadResult } from '../../core/shape/strength/loads';

export interface SolidRequest {
  id: number;
  /** A solid for the screen, or the checks on the file's own triangles. */
  want: 'show' | 'check' | 'compare';
  recipe: string;
  additions: readonly Addition[];
  parameters: Parameters;
  context: CheckContext;
  /** What it is compared with. */
  before?: { recipe: string; additions: readonly Addition[]; parameters: Parameters };
}

/** Triangles without sharing, for what grew or shrank. Volume mm³. */
export interface ShownChange {
  positions: Float32Array;
  volume: number;
}

/** A solid as the view takes it: triangles without sharing, sorted by what they belong to. */
export interface ShownSolid {
  positions: Float32Array;
  normals: Float32Array;
  /** Sharp edges, two points each. */
  edges: Float32Array;
  /** Runs of vertices: which mate they are on, null for the rest. */
  groups: { mate: string | null; start: number; count: number }[];
  bounds: Bounds;
  /** mm³ */
  volume: number;
}

export type SolidReply =
  | { id: number; kind: 'shown'; solid: ShownSolid; ms: number; heap: number }
  | { id: number; kind: 'checked'; findings: Finding[]; loads: LoadResult[]; heap: number }
  | { id: number; kind: 'compared'; grown: ShownChange | null; shrunk: ShownChange | null; heap: number }
  | { id: number; kind: 'failed'; findings: Finding[]; heap: number };
