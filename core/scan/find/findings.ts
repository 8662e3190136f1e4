import { dot, moved, type Point3, scaled } from '../../shape/vector';
import type { Found } from '../fit/fit';
import { isPrism, type PrimitiveKind } from '../fit/primitive';
import type { ScanSurface } from '../scan-surface';
import { findAll } from './find';
import { prismsOf } from './prisms';
import { acrossOf, isSeenFromInside, patternsOf, slotsOf } from './sets';

/**
 * What a scan shows, as a maker would list it: each feature with its sizes, ready to be taken as a reading. Lengths mm.
 */

export type FindingKind = PrimitiveKind | 'across' | 'pitch' | 'slot';

/** One size of a feature. */
export interface FoundSize {
  /** What is measured, in a word or two. */
  of: string;
  /** How calipers would measure it. */
  kind: 'outside' | 'inside' | 'step' | 'length' | 'angle';
  value: number;
  /** Standard uncertainty, form included; the scan's own scale is not in it. */
  u: number;
}

export interface ScanFinding {
  kind: FindingKind;
  /** What it is, in words: “Bore”. */
  title: string;
  sizes: FoundSize[];
  /** How far round it was seen, degrees; null where that means nothing. */
  coverage: number | null;
  /** mm² */
  area: number;
  rms: number;
  /** A place on it, by which it is found again. */
  near: Point3;
  /** For a view: its normal or its axis. */
  axis: Point3 | null;
  /** A place on its axis, or its centre. */
  centre: Point3;
  /** Corners of the scan. */
  corners: number[];
}

/** A cylinder seen over less than this is more likely a rounding than a bore, degrees. */
const ROUNDING = 100;

export function findingsOf(scan: ScanSurface, progress?: (share: number) => void): ScanFinding[] {
  const found = findAll(scan, progress);
  const prisms = prismsOf(scan, found);
  const slots = slotsOf(scan, found);
  const patterns = patternsOf(scan, found);
  const parts = new Set([...prisms.flatMap(p => p.flats), ...slots.flatMap(s => s.ends)]);
  const single = [...found.filter(f => !parts.has(f)), ...prisms].map(f => findingOf(scan, f));
  return [
    ...single.filter(f => f.kind !== 'plane'),
    ...slots.map((s): ScanFinding => {
      const [a, b] = s.ends;
      return {
        kind: 'slot',
        title: isSeenFromInside(scan, a) ? 'Slot' : 'Key',
        sizes: [
          { of: 'width', kind: isSeenFromInside(scan, a) ? 'inside' : 'outside', value: s.width, u: s.u },
          {
            of: 'length',
            kind: isSeenFromInside(scan, a) ? 'inside' : 'outside',
            value: s.length,
            u: 1.5 * s.u,
          },
        ],
        coverage: a.coverage + b.coverage,
        area: a.area + b.area,
        rms: Math.max(a.rms, b.rms),
        near: placeOn(scan, a),
        axis: s.axis,
        centre: s.centre,
        corners: [...a.corners, ...b.corners],
      };
    }),
    ...patterns.map((p): ScanFinding => {
      const sizes: FoundSize[] =
        p.kind === 'pitch-circle'
          ? [{ of: 'pitch circle', kind: 'length', value: p.diameter, u: p.u }]
          : p.pitch.map((value, i) => ({
              of:
                p.pitch.length > 1
                  ? `pitch ${i === 0 ? 'one way' : 'the other way'}`
                  : 'from middle to middle',
              kind: 'length',
              value,
              u: p.u,
            }));
      const holes = p.holes.every(h => isSeenFromInside(scan, h)) ? 'holes' : 'pegs';
      return {
        kind: 'pitch',
        title: `${p.holes.length} ${holes} ${p.kind === 'grid' ? 'in rows' : 'on a circle'}`,
        sizes,
        coverage: null,
        area: p.holes.reduce((sum, h) => sum + h.area, 0),
        rms: Math.max(...p.holes.map(h => h.rms)),
        near: placeOn(scan, p.holes[0]!),
        axis: p.axis,
        centre: placeOn(scan, p.holes[0]!),
        corners: p.holes.flatMap(h => h.corners),
      };
    }),
    ...acrossOf(
      scan,
      found.filter(f => !parts.has(f)),
    ).map(
      (a): ScanFinding => ({
        kind: 'across',
        title: a.isMaterial ? 'Between two faces' : 'Gap between two faces',
        sizes: [{ of: 'across', kind: a.isMaterial ? 'outside' : 'inside', value: a.size, u: a.u }],
        coverage: null,
        area: Math.min(...a.faces.map(f => f.area)),
        rms: Math.max(...a.faces.map(f => f.rms)),
        near: placeOn(scan, a.faces[0]),
        axis: a.faces[0].surface.kind === 'plane' ? a.faces[0].surface.normal : null,
        centre: placeOn(scan, a.faces[0]),
        corners: a.faces.flatMap(f => f.corners),
      }),
    ),
    ...single.filter(f => f.kind === 'plane'),
  ];
}

export function findingOf(scan: ScanSurface, f: Found): ScanFinding {
  const { surface } = f;
  const inside = isSeenFromInside(scan, f);
  const side = inside ? 'inside' : 'outside';
  const shared = {
    kind: surface.kind,
    coverage: surface.kind === 'plane' ? null : f.coverage,
    area: f.area,
    rms: f.rms,
    near: placeOn(scan, f),
    axis: surface.kind === 'plane' ? surface.normal : surface.kind === 'sphere' ? null : surface.axis,
    centre: surface.kind === 'sphere' ? surface.centre : surface.at,
    corners: f.corners,
  };
  if (surface.kind === 'plane') return { ...shared, title: 'Flat face', sizes: [] };
  if (surface.kind === 'cone') {
    const along = f.corners.map(v => dot(moved(scan.point(v), surface.at, -1), surface.axis));
    const tan = Math.tan((surface.halfAngle * Math.PI) / 180);
    const ends = [extreme(along, 0.01), extreme(along, 0.99)].map(t => 2 * (surface.radius + t * tan));
    return {
      ...shared,
      title: inside ? 'Tapered bore' : 'Taper',
      sizes: [
        { of: 'at the wide end', kind: side, value: Math.max(...ends), u: f.u },
        { of: 'at the narrow end', kind: side, value: Math.min(...ends), u: f.u },
        { of: 'half-angle', kind: 'angle', value: Math.abs(surface.halfAngle), u: leanDoubt(f.u, along) },
      ],
    };
  }
  const width = {
    of: isPrism(surface) ? 'across flats' : 'diameter',
    kind: side,
    value: 2 * surface.radius,
    u: f.u,
  } as const;
  const title = isPrism(surface)
    ? `${PRISMS[surface.sides] ?? `Prism of ${surface.sides} sides`}${inside ? ' socket' : ''}`
    : surface.kind === 'sphere'
      ? inside
        ? 'Hollow of a ball'
        : 'Ball'
      : f.coverage < ROUNDING
        ? 'Rounding'
        : inside
          ? 'Bore'
          : 'Round outside';
  return { ...shared, title, sizes: [width] };
}

const PRISMS: Readonly<Record<number, string>> = { 4: 'Square', 5: 'Five flats', 6: 'Hexagon', 8: 'Octagon' };

function extreme(values: readonly number[], share: number): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(share * (sorted.length - 1))]!;
}

/** Two ends that are each uncertain by u tilt by this much, degrees. */
function leanDoubt(u: number, along: readonly number[]): number {
  const length = extreme(along, 0.99) - extreme(along, 0.01) || 1;
  return ((u / 2 / length) * Math.SQRT2 * 180) / Math.PI;
}

/** Its corner that is nearest to its middle: certain to be on it. */
function placeOn(scan: ScanSurface, { corners }: Found): Point3 {
  let sum: Point3 = [0, 0, 0];
  for (const v of corners) sum = moved(sum, scan.point(v));
  const middle = scaled(sum, 1 / corners.length);
  let [best, least] = [corners[0]!, Infinity];
  for (const v of corners) {
    const off = moved(scan.point(v), middle, -1);
    const far = dot(off, off);
    if (far < least) [best, least] = [v, far];
  }
  return scan.point(best);
}
