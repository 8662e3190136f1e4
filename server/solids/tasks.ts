import type { JobView } from '../../contract/jobs';
import type { RackJob } from '../../contract/rack';
import type { Filed } from '../../core/bench/filed';
import type { PracticePhoto } from '../../core/bench/practice-photo';
import type { World } from '../../core/bench/world';
import type { BodyAnswer } from '../../core/files/bodies/read-body';
import type { FileWords } from '../../core/files/part-files';
import type { Side } from '../../core/fit/wants';
import type { Workshop } from '../../core/job/workshop';
import type { Evidence } from '../../core/learn/lessons';
import type { GaugeAsked } from '../../core/print/gauge';
import type { SupportRules } from '../../core/print/hangs';
import type { Pose } from '../../core/print/pose';
import type { Machine, PrintSettings } from '../../core/print/settings';
import type { Estimate } from '../../core/print/time';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Finding } from '../../core/shape/findings/finding';
import type { SolidRecord } from '../../core/shape/solid';
import type { SolidSpec } from '../../core/shape/solid-key';
import type { Middle, Paper } from '../../core/trace/sheet/layout';
import type { BundleRead } from '../bundle/read-bundle';
import type { PhotoRead } from '../photos/read-photo';
import type { DrawingKind, PaperAsked } from '../sheet/paper';

/**
 * What the kernel threads do: plain data in both directions. Every answer states the size of the kernel's heap, bytes.
 */

/** Where the triangles of bodies from files are, by SHA-256. */
type ModelFiles = Readonly<Record<string, string>>;

/** A solid that was built before. */
export interface KeptSolid {
  key: string;
  record: SolidRecord;
  /** Its triangles' file. */
  meshFile: string;
}

export interface PieceFiles {
  stl: Uint8Array;
  '3mf': Uint8Array;
}

export type SliceMade = { ok: true; estimate: Estimate; files: PieceFiles } | { ok: false; why: string };

export type ScanRead = { ok: true; triangles: number; vertices: number } | { ok: false; message: string };

export type PlateBed = Readonly<{ width: number; depth: number }>;

/** What can be put on a plate. */
export type PlateBody =
  | {
      kind: 'part';
      solid: KeptSolid;
      pose: Pose;
      /** The other hand of it. */
      mirrored?: boolean;
    }
  | { kind: 'slice'; solid: KeptSolid; pose: Pose; surfaces: readonly string[] }
  | { kind: 'ring'; side: Side; sizes: readonly number[]; number: number }
  | ({ kind: 'gauge' } & GaugeAsked);

export interface PlateMade {
  /** Bed by bed: the pieces with their outlines from above, mm. */
  beds: { body: number; outline: [number, number][] }[][];
  /** By body: pieces that fit on no bed. */
  left: number[];
  /** By body: its height, mm. */
  heights: number[];
  /** Why a body could not be made. */
  why: string | null;
  file: Uint8Array | null;
}

export interface Tasks {
  build: {
    asked: { key: string; spec: SolidSpec; modelFiles: ModelFiles };
    answer: { ok: true; record: SolidRecord; packed: Uint8Array } | { ok: false; findings: Finding[] };
  };
  /** Exact surfaces: the kernel's own work once more. */
  step: {
    asked: { spec: SolidSpec; modelFiles: ModelFiles };
    answer: { ok: true; step: Uint8Array } | { ok: false; message: string };
  };
  inspect: {
    asked: { solid: KeptSolid; spec: SolidSpec; context: CheckContext; modelFiles: ModelFiles };
    answer: { findings: Finding[] };
  };
  /** The triangles as files. */
  files: { asked: { solid: KeptSolid; words: FileWords; pose: Pose }; answer: PieceFiles };
  /** How many copies fit on one bed, at most the number asked for. */
  copies: { asked: { of: PlateBody; pieces: number; bed: PlateBed }; answer: { onOneBed: number } };
  /** Time and plastic of printing it, in its pose. */
  estimate: {
    asked: {
      solid: KeptSolid;
      pose: Pose;
      settings: PrintSettings;
      machine: Machine;
      rules: SupportRules;
    };
    answer: { estimate: Estimate };
  };
  /** A slice that carries some mates, as files and with its time and plastic; or why there is none. */
  slice: {
    asked: {
      solid: KeptSolid;
      surfaces: readonly string[];
      words: FileWords;
      pose: Pose;
      settings: PrintSettings;
      machine: Machine;
    };
    answer: { slice: SliceMade };
  };
  /** Parts, slices and rings side by side on as few beds as necessary. */
  plate: {
    asked: {
      bodies: readonly { of: PlateBody; name: string; pieces: number }[];
      bed: PlateBed;
      /** Gap between neighbours, mm; left out, the usual one. */
      gap?: number;
      /** The bed whose file is wanted, with its words; left out, none is. */
      file?: { bed: number; title: string; note: string };
    };
    answer: PlateMade;
  };
  /** @param as a surface keeps its holes: a part follows it */
  readBody: { asked: { file: Uint8Array; as: 'body' | 'surface' }; answer: { body: BodyAnswer } };
  /** The practice scanner's scan, as STL; null where it has no such object. */
  practiceScan: {
    asked: { recipe: string; world: World; count: number };
    answer: { file: Uint8Array | null };
  };
  /** The practice camera's photo, as JPEG, with the accompanying readings; null where the object has no flat face. */
  practicePhoto: {
    asked: { recipe: string; world: World; count: number };
    answer: { photo: (Omit<PracticePhoto, 'picture'> & { file: Uint8Array }) | null };
  };
  /** What a file of a version would print, for the practice printer; a sentence where it is not one. */
  practiceFile: {
    asked: { file: Uint8Array; solid: KeptSolid; pose: Pose };
    answer: { filed: Filed | null; why: string | null };
  };
  drawReferenceSheet: { asked: { paper: Paper; middle: Middle }; answer: { file: Uint8Array } };
  /** Read and discarded again: whether it is a scan, and its size. */
  readScan: { asked: { path: string }; answer: { scan: ScanRead } };
  readPhoto: { asked: { head: Uint8Array }; answer: { photo: PhotoRead } };
  readBundle: { asked: { file: Uint8Array }; answer: { bundle: BundleRead } };
  drawSheet: { asked: PaperAsked; answer: { file: Uint8Array } };
  drawHandOver: { asked: PaperAsked; answer: { file: Uint8Array } };
  drawPart: {
    asked: PaperAsked & { partId: string; kind: DrawingKind };
    answer: { file: Uint8Array };
  };
  tag: {
    asked: { job: JobView; workshop: Workshop; lessons: readonly Evidence[] };
    answer: { tag: RackJob; taught: Evidence[] };
  };
  piece: { asked: Record<string, never>; answer: PieceFiles };
  gauge: { asked: GaugeAsked & { name: string }; answer: PieceFiles };
  ladder: {
    asked: {
      side: Side;
      sizes: readonly number[];
      name: string;
      /** They are arranged in rows on it, mm. */
      bed: { width: number; depth: number };
    };
    answer: PieceFiles;
  };
}

export type TaskName = keyof Tasks;
export type Answer<T extends TaskName> = Tasks[T]['answer'] & { heap: number };
