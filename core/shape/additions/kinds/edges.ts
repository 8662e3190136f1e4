import { type Body, hasTriangles, KernelError } from '../../kernels/kernel';
import { sectionAtZ } from '../../mesh/section';
import { choice, length } from '../../recipes/fields';
import { lengthOf, type Parameters } from '../../recipes/parameters';
import { cross, dot, lengthOfVector, moved, type Point3, scaled } from '../../vector';
import { gapTo } from '../../within';
import { AdditionGone, type AdditionKind, type Site } from '../addition';
import { place } from '../fields';
import { placeInWords, readPlace, seatOf } from '../place';
import { placeOf } from '../tools';

/** Flats of the section are no farther than this from the true outline, mm. */
const ON_OUTSIDE = 0.05;
/** A named edge is searched within this distance, mm. */
const NEAR = 0.02;
/**
 * When a radius does not fit, smaller ones are tried: each smaller by this share, then this many halvings between two.
 */
const DOWN = 0.4;
const TRIES = 3;
/** Smaller radii are useless on a print, mm. */
const LEAST = 0.1;

/** Edges that are rounded, or chamfered at 45°. */
export const edges: AdditionKind = {
  kind: 'edges',
  title: 'Round or chamfer edges',
  purpose:
    'Edges taken off for the hand, filled for strength, or let back from the bed where the first layer bulges.',
  short: 'edges',
  parameters: [
    choice('how', 'How', { round: 'rounded', chamfer: 'chamfered, 45°' }),
    choice('which', 'Which edges', {
      face: 'around a face',
      outer: 'around a face, its outermost only',
      bed: 'all on the bed, where the first layer bulges',
      upright: 'all upright ones',
      corners: 'upright ones of the outside',
      point: 'through a point',
    }),
    place('top', 'The face', p => p.which === 'face' || p.which === 'outer'),
    length('pointX', 'Point, to the right', [-400, 400], '0', { shown: p => p.which === 'point' }),
    length('pointY', 'Point, to the back', [-400, 400], '0', { shown: p => p.which === 'point' }),
    length('pointZ', 'Point, above the bed', [-400, 400], '0', { shown: p => p.which === 'point' }),
    length('size', 'Radius, or width of the chamfer', [0.1, 60], '1'),
  ],
  refuse: () => [],
  apply(site, p) {
    if (hasTriangles(site.body))
      throw new KernelError(
        'Edges are rounded on exact surfaces, and this part has some made of triangles by now: a thread, or letters. Move this addition above them; where the recipe itself has the thread, use its own edges',
      );
    const along = meant(site, p);
    const how = p.how === 'chamfer' ? 'chamfer' : 'round';
    const asked = lengthOf(p, 'size');
    const done = attempt(site, along, how, asked);
    if (done) return { body: done };
    if (site.kernels.part.edgesAlong(site.body, along) === 0)
      throw new AdditionGone(
        'No sharp edge runs there any more. Choose another face, or switch this off.',
        p.which === 'point' ? 'pointX' : p.which === 'face' || p.which === 'outer' ? 'place' : 'which',
      );
    const most = largest(site, along, how, asked);
    const word = how === 'round' ? 'rounded by' : 'taken off by';
    throw new AdditionGone(
      most
        ? `These edges cannot be ${word} ${asked} mm: something else is in the way. ${most} mm is the most that goes.`
        : `These edges cannot be ${word} anything: surfaces meet there that the kernel cannot part. Choose fewer edges.`,
      'size',
      most ? { label: `Make “Radius, or width of the chamfer” ${most} mm`, text: String(most) } : undefined,
    );
  },
};

/** Selects the edges, by points on each of them. */
function meant(site: Site, p: Parameters): (points: readonly Point3[]) => boolean {
  if (p.which === 'upright') return isUpright;
  if (p.which === 'corners') {
    const mesh = site.mesh();
    return points => {
      if (!isUpright(points)) return false;
      const [x, y, z] = points[Math.floor(points.length / 2)]!;
      // For a hole or a pocket the section's loop runs the other way round.
      return sectionAtZ(mesh, z).some(l => l.area > 0 && gapTo([x, y], l.points) < ON_OUTSIDE);
    };
  }
  if (p.which === 'point') {
    const at: Point3 = [lengthOf(p, 'pointX'), lengthOf(p, 'pointY'), lengthOf(p, 'pointZ')];
    return points => distanceTo(points, at) < 0.3;
  }
  // The face on the bed is the lowest one, with its holes.
  const where = p.which === 'bed' ? readPlace('underside') : placeOf(site, p);
  const { frame, flat } = seatOf(site.mesh(), where, 'face');
  if (!flat)
    throw new AdditionGone(`There is no flat face at ${placeInWords(where)}: choose another.`, 'place');
  const offset = dot(frame.at, frame.up);
  const onFace = (points: readonly Point3[]) => points.every(q => Math.abs(dot(q, frame.up) - offset) < NEAR);
  if (p.which === 'face' || p.which === 'bed') return onFace;
  const y = cross(frame.up, frame.x);
  // Outermost: some point of it reaches the face's own extent.
  return points =>
    onFace(points) &&
    points.some(q => {
      const [a, b] = [dot(q, frame.x) - dot(frame.at, frame.x), dot(q, y) - dot(frame.at, y)];
      return (
        Math.abs(Math.abs(a) - flat.size[0] / 2) < 0.05 || Math.abs(Math.abs(b) - flat.size[1] / 2) < 0.05
      );
    });
}

function isUpright(points: readonly Point3[]): boolean {
  const [a, b] = [points[0]!, points.at(-1)!];
  return Math.abs(a[2] - b[2]) > 0.3 && points.every(q => Math.hypot(q[0] - a[0], q[1] - a[1]) < 1e-4);
}

/** Number of straight pieces for half an edge: on a full circle 100 across they are at most 0.1 off. */
const PIECES = 24;

/** Least distance from a point to an edge with five known points, its ends among them. */
function distanceTo(points: readonly Point3[], at: Point3): number {
  const [a, b, c, d, e] = points as [Point3, Point3, Point3, Point3, Point3];
  const line = [...bow(a, b, c), ...bow(c, d, e)];
  let least = Infinity;
  for (let i = 0; i + 1 < line.length; i++) {
    const along = moved(line[i + 1]!, line[i]!, -1);
    const off = moved(at, line[i]!, -1);
    const long = dot(along, along);
    const share = long > 0 ? Math.max(0, Math.min(1, dot(off, along) / long)) : 0;
    least = Math.min(least, lengthOfVector(moved(off, along, -share)));
  }
  return least;
}

/** Points along the arc from `a` through `b` to `c`; along the straight line where they lie on one. */
function bow(a: Point3, b: Point3, c: Point3): Point3[] {
  const [u, v] = [moved(b, a, -1), moved(c, a, -1)];
  const normal = cross(u, v);
  const n2 = dot(normal, normal);
  if (n2 < 1e-9) return [a, b, c];
  // Circumcentre of a triangle, from one corner.
  const centre = moved(
    a,
    moved(scaled(cross(normal, u), dot(v, v)), cross(normal, v), -dot(u, u)),
    1 / (2 * n2),
  );
  const out = moved(a, centre, -1);
  const side = scaled(cross(normal, out), 1 / Math.sqrt(n2));
  const to = moved(c, centre, -1);
  // Seen along the normal, a, b and c follow each other anticlockwise.
  const turn = Math.atan2(dot(to, side), dot(to, out));
  const sweep = turn > 0 ? turn : turn + 2 * Math.PI;
  return Array.from({ length: PIECES + 1 }, (_, i) => {
    const angle = (sweep * i) / PIECES;
    return moved(moved(centre, out, Math.cos(angle)), side, Math.sin(angle));
  });
}

/** The kernel may return a broken shape without an error: only a sound solid counts. */
function attempt(
  { kernels, body }: Site,
  along: (points: readonly Point3[]) => boolean,
  how: 'round' | 'chamfer',
  size: number,
): Body | null {
  try {
    const done = kernels.part.takeOff(body, along, how, size);
    const mesh = kernels.part.mesh(done, 0.03);
    const facts = kernels.mesh.facts(mesh);
    return facts.ok && facts.facts.bodies === 1 ? done : null;
  } catch (error) {
    if (error instanceof KernelError) return null;
    throw error;
  }
}

function largest(
  site: Site,
  along: (points: readonly Point3[]) => boolean,
  how: 'round' | 'chamfer',
  asked: number,
): number | null {
  let [good, bad] = [0, asked];
  // Smaller until one fits, then between the two.
  for (let size = asked * DOWN; size > LEAST && good === 0; size *= DOWN) {
    if (attempt(site, along, how, size)) good = size;
    else bad = size;
  }
  for (let i = 0; good > 0 && i < TRIES && bad - good > 0.02; i++) {
    const size = (good + bad) / 2;
    if (attempt(site, along, how, size)) good = size;
    else bad = size;
  }
  const rounded = Math.floor(good * 100) / 100;
  return rounded >= LEAST ? rounded : null;
}
