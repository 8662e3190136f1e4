import { measureMates, trianglesOfMates } from '../shape/checks/measure';
import type { MeshKernel } from '../shape/kernels/kernel';
import type { MateSurface } from '../shape/mates';
import { bodiesOf, boundsOf, closureOf, joined, type TriangleMesh, volumeOf } from '../shape/mesh/mesh';
import { placedMesh } from '../shape/mesh/placed';
import { sectionAcross } from '../shape/mesh/section';
import { basisOf, dot, moved, negated, point3 } from '../shape/vector';
import { isInside } from '../shape/within';
import { columnsOf } from './columns';
import { type Pose, posed } from './pose';

/**
 * A slice of the real solid that carries one mate, or a few near each other, and no more: printed first where the whole
 * part takes long. Lengths mm.
 */

export type Sliced =
  | { ok: true; mesh: TriangleMesh; volume: number; says: SliceSays[] }
  | { ok: false; why: string };

/** Kept along the mate's axis: this share of its size, within these limits. */
const [LONG_SHARE, LEAST_LONG, MOST_LONG] = [0.35, 6, 12];
/** Wall that is kept around an inside, and what is kept outside an outside. */
const [WALL, OVER] = [4, 1.2];
/** Inside an outside a core is removed, at least this far below its surface. */
const CORE = { least: 4, share: 0.16, smallest: 2 };
/** Cutters are longer by this than what they cut. */
const BEYOND = 1;
const SIDES = 128;
/** The slice's mate must equal the part's: sizes differ by no more. */
const SAME_MATE = 0.005;
/** It must save this share of the plastic to be worth printing. */
const SAVES = 0.5;
/** On a smaller area of the bed it would come loose, mm². */
const LEAST_FOOT = 20;
/** An axis that leans less than 2° counts as upright; one that leans more than 60° is cut as it lies: cosines. */
const [UPRIGHT, MOST_LEANING] = [0.9994, 0.5];
/** A ring stretches freely only beyond this many times √(radius × wall) from an end wall that stiffens it, mm. */
const [STIFF_REACH, USUAL_WALL] = [2.45, 1.6];

/** A property of a surface that its slice does not show. */
export interface SliceSays {
  mate: string;
  words: string;
}

type Kernel = Pick<MeshKernel, 'common' | 'combine' | 'extrude'>;

/**
 * @param part as drawn
 * @param mates the mate that it is to carry, or several in one piece
 * @param sagitta how far its triangles may be from the true surface
 * @returns the slice in the place where it is drawn, or why none would be useful
 */
export function sliceOf(
  part: { whole: TriangleMesh; surfaces: readonly MateSurface[] },
  mates: readonly string[],
  pose: Pose,
  kernel: Kernel,
  sagitta: number,
): Sliced {
  const surfaces = mates.flatMap(mate => part.surfaces.find(s => s.mate === mate) ?? []);
  if (surfaces.length < mates.length || surfaces.length === 0)
    return { ok: false, why: 'It is not on the part as it is now.' };
  if (surfaces.some(s => s.taper))
    return { ok: false, why: 'A taper tells by its whole depth: print the part.' };
  // The least plastic first; a slice that does not hold together, stand or measure right may do so with more of the
  // part around it.
  const refused: string[] = [];
  for (const cutters of waysToCut(part.whole, surfaces, pose, kernel, sagitta)) {
    const tried = judged(part.whole, surfaces, cutters, pose, kernel, sagitta);
    if (tried.ok) return tried;
    refused.push(tried.why);
    // With more around it, it saves still less.
    if (tried.isLarge) break;
  }
  return { ok: false, why: refused[0] ?? 'Nothing of it is on the finished solid.' };
}

/** A slice by these cutters, or why it would not be useful. */
function judged(
  part: TriangleMesh,
  surfaces: readonly MateSurface[],
  cutters: readonly TriangleMesh[],
  pose: Pose,
  kernel: Kernel,
  sagitta: number,
): Extract<Sliced, { ok: true }> | (Extract<Sliced, { ok: false }> & { isLarge?: true }) {
  const cutter = cutters.reduce((all, one) => kernel.combine('fuse', all, one));
  const mesh = carrying(kernel.common(part, cutter), surfaces, sagitta);
  if (!mesh || bodiesOf(mesh).length !== 1 || closureOf(mesh).openEdges > 0)
    return {
      ok: false,
      why:
        surfaces.length > 1
          ? 'They lie too far apart for one piece: cut a slice for each.'
          : 'No slice of it holds together: print the part.',
    };
  const sizes = [mesh, part].map(m => measureMates(m, surfaces).map(found => found.size));
  if (!surfaces.every((_, i) => Math.abs(sizes[0]![i]! - sizes[1]![i]!) <= SAME_MATE))
    return { ok: false, why: 'A slice of it would not be as large as the part there: print the part.' };
  const volume = volumeOf(mesh);
  if (volume > (1 - SAVES) * volumeOf(part))
    return { ok: false, why: 'A slice would hardly be smaller than the part.', isLarge: true };
  const foot = footOf(mesh, pose);
  if (foot < LEAST_FOOT)
    return { ok: false, why: 'As the part lies, a slice would stand on next to nothing: print the part.' };
  return { ok: true, mesh, volume, says: surfaces.flatMap(s => saysOf(part, s)) };
}

/** Groups of two and more mates that lie near enough to each other for one piece; each mate in one group at most. */
export function sharedSlices(
  part: { whole: TriangleMesh; surfaces: readonly MateSurface[] },
  mates: readonly string[],
  pose: Pose,
  kernel: Kernel,
  sagitta: number,
): { mates: string[]; slice: Extract<Sliced, { ok: true }> }[] {
  const left = [...mates];
  const groups: { mates: string[]; slice: Extract<Sliced, { ok: true }> }[] = [];
  while (left.length > 1) {
    let group = { mates: [left.shift()!], slice: null as Extract<Sliced, { ok: true }> | null };
    for (const mate of [...left]) {
      const slice = sliceOf(part, [...group.mates, mate], pose, kernel, sagitta);
      if (!slice.ok) continue;
      group = { mates: [...group.mates, mate], slice };
      left.splice(left.indexOf(mate), 1);
    }
    if (group.slice) groups.push({ mates: group.mates, slice: group.slice });
  }
  return groups;
}

/**
 * Cutters for each of the surfaces, the smallest first: around the mate alone, level with the bed, the whole height.
 */
function* waysToCut(
  whole: TriangleMesh,
  surfaces: readonly MateSurface[],
  pose: Pose,
  kernel: Kernel,
  sagitta: number,
): Generator<TriangleMesh[]> {
  const slabs = () => surfaces.map(s => slabFor(whole, s, kernel));
  if (surfaces.every(s => Number.isFinite(rectangleAround(whole, s, 0, sagitta)[0]![0]))) {
    yield surfaces.map(surface => {
      const cutter = cutterFor(whole, surface, kernel, sagitta);
      const cut = carrying(kernel.common(whole, cutter), [surface], sagitta);
      // Where its sides have come apart, the whole height holds them together.
      return cut && bodiesOf(cut).length === 1 ? cutter : slabFor(whole, surface, kernel);
    });
    const level = surfaces.map(s => levelCutter(whole, s, pose, kernel));
    if (level.every(c => c !== null)) yield level;
  }
  yield slabs();
}

function footOf(mesh: TriangleMesh, pose: Pose): number {
  const { first, height, cell, across, deep } = columnsOf(posed(mesh, pose));
  let foot = 0;
  for (let c = 0; c < across * deep; c++) if (first[c + 1]! > first[c]! && height[first[c]!]! < 0.25) foot++;
  return foot * cell * cell;
}

/** From where to where it is cut, along the mate's axis. */
function reachOf({ size, from, to, at, axis }: MateSurface): [number, number] {
  const long = Math.max(LEAST_LONG, Math.min(MOST_LONG, LONG_SHARE * size));
  const middle = Math.min(Math.max(dot(at, axis), from + long / 2), Math.max(from, to - long / 2));
  return to - from <= long ? [from, to] : [middle - long / 2, middle + long / 2];
}

/** A body of this outline around the mate's axis, over the height that is kept. */
function standing(
  outline: [number, number][][],
  surface: MateSurface,
  kernel: Pick<MeshKernel, 'extrude'>,
  more = 0,
): TriangleMesh {
  const [from, to] = reachOf(surface);
  const { at, axis } = surface;
  const start = moved(at, axis, from - more - dot(at, axis));
  return placedMesh(kernel.extrude(outline, to - from + 2 * more), {
    at: start,
    x: basisOf(axis).x,
    up: axis,
  });
}

const circle = (radius: number): [number, number][] =>
  Array.from({ length: SIDES }, (_, i) => {
    const a = (2 * Math.PI * i) / SIDES;
    // Outside the true circle everywhere, so that no wall is shaved.
    const r = radius / Math.cos(Math.PI / SIDES);
    return [r * Math.cos(a), r * Math.sin(a)];
  });

function cutterFor(whole: TriangleMesh, surface: MateSurface, kernel: Kernel, sagitta: number): TriangleMesh {
  const { kind, side, size } = surface;
  if (kind === 'round' || kind === 'thread') {
    if (side === 'inside') return standing([circle(size / 2 + WALL)], surface, kernel);
    const outer = standing([circle(size / 2 + OVER)], surface, kernel);
    const core = (surface.core ?? size) / 2 - Math.max(CORE.least, CORE.share * size);
    return core > CORE.smallest
      ? kernel.combine('cut', outer, standing([circle(core)], surface, kernel, BEYOND))
      : outer;
  }
  return standing([rectangleAround(whole, surface, WALL, sagitta)], surface, kernel);
}

/** Around a round surface that leans, level with the bed above and below, so that it stands; null for any other. */
function levelCutter(
  whole: TriangleMesh,
  surface: MateSurface,
  pose: Pose,
  kernel: Kernel,
): TriangleMesh | null {
  const up = negated(pose.down);
  const rises = Math.abs(dot(surface.axis, up));
  if (surface.kind !== 'round' || surface.side !== 'inside' || rises > UPRIGHT || rises < MOST_LEANING)
    return null;
  const [from, to] = reachOf(surface);
  const sideways = ((surface.size / 2 + WALL) * Math.sqrt(1 - rises * rises)) / rises;
  const about = standing([circle(surface.size / 2 + WALL)], surface, kernel, sideways + BEYOND);
  const middle = moved(surface.at, surface.axis, (from + to) / 2 - dot(surface.at, surface.axis));
  const high = (to - from) * rises;
  const slab = placedMesh(kernel.extrude([squareBeyond(whole)], high), {
    at: moved(middle, up, -high / 2),
    x: basisOf(up).x,
    up,
  });
  return kernel.common(about, slab);
}

/** The part's whole width over the height that is kept. */
function slabFor(
  whole: TriangleMesh,
  surface: MateSurface,
  kernel: Pick<MeshKernel, 'extrude'>,
): TriangleMesh {
  const [from, to] = reachOf(surface);
  // A thinner piece cannot be handled.
  return standing([squareBeyond(whole)], surface, kernel, Math.max(0, LEAST_LONG - (to - from)) / 2);
}

/** Beyond the part on all sides. */
function squareBeyond(whole: TriangleMesh): [number, number][] {
  const { min, max } = boundsOf(whole);
  const reach = 2 * Math.hypot(...max, ...min);
  return [
    [-reach, -reach],
    [reach, -reach],
    [reach, reach],
    [-reach, reach],
  ];
}

/** In the mate's own two directions, around its centre: the box around its triangles. */
function rectangleAround(
  whole: TriangleMesh,
  surface: MateSurface,
  by: number,
  sagitta: number,
): [number, number][] {
  const { x, y } = basisOf(surface.axis);
  const box = [Infinity, Infinity, -Infinity, -Infinity] as [number, number, number, number];
  trianglesOfMates(whole, [surface], sagitta).forEach((owner, t) => {
    if (owner < 0) return;
    for (let e = 0; e < 3; e++) {
      const v = 3 * whole.triangles[3 * t + e]!;
      const off = point3(i => whole.positions[v + i]! - surface.at[i]);
      const [a, b] = [dot(off, x), dot(off, y)];
      box[0] = Math.min(box[0], a);
      box[1] = Math.min(box[1], b);
      box[2] = Math.max(box[2], a);
      box[3] = Math.max(box[3], b);
    }
  });
  const [x0, y0, x1, y1] = [box[0] - by, box[1] - by, box[2] + by, box[3] + by];
  return [
    [x0, y0],
    [x1, y0],
    [x1, y1],
    [x0, y1],
  ];
}

/**
 * The bodies that carry some of the mates, together; all bodies where a mate consists of edges; null where there is
 * none.
 */
function carrying(
  mesh: TriangleMesh | null,
  surfaces: readonly MateSurface[],
  sagitta: number,
): TriangleMesh | null {
  if (!mesh) return null;
  const own = bodiesOf(mesh).filter(b => trianglesOfMates(b, surfaces, sagitta).some(o => o >= 0));
  return own.length > 0 ? joined(own) : bodiesOf(mesh).length > 0 ? mesh : null;
}

/** What a slice does not show, surface by surface. */
function saysOf(whole: TriangleMesh, surface: MateSurface): SliceSays[] {
  const says: SliceSays[] = [];
  const say = (words: string) => says.push({ mate: surface.mate, words });
  const [from, to] = reachOf(surface);
  const all = surface.to - surface.from;
  if (to - from < 0.9 * all)
    say(
      `It is ${Math.round(to - from)} of the ${Math.round(all)} mm that the part goes over: going on and off takes more on the part, in that measure.`,
    );
  if (surface.kind === 'round' && surface.side === 'inside' && closedNear(whole, surface))
    say('Near its closed end the part is stiffer than its slice: a flexible one stretches less there.');
  return says;
}

/** Whether a bore ends on plastic, close enough to the slice to stiffen the part there. */
function closedNear(whole: TriangleMesh, surface: MateSurface): boolean {
  const [from, to] = reachOf(surface);
  // Thin shells (Timoshenko and Woinowsky-Krieger, Theory of Plates and Shells, ch. 15; from memory): π / β.
  const reach = STIFF_REACH * Math.sqrt((surface.size / 2) * USUAL_WALL);
  return [
    { end: surface.from - BEYOND, away: from - surface.from },
    { end: surface.to + BEYOND, away: surface.to - to },
  ].some(({ end, away }) => {
    if (away > reach) return false;
    const at = moved(surface.at, surface.axis, end - dot(surface.at, surface.axis));
    const section = sectionAcross(whole, at, surface.axis);
    return section.loops.filter(l => isInside(section.at, l.points)).length % 2 === 1;
  });
}
