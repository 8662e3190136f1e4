import type { Scan } from '../../core/job/scans';
import type { FromPart } from '../../core/scan/against-part';
import type { FindingKind, ScanFinding } from '../../core/scan/find/findings';
import type { PrimitiveKind } from '../../core/scan/fit/primitive';
import type { Judged } from '../../core/scan/judge';
import type { StepDid } from '../../core/scan/prepare';
import type { CutPlane } from '../../core/scan/section/cut';
import type { MirrorPlane } from '../../core/scan/symmetry';
import type { TestPiece } from '../../core/scan/test-piece';
import type { Followed } from '../../core/scan/thinned';
import type { Lay } from '../../core/shape/laid-object';
import type { Bounds } from '../../core/shape/mesh/mesh';
import type { Tidying } from '../../core/shape/tidy/tidy';
import type { Point2, Point3 } from '../../core/shape/vector';

/** The page's questions for the worker that holds a scan. Lengths mm, in the scan's coordinates after its steps. */

export interface ScanAsked extends Pick<Scan, 'unit' | 'steps'> {
  /** A stored scan, or a file that was just chosen. */
  from: { jobId: string; scanId: string } | { file: Blob };
  /** Scans of the same job that its steps merge with it. */
  others?: readonly OtherScan[];
}

export type OtherScan = Pick<Scan, 'id' | 'unit' | 'steps'> & { jobId: string };

/** The current activity, and its progress, 0 to 1. */
export type Progress = (what: string, share: number) => void;

export interface ShownScan {
  positions: Float32Array;
  normals: Float32Array;
  triangles: Uint32Array;
  bounds: Bounds;
  /** As in its file, and after its steps. */
  before: Judged;
  after: Judged;
  /** Fewer triangles are shown than are measured. */
  reduced: boolean;
  hasSurface: boolean;
  /** The results of its steps, by their ids. */
  did: Readonly<Record<string, StepDid>>;
}

export interface ShownFinding extends Omit<ScanFinding, 'corners' | 'kind'> {
  kind: FindingKind;
  /** The same place in the scan's original coordinates, mm: it is found again there after other steps. */
  placeAsCame: Point3;
  /** Corners of what is shown. */
  shown: Uint32Array;
}

export interface ShownSection {
  loops: {
    closed: boolean;
    /** x, y, z of its points in sequence, in the scan's coordinates. */
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
  /** Suggestions for tidying, to be accepted or not. */
  offers: Pick<Tidying, 'key' | 'words'>[];
  /** Lines of other planes, cut at the same time. */
  beside?: ShownSection['loops'];
}

/** A scanned print compared with its part: above 0 outside the part. */
export interface ShownAgainst {
  mean: number;
  rms: number;
  p95: number;
  max: number;
  /** Area that was compared, mm². */
  area: number;
  /** Share of the scan that overlaps the part. */
  overlap: number;
  /** From the part to the scan. */
  back: FromPart;
  /** At each corner of what is shown; NaN where it was not compared. */
  offs: Float32Array;
}

export interface FollowAsked extends Omit<Lay, 'object'> {
  /** True size over scanned size. */
  factor: number;
}

/** Its triangles as a file. */
export type FollowedSurface = Omit<Followed, 'mesh'> & { stl: Uint8Array };

export type ScanReply<T> = ({ ok: true } & T) | { ok: false; message: string };

export interface ScanApi {
  open(scan: ScanAsked, progress: Progress): Promise<ScanReply<{ scan: ShownScan }>>;
  find(progress: Progress): Promise<ScanReply<{ findings: ShownFinding[] }>>;
  fit(asked: {
    kind: PrimitiveKind;
    near: Point3;
    radius: number;
  }): Promise<ScanReply<{ finding: ShownFinding }>>;
  /** @param part corners of the part's triangles, x, y, z in sequence */
  against(part: Float32Array, progress: Progress): Promise<ScanReply<{ against: ShownAgainst }>>;
  /** Aligns another scan of the object with this one, in any pose. */
  lay(
    other: OtherScan,
    progress: Progress,
    /** Places of this scan and the same ones of the other; null for automatic alignment. */
    pairs: readonly (readonly [Point3, Point3])[] | null,
  ): Promise<ScanReply<{ turn: number[]; shift: Point3; rms: number; overlap: number }>>;
  /** @param factor true size over scanned size: its outline has its true size, its lines are on the scan */
  /** Its plane of symmetry, in any orientation. */
  symmetry(progress: Progress): Promise<ScanReply<{ plane: MirrorPlane; rms: number; overlap: number }>>;
  /** @param taken the accepted tidying */
  section(
    plane: CutPlane,
    factor: number,
    taken: readonly string[],
  ): Promise<ScanReply<{ section: ShownSection }>>;
  /** A section's outline as a thin print, 3MF. */
  testPiece(asked: TestPiece & { outline: string; title: string }): Promise<ScanReply<{ file: Uint8Array }>>;
  /** For a part that follows it. @param factor true size over scanned size */
  surface(asked: FollowAsked): Promise<ScanReply<{ surface: FollowedSurface }>>;
  /** The positions of places of it relative to such a part, from above. */
  under(places: readonly Point3[], asked: FollowAsked): Promise<ScanReply<{ places: Point2[] }>>;
}
