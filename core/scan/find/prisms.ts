import { solved } from '../../quantity/linear';
import { cross, dot, lengthOfVector, moved, type Point3, scaled } from '../../shape/vector';
import { type Found, settled } from '../fit/fit';
import { grownOver, regionAbout, startOn } from '../fit/grow';
import { isPrism, type Prism } from '../fit/primitive';
import { middleOf } from '../fit/refine';
import type { ScanSurface } from '../scan-surface';

/** Regular prisms among planes: flats around one axis, at equal distances and angles. */

/** The most sides are tried first: a hexagon's flats contain no square, but an octagon's do. */
const SIDES = [8, 6, 5, 4];
/** How far a flat may be turned out of its place, degrees, and how far off, mm and as a share of half the width. */
const [TURNED, OFF, OFF_SHARE] = [2, 0.25, 0.02];

interface Flat {
  found: Found;
  normal: Point3;
  middle: Point3;
}

/** @param found planes among them, from the same scan */
export function prismsOf(scan: ScanSurface, found: readonly Found[]): (Found & { flats: Found[] })[] {
  const planes = found.flatMap((f): Flat[] =>
    f.surface.kind === 'plane'
      ? [{ found: f, normal: f.surface.normal, middle: middleOf(f.corners.map(v => scan.point(v))) }]
      : [],
  );
  const taken = new Set<Found>();
  const prisms: (Found & { flats: Found[] })[] = [];
  for (const sides of SIDES)
    for (const a of planes)
      for (const b of planes) {
        if (taken.has(a.found) || taken.has(b.found) || !turnedBy(a.normal, b.normal, 360 / sides)) continue;
        const prism = standing(planes, a, b, sides);
        const fit = prism && fitted(scan, prism.start, prism.flats);
        if (!fit) continue;
        const flats = prism.flats.map(f => f.found);
        for (const f of flats) taken.add(f);
        prisms.push({ ...fit, flats });
      }
  return prisms;
}

/** The regular prism that a place is on, from the flats around it. @param sides null: any number */
export function prismAt(scan: ScanSurface, near: Point3, radius: number, sides: number | null): Found | null {
  const surfels = scan.surfels(radius / 8);
  const left = new Uint8Array(surfels.count);
  const inside: number[] = [];
  for (let s = 0; s < surfels.count; s++) {
    if (lengthOfVector(moved(surfels.point(s), near, -1)) > PRISM_REACH * radius) continue;
    left[s] = 1;
    inside.push(s);
  }
  const isFree = (s: number) => left[s] === 1;
  const flats: Found[] = [];
  for (const s of inside) {
    if (!left[s]) continue;
    left[s] = 0;
    const region = regionAbout(surfels, s, 3 * surfels.cell, isFree);
    if (region.length < 6) continue;
    const start = startOn(surfels, 'plane', region);
    const grown = start && grownOver(surfels, scan.fuzz, start, region, isFree);
    if (!grown || grown.region.length < 8) continue;
    for (const r of grown.region) left[r] = 0;
    const fit = settled(scan, surfels, grown);
    if (fit) flats.push(fit);
  }
  const prisms = prismsOf(scan, flats).filter(
    p => sides === null || (isPrism(p.surface) && p.surface.sides === sides),
  );
  const seed = scan.nearest(near);
  return prisms.find(p => p.corners.includes(seed)) ?? prisms[0] ?? null;
}

/** Its far flats are this many times as far from a place on it as the radius that is searched. */
const PRISM_REACH = 2.5;

const turnedBy = (a: Point3, b: Point3, degrees: number): boolean =>
  Math.abs((Math.acos(Math.max(-1, Math.min(1, dot(a, b)))) * 180) / Math.PI - degrees) < TURNED;

/** The prism that two neighbouring flats suggest, where enough others are around the same axis. */
function standing(
  planes: readonly Flat[],
  a: Flat,
  b: Flat,
  sides: number,
): { start: Prism; flats: Flat[] } | null {
  const along = cross(a.normal, b.normal);
  const axis = scaled(along, 1 / lengthOfVector(along));
  const side = cross(axis, a.normal);
  const step = (2 * Math.PI) / sides;
  const places = planes.flatMap(flat => {
    const [u, v] = [dot(flat.normal, a.normal), dot(flat.normal, side)];
    if (Math.hypot(u, v) < Math.cos((TURNED * Math.PI) / 180)) return [];
    const turn = Math.atan2(v, u) / step;
    const place = Math.round(turn);
    if (Math.abs(turn - place) * step > (TURNED * Math.PI) / 180) return [];
    return [{ flat, place: (place + sides) % sides }];
  });
  const about = a.middle;
  for (const third of places.filter(p => p.place > 1)) {
    const of = (flat: Flat, place: number) => {
      const [c, s] = [Math.cos(place * step), Math.sin(place * step)];
      const off = moved(flat.middle, about, -1);
      return { row: [c, s, 1], far: dot(off, a.normal) * c + dot(off, side) * s };
    };
    const three = [of(a, 0), of(b, 1), of(third.flat, third.place)];
    const told = solved(
      three.map(t => t.row),
      three.map(t => t.far),
    );
    if (!told) continue;
    const [u, v, w] = told as [number, number, number];
    const at = moved(moved(about, a.normal, u), side, v);
    const width = Math.abs(w);
    const flats = Array.from({ length: sides }, (_, place) =>
      places
        .filter(p => p.place === place && isFlatOf(p.flat, at, axis, w, sides))
        .map(p => p.flat)
        .sort((p, q) => q.found.area - p.found.area)
        .slice(0, 1),
    ).flat();
    const enough = sides === 4 ? 4 : Math.ceil((2 * sides) / 3);
    if (flats.length < enough || !flats.includes(a) || !flats.includes(b)) continue;
    const kind = sides === 6 ? 'hexagon' : 'prism';
    return { start: { kind, axis, at, x: a.normal, sides, radius: width }, flats };
  }
  return null;
}

/** In a socket the flats face inwards: its half width is below 0. */
function isFlatOf({ normal, middle }: Flat, at: Point3, axis: Point3, half: number, sides: number): boolean {
  const off = moved(middle, at, -1);
  const beside = moved(off, axis, -dot(off, axis));
  const far = dot(beside, normal);
  const most = OFF + OFF_SHARE * Math.abs(half);
  const reach = Math.abs(half) * Math.tan(Math.PI / sides) + most;
  return Math.abs(far - half) < most && lengthOfVector(moved(beside, normal, -far)) < reach;
}

/** All flats together constrain each other: their width is surer than that of one pair. */
function fitted(scan: ScanSurface, start: Prism, flats: readonly Flat[]): Found | null {
  const surfels = scan.surfels(0);
  const region = [...new Set(flats.flatMap(f => f.found.corners.map(v => surfels.of[v]!)))];
  const among = new Uint8Array(surfels.count);
  for (const s of region) among[s] = 1;
  const grown = grownOver(surfels, scan.fuzz, start, region, s => among[s] === 1);
  const fit = grown && settled(scan, surfels, grown);
  return fit && isPrism(fit.surface) && fit.surface.radius > 0 ? fit : null;
}
