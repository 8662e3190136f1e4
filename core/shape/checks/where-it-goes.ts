import { formatPlain } from '../../quantity/format';
import { DIRECTIONS } from '../additions/place';
import type { MeshKernel } from '../kernels/kernel';
import { boundsOf, type TriangleMesh, volumeOf } from '../mesh/mesh';
import type { CheckContext, Finding, NeighbourAsked } from '../recipes/recipe';

/** Touching is no collision, mm³. */
const TOUCH = 0.5;
/** Along the path it is looked at every so many mm, and no more often than so. */
const STEP = 1;
const MOST_STEPS = 60;
const SIDES = 96;

/** Whether the part has room where it sits, and on the whole way there. */
export function checkPlace(
  mesh: TriangleMesh,
  { neighbours, goesOn }: Pick<CheckContext, 'neighbours' | 'goesOn'>,
  kernel: MeshKernel,
): Finding[] {
  return neighbours.flatMap((neighbour): Finding[] => {
    const solid = neighbourMesh(neighbour);
    const room = neighbour.room > 0 ? `, with its ${formatPlain(neighbour.room)} mm of room` : '';
    const here = overlap(mesh, solid, kernel);
    const mark = { neighbour: neighbour.id };
    if (here > TOUCH)
      return [
        {
          ...mark,
          code: 'in-the-way',
          level: 'stop',
          message: `“${neighbour.name}”${room} is where the part is: they share ${formatPlain(here / 1000, 2)} cm³. Make the part smaller there, or add “Keep clear” for it.`,
        },
      ];
    if (!goesOn) return [];
    const hit = firstHit(mesh, solid, goesOn, kernel);
    return hit === null
      ? []
      : [
          {
            ...mark,
            code: 'path-blocked',
            level: 'stop',
            message: `On its way the part hits “${neighbour.name}”${room}, ${formatPlain(hit, 0)} mm before it is home. Bring it on from another side, shorten what sticks out, or split the part.`,
          },
        ];
  });
}

function overlap(a: TriangleMesh, b: TriangleMesh, kernel: MeshKernel): number {
  if (!boxesMeet(a, b)) return 0;
  const common = kernel.common(a, b);
  return common ? volumeOf(common) : 0;
}

function boxesMeet(a: TriangleMesh, b: TriangleMesh): boolean {
  const [p, q] = [boundsOf(a), boundsOf(b)];
  return [0, 1, 2].every(i => p.min[i]! < q.max[i]! && q.min[i]! < p.max[i]!);
}

/** How far from home the part first meets a neighbour, coming in a straight line; null where it never does. */
export function firstHit(
  mesh: TriangleMesh,
  neighbour: TriangleMesh,
  { from, distance }: { from: string; distance: number },
  kernel: MeshKernel,
): number | null {
  const way = DIRECTIONS[from] ?? DIRECTIONS.top!;
  const steps = Math.min(MOST_STEPS, Math.max(1, Math.ceil(distance / STEP)));
  for (let i = steps; i >= 1; i--) {
    const off = (distance * i) / steps;
    // The neighbour is moved instead of the part: it has fewer triangles.
    const moved: TriangleMesh = {
      positions: neighbour.positions.map((v, k) => v - off * way[k % 3]!),
      triangles: neighbour.triangles,
    };
    if (overlap(mesh, moved, kernel) > TOUCH) return off;
  }
  return null;
}

/** A neighbour with the room it needs, as a solid. */
export function neighbourMesh(n: NeighbourAsked): TriangleMesh {
  const { room } = n;
  const [z0, z1] = [n.z - room, n.z + n.height + room];
  const corners: [number, number][] =
    n.form === 'box'
      ? [
          [n.x - n.width / 2 - room, n.y - n.depth / 2 - room],
          [n.x + n.width / 2 + room, n.y - n.depth / 2 - room],
          [n.x + n.width / 2 + room, n.y + n.depth / 2 + room],
          [n.x - n.width / 2 - room, n.y + n.depth / 2 + room],
        ]
      : Array.from({ length: SIDES }, (_, i) => {
          const a = (2 * Math.PI * i) / SIDES;
          const r = n.width / 2 + room;
          return [n.x + r * Math.cos(a), n.y + r * Math.sin(a)] as [number, number];
        });
  const count = corners.length;
  const positions = [z0, z1].flatMap(z => corners.flatMap(([x, y]) => [x, y, z]));
  const triangles: number[] = [];
  for (let i = 0; i < count; i++) {
    const j = (i + 1) % count;
    triangles.push(i, j, count + j, i, count + j, count + i);
    if (i > 0 && i < count - 1) triangles.push(0, i + 1, i, count, count + i, count + i + 1);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
