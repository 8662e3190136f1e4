import type { TriangleMesh } from '../shape/mesh/mesh';

/**
 * A scan as in its file: corners and triangles, no triangles where the file is a list of points. In the file's own
 * unit.
 */
export interface RawScan extends TriangleMesh {
  format: ScanFormat;
}
export const SCAN_FORMATS = ['stl', 'obj', 'ply', 'off', 'xyz', '3mf'] as const;
export type ScanFormat = (typeof SCAN_FORMATS)[number];

/** What is wrong with a file, and where; for the maker. */
export class ScanError extends Error {
  override name = 'ScanError';
  constructor(
    readonly code: 'unknown-format' | 'broken' | 'empty' | 'too-large',
    message: string,
    options?: ErrorOptions,
  ) {
    super(message, options);
  }
}

/** More than this is neither read nor shown. */
export const MOST_TRIANGLES = 3_000_000;
export const MOST_BYTES = 300e6;
/** Larger coordinates are not an object on a bench, in any unit. */
export const MOST_COORDINATE = 1e7;

export function refuseTooMany(count: number, of: 'triangles' | 'points'): void {
  const most = of === 'triangles' ? MOST_TRIANGLES : 3 * MOST_TRIANGLES;
  if (count > most)
    throw new ScanError(
      'too-large',
      `It says that it has ${count.toLocaleString('en')} ${of}; at most ${most.toLocaleString('en')} are read. Export it coarser.`,
    );
}
