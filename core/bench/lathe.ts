import { type TriangleMesh, weld } from '../shape/mesh/mesh';

/** A closed solid turned about z. @param section radius and height, counter-clockwise all round; mm */
export function lathe(section: readonly (readonly [r: number, z: number])[], round = 160): TriangleMesh {
  const positions = Array.from({ length: round }, (_, i) => {
    const a = (2 * Math.PI * i) / round;
    return section.flatMap(([r, z]) => [r * Math.cos(a), r * Math.sin(a), z]);
  }).flat();
  const n = section.length;
  const triangles: number[] = [];
  for (let i = 0; i < round; i++)
    for (let k = 0; k < n; k++) {
      const [a, b] = [i * n + k, ((i + 1) % round) * n + k];
      const [c, d] = [i * n + ((k + 1) % n), ((i + 1) % round) * n + ((k + 1) % n)];
      triangles.push(a, b, c, b, d, c);
    }
  return weld(positions, triangles);
}
