import type { Attempt } from '../../core/print/attempt';
import type { GcodeFile } from '../../core/print/gcode/file';
import type { Looked } from '../../core/print/gcode/look';
import type { Planned } from '../../core/print/gcode/match';
import type { SupportRules } from '../../core/print/hangs';
import type { PosesAsked, RankedPose } from '../../core/print/lay';
import type { OverAir, OverAirAsked } from '../../core/print/over-air/over-air';
import type { Remedy } from '../../core/print/over-air/remedies';
import type { SliceSays } from '../../core/print/slice';
import type { SplitAsked } from '../../core/print/split-where';
import type { Estimate } from '../../core/print/time';
import type { Addition } from '../../core/shape/additions/addition';
import type { Press } from '../../core/shape/additions/pressed';
import type { Joint } from '../../core/shape/assembly';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Finding } from '../../core/shape/findings/finding';
import type { Bounds } from '../../core/shape/mesh/mesh';
import type { Mover, Nudge } from '../../core/shape/movers';
import type { Parameters } from '../../core/shape/recipes/parameters';
import type { Span } from '../../core/shape/span/span';
import type { spanMovers } from '../../core/shape/span/span-movers';
import type { LoadResult } from '../../core/shape/strength/loads';
import type { Place, Point3 } from '../../core/shape/vector';
import type { Rings, Side } from '../../core/trace/overlay/sides';

/** A part to be built: everything that its solid depends on. */
export interface AskedPart {
  recipe: string;
  additions: readonly Addition[];
  parameters: Parameters;
}

/** Every answer states the size of the kernel's heap, bytes. */
export type Answer<T> = { heap: number } & (({ ok: true } & T) | { ok: false; findings: Finding[] });

/** The tasks of the worker with the geometry kernels; each call has one answer. */
export interface SolidApi {
  /** A solid for the screen. */
  show(part: AskedPart): Promise<Answer<{ solid: ShownSolid; ms: number }>>;
  /** The checks on the file's own triangles. */
  check(
    part: AskedPart,
    context: CheckContext,
  ): Promise<{ heap: number; ok: boolean; findings: Finding[]; loads: LoadResult[] }>;
  /** The name of a pressed face, by which it is found again when sizes change. */
  nameFace(part: AskedPart, press: Press): Promise<Answer<{ place: string }>>;
  /** The numbers that move the surface at a place; those that were not tried when time ran out are left out. */
  movers(
    part: AskedPart,
    press: Press,
    nudges: readonly Nudge[],
  ): Promise<Answer<{ movers: Mover[]; tried: number }>>;
  /** The size between two pressed faces, or across one hole or boss, and the numbers that change it. */
  span(
    part: AskedPart,
    places: readonly Place[],
    nudges: readonly Nudge[],
  ): Promise<Answer<{ found: ReturnType<typeof spanMovers>; tried: number }>>;
  /** Where a number appears on the solid: between which faces, or which place it moves and where to. */
  stands(part: AskedPart, asked: StandsAsked): Promise<Answer<{ stands: Stands | null }>>;
  /** What grew and shrank from one part to the other. */
  compare(
    part: AskedPart,
    before: AskedPart,
  ): Promise<Answer<{ grown: ShownChange | null; shrunk: ShownChange | null }>>;
  /** The possible poses on the bed, the best first; none for a part in pieces, which are already laid. */
  poses(
    part: AskedPart,
    asked: PosesAsked,
  ): Promise<
    Answer<{
      poses: ShownPose[];
      pieces: number;
      /** For a part in pieces: time and plastic of all of them at once. */
      laid: Estimate | null;
    }>
  >;
  /**
   * What hangs over air in the current pose, on the solid in that pose; a part in pieces is taken as its pieces lie.
   */
  overAir(part: AskedPart, asked: OverAirAsked): Promise<Answer<{ solid: ShownSolid; hangs: ShownHang[] }>>;
  /** By place in the list of what hangs over air: what would avoid its support. */
  /** @param found called for each as soon as it is known, with its place in the list */
  remedies(
    part: AskedPart,
    asked: OverAirAsked,
    found: (place: number, remedy: Remedy) => void,
  ): Promise<Answer<{ remedies: Record<number, Remedy> }>>;
  /** Where a part that is too large is best cut in two; null where no cut makes it small enough. */
  split(part: AskedPart, asked: SplitAsked): Promise<Answer<{ attempt: Attempt | null }>>;
  /** Test slices of a part, one for each of these surfaces, then those that carry several near each other. */
  slices(
    part: AskedPart,
    surfaces: readonly string[],
    asked: Pick<PosesAsked, 'now' | 'settings' | 'machine'>,
  ): Promise<Answer<{ slices: ShownSlice[]; whole: Estimate }>>;
  /** What a sliced file is, compared with versions of a part; progress in shares. */
  sliced(
    file: File,
    versions: readonly (AskedPart & { id: string })[],
    planned: Planned,
    rules: SupportRules,
    progress: (share: number) => void,
  ): Promise<{ heap: number } & ({ ok: true; sliced: Sliced } | { ok: false; message: string })>;
  /** The silhouette of a part, seen from each of its sides. */
  shadows(part: AskedPart): Promise<Answer<{ shadows: Record<Side, Rings> }>>;
  /** All parts of a job, with the surfaces that mate with each other. */
  together(
    parts: readonly (AskedPart & { id: string })[],
    joints: readonly Joint[],
  ): Promise<Answer<{ assembly: ShownAssembly }>>;
}

/** A number of the part, made larger by a step. Lengths mm, angles in degrees. */
export interface StandsAsked {
  size: number;
  angle: boolean;
  nudge: Nudge;
  /** Two faces, or one hole or boss, that were pressed: measured there. */
  pressed?: readonly Place[];
}

export type Stands = { is: 'span'; span: Span } | { is: 'place'; at: Point3; along: Point3 };

/** What hangs over air, with the surfaces that must fit by their names. */
export interface ShownHang extends Omit<OverAir, 'mates' | 'places' | 'carriedAt'> {
  mates: string[];
}

/** A sliced file for the page. Times min, lengths mm. */
export interface Sliced {
  looked: Looked;
  minutes: number;
  /** For the filament diameter in the file, or 1.75. */
  volume: number;
  said: GcodeFile['said'];
  rolesKnown: boolean;
}

/** A test slice with its time, plastic and picture, PNG; or why there is none. */
/** Surfaces that it carries. */
export type ShownSlice = { surfaces: string[] } & (
  | { ok: true; estimate: Estimate; says: SliceSays[]; picture: Uint8Array }
  | { ok: false; why: string }
);

/** One pose on the bed, with a picture of it, PNG. */
export interface ShownPose extends RankedPose {
  reasons: string[];
  picture: Uint8Array;
}

/** Parts in their places. */
export interface ShownAssembly {
  parts: {
    id: string;
    positions: Float32Array;
    min: readonly number[];
    max: readonly number[];
    /** The direction in which it is pulled off. */
    off: readonly number[];
  }[];
  /** Overlap of two of them, mm³. */
  shared: { a: string; b: string; volume: number }[];
}

/** Triangles without shared vertices, for what grew or shrank. Volume mm³. */
export interface ShownChange {
  positions: Float32Array;
  volume: number;
}

/** A solid for the view: triangles without shared vertices, sorted by their mate. */
export interface ShownSolid {
  positions: Float32Array;
  normals: Float32Array;
  /** Sharp edges, two points each. */
  edges: Float32Array;
  /** Runs of vertices: the mate that they are on, null for the rest. */
  groups: { mate: string | null; start: number; count: number }[];
  bounds: Bounds;
  /** mm³ */
  volume: number;
}
