import type { Addition } from '../../core/shape/additions/addition';
import type { Joint } from '../../core/shape/assembly';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Finding } from '../../core/shape/findings/finding';
import type { Bounds } from '../../core/shape/mesh/mesh';
import type { Parameters } from '../../core/shape/recipes/parameters';
import type { LoadResult } from '../../core/shape/strength/loads';

export interface SolidRequest {
  id: number;
  /** A solid for the screen, or the checks on the file's own triangles. */
  want: 'show' | 'check' | 'compare' | 'together';
  recipe: string;
  additions: readonly Addition[];
  parameters: Parameters;
  context: CheckContext;
  /** What it is compared with. */
  before?: { recipe: string; additions: readonly Addition[]; parameters: Parameters };
  /** All parts of the job, and which surfaces go with each other. */
  parts?: readonly { id: string; recipe: string; additions: readonly Addition[]; parameters: Parameters }[];
  joints?: readonly Joint[];
}

/** Parts where they belong. */
export interface ShownAssembly {
  parts: {
    id: string;
    positions: Float32Array;
    min: readonly number[];
    max: readonly number[];
    /** The way it is pulled off. */
    off: readonly number[];
  }[];
  /** Room that two of them share, mm³. */
  shared: { a: string; b: string; volume: number }[];
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
  | { id: number; kind: 'together'; assembly: ShownAssembly; heap: number }
  | { id: number; kind: 'compared'; grown: ShownChange | null; shrunk: ShownChange | null; heap: number }
  | { id: number; kind: 'failed'; findings: Finding[]; heap: number };
