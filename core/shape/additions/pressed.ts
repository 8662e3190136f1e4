import { boundsOf, facing, type TriangleMesh } from '../mesh/mesh';
import { rayTreeOf } from '../mesh/rays';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { dot, lengthOfVector, moved, negated, type Place, type Point3, point3, scaled } from '../vector';
import { DIRECTIONS, type Flat, flatsFacing, frameDirections } from './place';

/** Which face was meant by a press on the solid, and its name, by which it is found again when sizes change. */
export interface Press extends Place {
  /** The direction of view. */
  looks: Point3;
}

export interface Pressed {
  up: Point3;
  /** Distance along `up` from the origin; null for the outermost face, or a round outside. */
  offset: number | null;
}

/** A face whose normal is this near to one of the six directions faces that direction: cosine. */
const THAT_WAY = 0.9998;
/** A round wall is named by the side that it is on: cosine. */
const ABOUT_THAT_WAY = 0.9;
/** A slanted face narrower than this is a chamfer, mm. Common practice, no source. */
const NARROW = 3;
/** A face this much farther from the press may still be meant, mm: both faces of a chamfer are equally near. */
const AS_NEAR = 1;
/** Triangles of one bend differ by less than this: cosine of 32°; a chamfer turns by 45°. */
const BENDS = Math.cos((32 * Math.PI) / 180);
/** The next triangle is searched this far away, mm. */
const BEND_STEPS = [0.3, 0.6, 1.2, 2.4];

/**
 * The flat that was meant: the pressed one or, for a chamfer, a rounding or the wall of a hole, the largest one next to
 * it that faces the eye.
 */
export function facePressed(mesh: TriangleMesh, { point, normal, looks }: Press): Pressed {
  const n = scaled(normal, 1 / lengthOfVector(normal));
  const own = flatsFacing(mesh, n).find(f => Math.abs(f.offset - dot(point, n)) < 0.03);
  const way = nearestDirection(n);
  const square = dot(n, way) > THAT_WAY;
  if (own && square) return named(mesh, way, own);
  const bent = isBent(mesh, n, point);
  if (own && !bent && Math.min(...own.size) >= NARROW) return named(mesh, n, own);
  const hole = Boolean(rayTreeOf(mesh).firstHit(moved(point, n, 0.05), n));
  // A round outside has no flat: an addition there touches it on that side.
  if (bent && !hole && !isRounding(mesh, point, n))
    return { up: dot(n, way) > ABOUT_THAT_WAY ? way : n, offset: null };
  const meant = beside(mesh, point, looks);
  return meant ? named(mesh, meant.up, meant) : { up: way, offset: null };
}

const nearestDirection = (n: Point3): Point3 =>
  Object.values(DIRECTIONS).reduce((best, d) => (dot(d, n) > dot(best, n) ? d : best));

/** “the front, 12 mm up”: where somebody would look for it on the part as drawn. */
export function placeInWords({ point, normal }: Place): string {
  const names = Object.keys(DIRECTIONS);
  const side = names.reduce((best, k) =>
    dot(DIRECTIONS[k]!, normal) > dot(DIRECTIONS[best]!, normal) ? k : best,
  );
  return side === 'top' || side === 'underside'
    ? `the ${side}`
    : `the ${side}, ${Math.round(point[2])} mm up`;
}

function named(mesh: TriangleMesh, up: Point3, { offset }: Flat): Pressed {
  const { min, max } = boundsOf(mesh);
  const corner = point3(i => (up[i] > 0 ? max[i] : min[i]));
  const axis = up.filter(u => Math.abs(u) > 1e-9).length === 1;
  return { up, offset: axis && Math.abs(offset - dot(corner, up)) < 0.1 ? null : offset };
}

/** Whether the surface bends around the pressed place, like a round wall or a rounding. */
function isBent(mesh: TriangleMesh, n: Point3, point: Point3): boolean {
  const tree = rayTreeOf(mesh);
  const { x, y } = frameDirections(n);
  return [x, y, negated(x), negated(y)].some(along => {
    for (const far of BEND_STEPS) {
      const from = moved(moved(point, along, far), n, 2);
      const hit = tree.firstHit(from, negated(n));
      if (!hit || hit.distance > 4) continue;
      const other = unit(facing(mesh, hit.triangle));
      const same = dot(other, n);
      if (same > BENDS && same < 0.99999) return true;
    }
    return false;
  });
}

/** A rounded edge soon ends in a flat; a round wall does not. */
function isRounding(mesh: TriangleMesh, point: Point3, n: Point3): boolean {
  const { x, y } = frameDirections(n);
  const tree = rayTreeOf(mesh);
  return [x, y, negated(x), negated(y)].some(along => {
    const from = moved(moved(point, along, NARROW), n, NARROW);
    const hit = tree.firstHit(from, negated(n));
    if (!hit) return false;
    const other = unit(facing(mesh, hit.triangle));
    return Math.abs(dot(other, nearestDirection(other))) > THAT_WAY && dot(other, n) < 0.99;
  });
}

const unit = (v: Point3): Point3 => scaled(v, 1 / (lengthOfVector(v) || 1));

/** The largest flat among the nearest ones that face the eye. */
function beside(mesh: TriangleMesh, point: Point3, looks: Point3): Flat | null {
  const near = Object.values(DIRECTIONS)
    .filter(up => dot(up, looks) < -0.05)
    .flatMap(up => flatsFacing(mesh, up))
    .map(flat => ({ flat, off: distanceTo(flat, point) }));
  const least = Math.min(...near.map(f => f.off));
  const asNear = near.filter(f => f.off < least + AS_NEAR);
  return asNear.sort((a, b) => b.flat.area - a.flat.area)[0]?.flat ?? null;
}

/** To the rectangle around a flat, mm. */
function distanceTo({ up, middle, size }: Flat, point: Point3): number {
  const { x, y } = frameDirections(up);
  const from = moved(point, middle, -1);
  const beyond = (along: Point3, width: number) => Math.max(0, Math.abs(dot(from, along)) - width / 2);
  return Math.hypot(dot(from, up), beyond(x, size[0]), beyond(y, size[1]));
}

/** An expression must give the coordinate to within this, mm. */
const COMES_TO = 0.006;
/** A number is changed by this to see whether the face moves with it, mm. */
const NUDGE = 0.37;
/** The most rebuilds for one name. */
const MOST_BUILDS = 8;

/**
 * What a face's coordinate is made of: one number of the part, or two, found by changing each and checking whether the
 * face moves with it. Null where no short expression gives it.
 * @param build the part with other numbers; null where it cannot be built
 */
export function followed(
  { up, offset }: { up: Point3; offset: number },
  recipe: Pick<Recipe, 'parameters'>,
  parameters: Parameters,
  build: (parameters: Parameters) => TriangleMesh | null,
): string | null {
  const sign = up.some(u => u < -0.5) ? -1 : 1;
  let builds = 0;
  const moves = ({ text, names, value }: Candidate): boolean =>
    names.every(name => {
      const spec = recipe.parameters.find(s => s.name === name);
      if (spec?.kind !== 'length' || builds >= MOST_BUILDS) return false;
      builds++;
      const now = parameters[name] as number;
      const by = now + NUDGE > spec.max ? -NUDGE : NUDGE;
      const changed = { ...parameters, [name]: now + by };
      const mesh = build(changed);
      const expected = sign * value(changed);
      return (
        mesh !== null && text !== '' && flatsFacing(mesh, up).some(f => Math.abs(f.offset - expected) < 0.03)
      );
    });
  return candidates(sign * offset, recipe, parameters).find(moves)?.text ?? null;
}

interface Candidate {
  text: string;
  names: string[];
  value(p: Parameters): number;
}

/** Shortest first. */
function candidates(
  coordinate: number,
  recipe: Pick<Recipe, 'parameters'>,
  parameters: Parameters,
): Candidate[] {
  const names = recipe.parameters.flatMap(s =>
    s.kind === 'length' && !s.measure && (s.shown?.(parameters) ?? true) && parameters[s.name] !== 0
      ? [s.name]
      : [],
  );
  const at = (p: Parameters, name: string) => p[name] as number;
  const singles = names.flatMap((a): Candidate[] => [
    { text: a, names: [a], value: p => at(p, a) },
    { text: `-${a}`, names: [a], value: p => -at(p, a) },
    { text: `${a} / 2`, names: [a], value: p => at(p, a) / 2 },
    { text: `-${a} / 2`, names: [a], value: p => -at(p, a) / 2 },
  ]);
  const pairs = names.flatMap(a =>
    names.flatMap((b): Candidate[] =>
      a === b
        ? []
        : [
            ...(a < b
              ? [{ text: `${a} + ${b}`, names: [a, b], value: (p: Parameters) => at(p, a) + at(p, b) }]
              : []),
            { text: `${a} - ${b}`, names: [a, b], value: p => at(p, a) - at(p, b) },
            { text: `${a} / 2 + ${b}`, names: [a, b], value: p => at(p, a) / 2 + at(p, b) },
            { text: `-${a} / 2 - ${b}`, names: [a, b], value: p => -at(p, a) / 2 - at(p, b) },
          ],
    ),
  );
  return [...singles, ...pairs].filter(c => Math.abs(c.value(parameters) - coordinate) < COMES_TO);
}

/** A face in the words that an addition stores. @param expression what its coordinate follows, if anything */
export function faceInWords({ up, offset }: Pressed, expression: string | null = null): string {
  const word = Object.keys(DIRECTIONS).find(k => dot(DIRECTIONS[k]!, up) > THAT_WAY);
  const way = word ?? up.map(x => Number(x.toFixed(4))).join(', ');
  if (offset === null) return way;
  const coordinate = word && up.some(u => u < -0.5) ? -offset : offset;
  return `${way} at ${expression ?? Number(coordinate.toFixed(2))}`;
}
