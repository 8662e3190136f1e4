import type { Scan } from '../../core/job/document';
import type { FindingKind, ScanFinding } from '../../core/scan/find/findings';
import type { PrimitiveKind } from '../../core/scan/fit/primitive';
import type { Judged } from '../../core/scan/judge';
import type { CutPlane } from '../../core/scan/section/cut';
import type { Bounds } from '../../core/shape/mesh/mesh';
import type { Point3 } from '../../core/shape/vector';

/** What the page asks the worker that holds a scan. Lengths mm, in the scan's coordinates after its steps. */

export interface ScanAsked extends Pick<Scan, 'unit' | 'steps'> {
  /** A kept scan, or a file that somebody just chose. */
  from: { jobId: string; scanId: string } | { file: Blob };
  /** Scans of the same job that its steps put together with it. */
  others?: readonly OtherScan[];
}

export type OtherScan = Pick<Scan, 'id' | 'unit' | 'steps'> & { jobId: string };

/** What happens meanwhile, and how far it is, 0 to 1. */
export type Progress = (what: string, share: number) => void;

export interface ShownScan {
  positions: Float32Array;
  normals: Float32Array;
  triangles: Uint32Array;
  bounds: Bounds;
  /** As its file came, and as it is after its steps. */
  before: Judged;
  after: Judged;
  /** Fewer triangles are shown than are measured on. */
  reduced: boolean;
  hasSurface: boolean;
}

export interface ShownFinding extends Omit<ScanFinding, 'corners' | 'kind'> {
  kind: FindingKind;
  /** The same place on the scan as it came, mm: there it is found again after other steps. */
  placeAsCame: Point3;
  /** Corners of what is shown. */
  shown: Uint32Array;
}

export interface ShownSection {
  loops: {
    closed: boolean;
    /** x, y, z of its points one after another, where they lie in the scan. */
    line: Float32Array;
    /** mm */
    length: number;
    words: string;
  }[];
  /** The closed lines as an outline and circles for a recipe; null where none closes. */
  profile: {
    outline: string;
    width: number;
    depth: number;
    circles: { x: number; y: number; diameter: number }[];
  } | null;
  notes: string[];
}

/** How a scanned print lies against its part: above 0 outside of it. */
export interface ShownAgainst {
  mean: number;
  rms: number;
  p95: number;
  max: number;
  /** mm² that was compared. */
  area: number;
  /** Share of the scan that lies on the part. */
  overlap: number;
  /** At each corner of what is shown; NaN where it was not compared. */
  offs: Float32Array;
}

export type ScanReply<T> = ({ ok: true } & T) | { ok: false; message: string };

export interface ScanApi {
  open(scan: ScanAsked, progress: Progress): Promise<ScanReply<{ scan: ShownScan }>>;
  find(progress: Progress): Promise<ScanReply<{ findings: ShownFinding[] }>>;
  fit(asked: {
    kind: PrimitiveKind;
    near: Point3;
    radius: number;
  }): Promise<ScanReply<{ finding: ShownFinding }>>;
  /** @param part corners of the part's triangles, x, y, z one after another */
  against(part: Float32Array, progress: Progress): Promise<ScanReply<{ against: ShownAgainst }>>;
  /** Lays another scan of the object on this one, whatever way they lie. */
  lay(
    other: OtherScan,
    progress: Progress,
  ): Promise<ScanReply<{ turn: number[]; shift: Point3; rms: number; overlap: number }>>;
  section(plane: CutPlane): Promise<ScanReply<{ section: ShownSection }>>;
}
