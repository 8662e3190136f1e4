import type { MateSurface } from './mates';
import type { Bounds, TriangleMesh } from './mesh/mesh';
import type { Point3 } from './vector';

/** A mate as measured on the finished triangles. */
export interface MeasuredMate {
  id: string;
  side: 'inside' | 'outside';
  kind: MateSurface['kind'];
  /** Diameter or width across flats, measured on a section of the triangles, mm; NaN when nothing is there. */
  size: number;
  at: Point3;
  axis: Point3;
}

export interface BuiltPart {
  mesh: TriangleMesh;
  /** mm³ and mm². */
  volume: number;
  area: number;
  bounds: Bounds;
  watertight: boolean;
  mates: MeasuredMate[];
  /** The places of its mates, including those of additions. */
  surfaces: MateSurface[];
  /** For a split part: each piece as placed on the bed; `mesh` is all of them. */
  pieces: { name: string; mesh: TriangleMesh }[];
  /** The pieces in their drawn places, for checking mates; the part itself where it is in one piece. */
  whole: TriangleMesh;
}
