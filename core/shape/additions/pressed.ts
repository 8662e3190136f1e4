import { boundsOf, facing, type TriangleMesh } from '../mesh/mesh';
import { rayTreeOf } from '../mesh/rays';
import type { Parameters } from '../recipes/parameters';
import type { Recipe } from '../recipes/recipe';
import { dot, lengthOfVector, moved, negated, type Place, type Point3, point3, scaled } from '../vector';
import { DIRECTIONS, type Flat, flatsFacing, frameDirections } from './place';

/** Which face was meant by a press on the solid, and what it is called so that it is found again when sizes change. */
export interface Press extends Place {
  /** The way the eye looks. */
  looks: Point3;
}

export interface Pressed {
  up: Point3;
  /** Along `up`, from the origin; null for the outermost, or a round outside. */
  offset: number | null;
}

/** A face that looks this near to one of the six ways looks that way: cosine. */
const THAT_WAY = 0.9998;
/** A round wall is named by the side that it is on: cosine. */
const ABOUT_THAT_WAY = 0.9;
/** A slanted face narrower than this is a chamfer, mm. Common practice, no source. */
const NARROW = 3;
/** A press this much farther off may still be meant, mm: both faces of a chamfer are equally near. */
const AS_NEAR = 1;
/** Triangles of one bend differ by less than this: cosine of 32°; a chamfer turns by 45°. */
const BENDS = Math.cos((32 * Math.PI) / 180);
/** Its next triangle is looked for this far away, mm. */
const BEND_STEPS = [0.3, 0.6, 1.2, 2.4];

/**
 * The flat that was meant: the one that was pressed, or, for a chamfer, a rounding or the wall of a hole, the largest
 * one beside it that looks towards the eye.
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
  // On a round outside there is no flat: what sits there touches it on that side.
  if (bent && !hole && !isRounding(mesh, point, n))
    return { up: dot(n, way) > ABOUT_THAT_WAY ? way : n, offset: null };
  const meant = beside(mesh, point, looks);
  return meant ? named(mesh, meant.up, meant) : { up: way, offset: null };
}

const nearestDirection = (n: Point3): Point3 =>
  Object.values(DIRECTIONS).reduce((best, d) => (dot(d, n) > dot(best, n) ? d : best));

/** “the front, 12 mm up”: where somebody would look for it, of a part as it is drawn. */
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

/** Whether the surface goes on in a bend around the pressed place, as a round wall’s or a rounding’s does. */
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

/** A rounded edge ends soon in a flat; a round wall does not. */
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

/** The largest flat of those that are as near as any and look towards the eye. */
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

/** Expressions that come to a coordinate are looked for this near, mm. */
const COMES_TO = 0.006;
/** A number is moved by this to see whether the face goes with it, mm. */
const NUDGE = 0.37;
/** So many rebuilds are made for one name. */
const MOST_BUILDS = 8;

/**
 * What a face’s coordinate is made of: one number of the part, or two, tried out by moving each and looking whether the
 * face goes with it. Null where no short expression does.
 * @param build the part with other numbers; null where that cannot be built
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

/** A face in the words in which an addition keeps it. @param expression what its coordinate follows, where it does */
export function faceInWords({ up, offset }: Pressed, expression: string | null = null): string {
  const word = Object.keys(DIRECTIONS).find(k => dot(DIRECTIONS[k]!, up) > THAT_WAY);
  const way = word ?? up.map(x => Number(x.toFixed(4))).join(', ');
  if (offset === null) return way;
  const coordinate = word && up.some(u => u < -0.5) ? -offset : offset;
  return `${way} at ${expression ?? Number(coordinate.toFixed(2))}`;
}
