import type { Dimension } from '../../core/job/document';
import type { Trace } from '../../core/job/traces';
import type { Tidying } from '../../core/shape/tidy/tidy';
import type { Point2 } from '../../core/shape/vector';
import type { Sized } from '../../core/trace/doubt';
import type { LaidHow } from '../../core/trace/overlay/differences';
import type { Rings, Side } from '../../core/trace/overlay/sides';
import type { Picked, TraceSize } from '../../core/trace/sizes';

/** The page's questions for the worker that holds a picture. Lengths mm, angles degrees; places in the picture px. */

export type TraceAsked = Omit<Trace, 'id' | 'photo' | 'label' | 'trust' | 'refused'>;

/** Something that can be pressed: a side, a rounding, or a whole round hole or disc. */
export interface ShownPiece extends Picked {
  key: string;
  kind: 'side' | 'rounding' | 'round';
  hole: boolean;
  /** Its place in the picture. */
  line: Float32Array;
  /** Its own size and ±, in words that belong to it. */
  words: string;
}

export interface ShownTrace {
  pieces: ShownPiece[];
  /** Width and height of the outline when upright. */
  size: Point2;
  unseen: { at: Point2; diameter: number }[];
  clean: boolean;
  advice: string[];
  /** The number of manual corrections that no longer fit it. */
  lost: number;
  offers: Pick<Tidying, 'key' | 'words'>[];
  /** Degrees off square; left out for a flatbed scan. */
  tilt?: number;
  /** Blur, px. */
  sigma: number;
  /** In the form that recipes take. */
  outline: string;
  holes: { x: number; y: number; diameter: number }[];
  /** Loops that are neither the outline nor round: no recipe's field takes them. */
  others: number;
}

export interface ShownSize {
  of: TraceSize['of'];
  words: string;
  kind: Dimension['kind'];
  value: number;
  /** ± 95 % */
  u: number;
}

/** A part over the picture, and where the trace differs from it; above 0 the trace has more material than the part. */
export interface ShownLaid {
  side: Side;
  /** The part's lines in the picture. */
  rings: Float32Array[];
  /**
   * Short pieces of the traced outline, two ends each in the picture, and how far each is off, NaN where nothing is
   * near.
   */
  spots: { at: Float32Array; off: Float32Array };
  /** 95 % of it is nearer than this. */
  p95: number;
  overlap: number;
  mean: Sized | null;
  pieces: { key: string; kind: ShownPiece['kind']; hole: boolean; off: Sized | null; most: number }[];
  missing: { at: Point2; width: number }[];
}

export type TraceReply<T> = ({ ok: true } & T) | { ok: false; code?: string; message: string };

export interface TraceApi {
  /** Decodes the picture. */
  open(from: { jobId: string; photoId: string }): Promise<TraceReply<{ width: number; height: number }>>;
  trace(asked: TraceAsked, progress: (step: string) => void): Promise<TraceReply<{ trace: ShownTrace }>>;
  /** Corrections of its lines and arcs, and accepted tidying; nothing is traced again. */
  shape(said: Pick<TraceAsked, 'parting' | 'tidy'>): Promise<TraceReply<{ trace: ShownTrace }>>;
  sizes(picked: readonly Picked[]): Promise<TraceReply<{ sizes: ShownSize[] }>>;
  /** A part placed on the trace. */
  lay(shadows: Record<Side, Rings>, how: LaidHow): Promise<TraceReply<{ laid: ShownLaid }>>;
  /** The outline as a file, .svg or .dxf. */
  file(kind: 'svg' | 'dxf', title: string): Promise<TraceReply<{ text: string }>>;
}
