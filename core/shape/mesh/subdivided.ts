import type { TriangleMesh } from './mesh';

/** Every edge longer than the limit is halved until none is left; neighbours keep sharing their corners. */
export function subdivided(mesh: TriangleMesh, longest: number): TriangleMesh {
  const positions = Array.from(mesh.positions);
  let triangles = Array.from(mesh.triangles);
  const done: number[] = [];
  while (triangles.length > 0) {
    const halves = new Map<number, number>();
    const half = (a: number, b: number): number | undefined => {
      const [x, y, z] = [0, 1, 2].map(i => positions[3 * a + i]! - positions[3 * b + i]!);
      if (Math.hypot(x!, y!, z!) <= longest) return;
      const key = Math.min(a, b) * 2 ** 26 + Math.max(a, b);
      let at = halves.get(key);
      if (at === undefined) {
        at = positions.length / 3;
        for (let i = 0; i < 3; i++) positions.push((positions[3 * a + i]! + positions[3 * b + i]!) / 2);
        halves.set(key, at);
      }
      return at;
    };
    const next: number[] = [];
    for (let t = 0; t < triangles.length; t += 3) {
      const corner = [triangles[t]!, triangles[t + 1]!, triangles[t + 2]!];
      const mid = corner.map((a, i) => half(a, corner[(i + 1) % 3]!));
      const cut = mid.filter(m => m !== undefined).length;
      if (cut === 0) done.push(corner[0]!, corner[1]!, corner[2]!);
      else if (cut === 3) {
        const [x, y, z] = mid as number[];
        next.push(corner[0]!, x!, z!, corner[1]!, y!, x!, corner[2]!, z!, y!, x!, y!, z!);
      } else {
        // Rotated so that its first edge is cut and its last is not.
        const k = cut === 1 ? mid.findIndex(m => m !== undefined) : (mid.indexOf(undefined) + 1) % 3;
        const [a, b, c] = [corner[k]!, corner[(k + 1) % 3]!, corner[(k + 2) % 3]!];
        const [x, y] = [mid[k]!, mid[(k + 1) % 3]];
        if (y === undefined) next.push(a, x, c, x, b, c);
        else next.push(x, b, y, a, x, y, a, y, c);
      }
    }
    triangles = next;
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(done) };
}
