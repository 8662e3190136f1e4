import { upOf } from '../../print/pose';
import { DIRECTIONS, readPlace, seatOf } from '../additions/place';
import type { CheckContext, LoadAsked } from '../checks/context';
import type { MateSurface } from '../mates';
import { rootsOf, type TriangleMesh } from '../mesh/mesh';
import { type Loop, sectionAtZ } from '../mesh/section';
import type { Point3 } from '../vector';
import { basisOf, dot, point3, scaled } from '../vector';
import { isInside } from '../within';
import { bendingStress, sectionProperties, torsionOf } from './section-properties';

/** A load on a part: where it acts, what it is, where the part is held. Lengths mm, forces N, torques N·mm. */
export interface Load {
  at: Point3;
  held: Point3;
  force: Point3;
  turn: Point3;
}

/** The section of the real solid that fails first. Stresses MPa. */
export interface Weakest {
  /** A point on it, and its normal. */
  at: Point3;
  axis: Point3;
  /** Its outline in space, for drawing. */
  loops: Point3[][];
  /** mm² */
  area: number;
  /** Pulling and bending together, and shear. */
  stress: number;
  shear: number;
  /** Stress as a share of the strength there. */
  use: number;
  /** The strength across it, given its angle to the layers, MPa. */
  bears: number;
  /** Whether the layers weaken it much. */
  betweenLayers: boolean;
  /** Whether most of it is torsion. */
  turning: boolean;
}

/** Number of slices in each direction; fewer for a thread's many triangles, where every slice takes a while. */
const SLICES = { usual: 28, few: 12 };
const MANY_TRIANGLES = 12_000;
/** A load nearer to the support than this causes no bending in that direction, mm. */
const NO_ARM = 0.8;
/** A section with less than this share of its strength along the layers is weakened by them. */
const WEAKENED = 0.8;
/** Shear strength as a share of the tensile one, for plastics, and also between layers. Common practice, no source. */
const SHEAR_SHARE = 0.6;

/**
 * The strength of a print pulled at an angle to its layers, MPa: Tsai–Hill (Azzi & Tsai 1965, from memory), with the
 * layer plane as the strong direction, and shear between layers as a share of the strength across them.
 * @param rise sine of the angle between the pull and the layers: 0 along them, 1 square to them
 */
export function strengthAt(rise: number, { along, across }: { along: number; across: number }): number {
  const s2 = Math.min(1, rise * rise);
  const c2 = 1 - s2;
  const shear = SHEAR_SHARE * across;
  return (
    1 / Math.sqrt(c2 ** 2 / along ** 2 + (1 / shear ** 2 - 1 / along ** 2) * s2 * c2 + s2 ** 2 / across ** 2)
  );
}

/**
 * Slices between the load and the support, in each of the three directions; straight bars of solid plastic. What does
 * not carry the load is left out of a slice.
 */
export function weakestSection(
  mesh: TriangleMesh,
  load: Load,
  stacked: Point3,
  strength: { along: number; across: number },
): Weakest | null {
  let worst: Weakest | null = null;
  const slices = mesh.triangles.length / 3 > MANY_TRIANGLES ? SLICES.few : SLICES.usual;
  let torsions: (Weakest & { turnNmm: number; flat: Loop[] })[] = [];
  for (const axis of [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ] as const) {
    const [from, to] = [dot(load.held, axis), dot(load.at, axis)];
    if (Math.abs(to - from) < NO_ARM) continue;
    const turned = turnedTo(mesh, axis);
    const away = to > from ? 1 : -1;
    for (let i = 0; i < slices; i++) {
      const z = from + ((i + 0.5) / slices) * (to - from);
      const loops = onTheWay(turned, z, away, axis, load.at);
      if (loops.length === 0) continue;
      const found = stressIn(loops, z, axis, load, stacked, strength);
      if (!found) continue;
      if (found.turnNmm > 0) torsions.push(found);
      if (!worst || found.use > worst.use) worst = plain(found);
    }
  }
  // The exact torsion takes a while: only for the sections that the rough one ranks worst.
  torsions = torsions.sort((a, b) => b.use - a.use).slice(0, 4);
  if (torsions.length > 0 && worst) {
    const exact = torsions.map(withTorsion);
    const most = exact.sort((a, b) => b.use - a.use)[0]!;
    const bending = worst.turning ? null : worst;
    worst = bending && bending.use > most.use ? bending : most;
  }
  return worst;
}

const plain = ({ turnNmm: _, flat: __, ...rest }: Weakest & { turnNmm: number; flat: Loop[] }): Weakest =>
  rest;

function turnedTo(mesh: TriangleMesh, axis: Point3): TriangleMesh {
  const { x, y } = basisOf(axis);
  const { positions: p } = mesh;
  const turned = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    turned[i] = p[i]! * x[0] + p[i + 1]! * x[1] + p[i + 2]! * x[2];
    turned[i + 1] = p[i]! * y[0] + p[i + 1]! * y[1] + p[i + 2]! * y[2];
    turned[i + 2] = p[i]! * axis[0] + p[i + 1]! * axis[1] + p[i + 2]! * axis[2];
  }
  return { positions: turned, triangles: mesh.triangles };
}

/** Loops of a slice through which the load passes: those whose surface leads on to where it acts. */
function onTheWay(turned: TriangleMesh, z: number, away: 1 | -1, axis: Point3, at: Point3): Loop[] {
  const loops = sectionAtZ(turned, z);
  const outer = loops.filter(l => l.area > 0);
  if (outer.length < 2) return loops;
  const { x, y } = basisOf(axis);
  const point: Point3 = [dot(at, x), dot(at, y), dot(at, axis)];
  const root = piecesBeyond(turned, z, away);
  const { positions: p } = turned;
  let nearest = -1;
  let least = Infinity;
  for (let v = 0; v < p.length / 3; v++) {
    if (away * (p[3 * v + 2]! - z) < 0) continue;
    const d = (p[3 * v]! - point[0]) ** 2 + (p[3 * v + 1]! - point[1]) ** 2 + (p[3 * v + 2]! - point[2]) ** 2;
    if (d < least) [least, nearest] = [d, v];
  }
  if (nearest < 0) return loops;
  const own = root(nearest);
  // A loop belongs to the piece whose edge it cuts.
  const cutBy = new Map<string, number>();
  const { triangles } = turned;
  for (let t = 0; t < triangles.length; t += 3)
    for (let e = 0; e < 3; e++) {
      const [a, b] = [triangles[t + e]!, triangles[t + ((e + 1) % 3)]!];
      const [za, zb] = [p[3 * a + 2]!, p[3 * b + 2]!];
      if (za >= z === zb >= z) continue;
      const beyond = za >= z === away > 0 ? a : b;
      const s = (z - za) / (zb - za);
      const key = keyOf(
        p[3 * a]! + s * (p[3 * b]! - p[3 * a]!),
        p[3 * a + 1]! + s * (p[3 * b + 1]! - p[3 * a + 1]!),
      );
      cutBy.set(key, beyond);
    }
  const kept = outer.filter(l => {
    const beyond = l.points.map(q => cutBy.get(keyOf(q[0], q[1]))).find(v => v !== undefined);
    return beyond === undefined || root(beyond) === own;
  });
  const holes = loops.filter(l => l.area < 0 && kept.some(o => isInside(l.points[0]!, o.points)));
  return [...kept, ...holes];
}

const keyOf = (x: number, y: number) => `${Math.round(x * 1e4)},${Math.round(y * 1e4)}`;

/** Which vertices beyond a plane hang together. */
function piecesBeyond(
  { positions: p, triangles }: TriangleMesh,
  z: number,
  away: 1 | -1,
): (v: number) => number {
  const beyond = (v: number) => (away > 0 ? p[3 * v + 2]! >= z : p[3 * v + 2]! < z);
  return rootsOf(triangles, p.length / 3, beyond);
}

function stressIn(
  loops: Loop[],
  z: number,
  axis: Point3,
  load: Load,
  stacked: Point3,
  strength: { along: number; across: number },
): (Weakest & { turnNmm: number; flat: Loop[] }) | null {
  const properties = sectionProperties(loops);
  const { area, centroid, ix, iy } = properties;
  if (!(area > 0.01) || !(ix > 0) || !(iy > 0)) return null;
  const { x, y } = basisOf(axis);
  const middle = point3(i => centroid[0] * x[i] + centroid[1] * y[i] + z * axis[i]);
  const arm: Point3 = [load.at[0] - middle[0], load.at[1] - middle[1], load.at[2] - middle[2]];
  const { force } = load;
  const moment: Point3 = [
    arm[1] * force[2] - arm[2] * force[1] + load.turn[0],
    arm[2] * force[0] - arm[0] * force[2] + load.turn[1],
    arm[0] * force[1] - arm[1] * force[0] + load.turn[2],
  ];
  const pull = Math.abs(dot(force, axis));
  const across = Math.hypot(dot(force, x), dot(force, y));
  const bend = bendingStress(loops, properties, [dot(moment, x), dot(moment, y)]);
  const turnNmm = Math.abs(dot(moment, axis));
  // Saint-Venant's rough torsion, J ≈ A⁴ / (40 Ip), and a modulus from the section's own breadth.
  const rough = turnNmm > 1 ? turnNmm / (area ** 4 / (40 * (ix + iy)) / Math.sqrt(area)) : 0;
  const stress = pull / area + bend;
  const shear = (1.5 * across) / area + rough;
  const bears = strengthAt(dot(axis, stacked), strength);
  return {
    at: middle,
    axis,
    loops: loops.map(l => l.points.map(([a, b]) => point3(i => a * x[i] + b * y[i] + z * axis[i]))),
    area,
    stress,
    shear,
    use: shareOf(stress, shear, bears),
    bears,
    betweenLayers: bears < WEAKENED * strength.along,
    turning: rough > stress,
    turnNmm: turnNmm > 1 ? turnNmm : 0,
    flat: loops,
  };
}

/** Tension and shear together, each against its own strength: like von Mises where both are the plastic's. */
const shareOf = (stress: number, shear: number, bears: number): number =>
  Math.hypot(stress / bears, shear / (SHEAR_SHARE * bears));

function withTorsion(found: Weakest & { turnNmm: number; flat: Loop[] }): Weakest {
  const { turnNmm, flat, ...rest } = found;
  const properties = sectionProperties(flat);
  const roughly =
    turnNmm / (properties.area ** 4 / (40 * (properties.ix + properties.iy)) / Math.sqrt(properties.area));
  const shear = rest.shear - roughly + turnNmm / torsionOf(flat).modulus;
  return {
    ...rest,
    shear,
    use: shareOf(rest.stress, shear, rest.bears),
    turning: shear > rest.stress,
  };
}

/** What a load means on the finished solid; a sentence where it cannot be placed. */
export function loadOn(
  mesh: TriangleMesh,
  surfaces: readonly MateSurface[],
  asked: Pick<LoadAsked, 'kind' | 'amount' | 'towards' | 'at' | 'held'>,
): Load {
  const way = DIRECTIONS[asked.towards] ?? DIRECTIONS.underside!;
  const point = (where: string): Point3 => {
    const mate = /^mate\s+(.+)$/.exec(where.trim())?.[1];
    if (mate === undefined) return seatOf(mesh, readPlace(where), 'face').frame.at;
    const surface = surfaces.find(s => s.mate === mate);
    if (!surface)
      throw new RangeError('The surface it names is not on the part as it is now: choose another place.');
    return surface.at;
  };
  return {
    at: point(asked.at),
    held: point(asked.held),
    force: asked.kind === 'force' ? scaled(way, asked.amount) : [0, 0, 0],
    turn: asked.kind === 'turn' ? scaled(way, 1000 * asked.amount) : [0, 0, 0],
  };
}

/** The effect of a load on the part, for the screen. */
export interface LoadResult {
  id: string;
  load: Load | null;
  weakest: Weakest | null;
  /** Why there is no answer. */
  problem?: string;
  remedies: LoadRemedy[];
}

/** What would help, and how many times more the part would bear with it. */
export interface LoadRemedy {
  does: 'turn' | 'plastic' | 'thicker';
  words: string;
  gain: number;
}

export function loadResults(
  mesh: TriangleMesh,
  surfaces: readonly MateSurface[],
  context: Pick<CheckContext, 'loads' | 'strength' | 'otherStrengths' | 'pose' | 'margin'>,
): LoadResult[] {
  return context.loads.map(asked => {
    if (!context.strength)
      return {
        id: asked.id,
        load: null,
        weakest: null,
        remedies: [],
        problem:
          'The strength of this plastic is not known here: say on the workshop’s page which polymer it is, or choose another plastic.',
      };
    try {
      const load = loadOn(mesh, surfaces, asked);
      const weakest = weakestSection(mesh, load, upOf(context.pose), context.strength);
      return {
        id: asked.id,
        load,
        weakest,
        remedies: weakest ? remediesFor(weakest, context) : [],
        ...(weakest
          ? {}
          : { problem: 'It acts where the part is held: say another place for one of the two.' }),
      };
    } catch (error) {
      const problem = (error as Error).message;
      return { id: asked.id, load: null, weakest: null, remedies: [], problem };
    }
  });
}

/** What would help, the best first; each with the factor by which the part would bear more. */
function remediesFor(
  weakest: Weakest,
  {
    strength,
    otherStrengths,
    margin,
    pose,
  }: Pick<CheckContext, 'strength' | 'otherStrengths' | 'margin' | 'pose'>,
): LoadRemedy[] {
  const own = strength!;
  const found: LoadRemedy[] = [];
  if (weakest.betweenLayers)
    found.push({
      does: 'turn',
      words: 'print it turned, so that its layers run along the load, or split it so that they do',
      gain: own.along / weakest.bears,
    });
  const rise = dot(weakest.axis, upOf(pose));
  const bears = (s: { along: number; across: number }) => strengthAt(rise, s);
  const best = [...otherStrengths].sort((a, b) => bears(b) - bears(a))[0];
  if (best && bears(best) > bears(own) * 1.05)
    found.push({ does: 'plastic', words: `print it in ${best.name}`, gain: bears(best) / bears(own) });
  const need = weakest.use * margin.times;
  if (need > 1) {
    // Bending stress depends on the square of the thickness in the bending direction.
    const thicker = Math.ceil(100 * (Math.sqrt(need) - 1));
    found.push({
      does: 'thicker',
      words: `make it ${thicker} % thicker there, in the way it is bent`,
      gain: need,
    });
  }
  // Sufficient remedies that cost no plastic come first, insufficient ones last.
  const rank = (r: LoadRemedy) => (r.gain < need ? 2 : r.does === 'thicker' ? 1 : 0);
  return found.sort((a, b) => rank(a) - rank(b) || b.gain - a.gain);
}
