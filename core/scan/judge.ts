import { type Bounds, boundsOf, type TriangleMesh } from '../shape/mesh/mesh';
import { edgesOf } from './edges';
import { fuzzOf } from './fuzz';
import { type DoubleSkin, doubleSkin, type UnseenSide, unseenSides } from './skin';

/** The properties of a scan before anything is done to it. Lengths in mm once its unit is applied. */
export interface Judged {
  triangles: number;
  vertices: number;
  bounds: Bounds;
  /** Separate bodies, and how many of them are insignificant. */
  components: number;
  islands: number;
  watertight: boolean;
  openEdges: number;
  nonManifoldEdges: number;
  /** Border lines: holes, and the border of what was seen. */
  holes: number;
  /** Scatter of its corners, sd; null for a list of points. */
  fuzz: number | null;
  unitSuspicion: UnitSuspicion;
  /** Sides from which a part is missing, the largest first. */
  unseen: UnseenSide[];
  /** A part that was scanned twice, slightly displaced; null where there is none. */
  double: DoubleSkin | null;
}

export interface UnitSuspicion {
  unit: 'mm' | 'in' | 'cm' | 'm' | 'µm';
  /** The length of one of the file's units, mm. */
  factor: number;
  reason: string;
}

/** A body with fewer triangles than this share of the largest is an island. Common practice, no source. */
const ISLAND = 0.01;

export function judgeScan(scan: TriangleMesh): Judged {
  const bounds = boundsOf(scan);
  const edges = scan.triangles.length > 0 ? edgesOf(scan) : null;
  const largest = edges?.components[0] ?? 0;
  const fuzz = edges ? fuzzOf(scan) : null;
  return {
    triangles: scan.triangles.length / 3,
    vertices: scan.positions.length / 3,
    bounds,
    components: edges?.components.length ?? 0,
    islands: edges?.components.filter(n => n < ISLAND * largest).length ?? 0,
    watertight: edges !== null && edges.open === 0 && edges.nonManifold === 0,
    openEdges: edges?.open ?? 0,
    nonManifoldEdges: edges?.nonManifold ?? 0,
    holes: edges?.borders ?? 0,
    fuzz,
    unitSuspicion: unitSuspicions(bounds)[0]!,
    unseen: edges ? unseenSides(scan) : [],
    double: edges ? doubleSkin(scan, fuzz ?? 0, longestOf(bounds)) : null,
  };
}

const longestOf = ({ min, max }: Bounds): number =>
  Math.max(max[0] - min[0], max[1] - min[1], max[2] - min[2]);

/** Objects that are scanned on a bench are between these lengths, mm. Common practice, no source. */
const [SMALLEST, LARGEST] = [12, 1500];

/** The possible units by the longest side, the likeliest first; a caliper reading of one size settles it. */
export function unitSuspicions({ min, max }: Bounds): UnitSuspicion[] {
  const longest = longestOf({ min, max });
  const told = (x: number) => (x >= 100 ? x.toFixed(0) : x >= 1 ? x.toFixed(1) : x.toPrecision(2));
  const as = (unit: UnitSuspicion['unit'], factor: number, why: string): UnitSuspicion => ({
    unit,
    factor,
    reason: why,
  });
  const mm = (why: string) => as('mm', 1, why);
  if (longest >= SMALLEST && longest <= LARGEST)
    return [mm(`${told(longest)} along its longest side: as mm it is an object for a bench.`)];
  if (longest > LARGEST)
    return [
      as(
        'µm',
        0.001,
        `${told(longest)} along its longest side: as mm it would be ${told(longest / 1000)} m long, as micrometres ${told(longest / 1000)} mm.`,
      ),
      mm(`It may be as large as ${told(longest / 1000)} m.`),
    ];
  // Inches before centimetres: programs write inches, hardly any writes centimetres.
  const others = [
    as(
      'in',
      25.4,
      `${told(longest)} along its longest side is small for mm; as inches it is ${told(25.4 * longest)} mm.`,
    ),
    as('cm', 10, `As centimetres it is ${told(10 * longest)} mm.`),
    as('m', 1000, `${told(longest)} along its longest side: as metres it is ${told(1000 * longest)} mm.`),
  ].filter(s => s.factor * longest >= SMALLEST && s.factor * longest <= LARGEST);
  return [...others, mm(`It may be as small as ${told(longest)} mm.`)];
}
