import type { PIECE_LAYS, Scan, ScanPiece } from '../job/scans';
import { PROBABLY_AS_DRAWN } from '../scan/test-piece';

/**
 * What a thin print of a scan's section tells about the object's size: the print's own size plus its play. That is a
 * caliper-like reading of the same size that the scan has. Lengths mm, across the whole width.
 */

/** A size of the object as the scan has it, and as it was measured by hand. */
export interface ReadBothWays {
  /** The dimension, or the test piece and its direction. */
  key: string;
  label: string;
  scanned: number;
  read: number;
  u: number;
}

type PieceLayName = (typeof PIECE_LAYS)[number];

/** The clearance that each answer stands for, and its uncertainty, sd. Common practice, no source. */
const PLAY: Record<PieceLayName, { words: string; play: number; u: number }> = {
  not: { words: 'does not go', play: -0.25, u: 0.2 },
  push: { words: 'goes with a push', play: 0.03, u: 0.05 },
  slides: { words: 'lies in it without play', play: 0.15, u: 0.08 },
  loose: { words: 'can be moved about', play: 0.6, u: 0.25 },
};

export const LAY_WORDS = Object.fromEntries(
  Object.entries(PLAY).map(([name, { words }]) => [name, words]),
) as Record<PieceLayName, string>;

/** The uncertainty of a measured play, and of calipers on the print. Common practice, no source. */
const [U_PLAY, U_PRINTED] = [0.05, 0.03];

const WAYS = ['left to right', 'front to back'] as const;

/** Both directions of each piece that was tried on the object. */
export const piecesRead = (scan: Pick<Scan, 'pieces'>): ReadBothWays[] =>
  (scan.pieces ?? []).flatMap((piece, i) =>
    piece.tried ? WAYS.map((_, way) => readOff(piece, way as 0 | 1, i)) : [],
  );

function readOff(piece: ScanPiece, way: 0 | 1, nth: number): ReadBothWays {
  const { lay, play, printed } = piece.tried!.lay[way];
  const scanned = piece.across[way];
  const into = piece.form === 'plate' ? 1 : -1;
  const own = printed ?? scanned - into * piece.clearance;
  const clearance = play ?? PLAY[lay].play;
  return {
    key: `${piece.id} ${way}`,
    label: `Test piece ${nth + 1}, ${WAYS[way]}`,
    scanned,
    // A plate is smaller than the object by its play, a frame larger.
    read: own + into * clearance,
    u: Math.hypot(
      play === undefined ? PLAY[lay].u : U_PLAY,
      printed === undefined ? PROBABLY_AS_DRAWN : U_PRINTED,
    ),
  };
}

/** “ Its test piece stood off at its left and back.”; empty where none did. */
export function stoodOff({ pieces }: Pick<Scan, 'pieces'>): string {
  const off = [...new Set((pieces ?? []).flatMap(p => p.tried?.off ?? []))];
  return off.length > 0 ? ` Its test piece stood off at its ${off.join(' and ')}: look there.` : '';
}
