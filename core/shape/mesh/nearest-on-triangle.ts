/**
 * The point of a triangle that is nearest to a given point (Ericson, “Real-time collision detection”, 2005, 5.1.5).
 * Called millions of times, so it allocates nothing.
 * @param p corners, x, y, z each @param i @param j @param k where the triangle's three corners begin in `p`
 * @param at receives the point @returns its squared distance
 */
export function nearestOnTriangle(
  p: ArrayLike<number>,
  i: number,
  j: number,
  k: number,
  x: number,
  y: number,
  z: number,
  at: Float64Array,
): number {
  const [ax, ay, az] = [p[i]!, p[i + 1]!, p[i + 2]!];
  const [ux, uy, uz] = [p[j]! - ax, p[j + 1]! - ay, p[j + 2]! - az];
  const [vx, vy, vz] = [p[k]! - ax, p[k + 1]! - ay, p[k + 2]! - az];
  const [ox, oy, oz] = [x - ax, y - ay, z - az];
  const uu = ux * ux + uy * uy + uz * uz;
  const vv = vx * vx + vy * vy + vz * vz;
  const uv = ux * vx + uy * vy + uz * vz;
  const d1 = ux * ox + uy * oy + uz * oz;
  const d2 = vx * ox + vy * oy + vz * oz;
  const [d3, d4, d5, d6] = [d1 - uu, d2 - uv, d1 - uv, d2 - vv];
  const [va, vb, vc] = [d3 * d6 - d5 * d4, d5 * d2 - d1 * d6, d1 * d4 - d3 * d2];
  // Shares of the two edges that leave the first corner.
  let [s, t] = [0, 0];
  if (d1 <= 0 && d2 <= 0) s = 0;
  else if (d3 >= 0 && d4 <= d3) s = 1;
  else if (vc <= 0 && d1 >= 0 && d3 <= 0) s = d1 / (d1 - d3);
  else if (d6 >= 0 && d5 <= d6) t = 1;
  else if (vb <= 0 && d2 >= 0 && d6 <= 0) t = d2 / (d2 - d6);
  else if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
    t = (d4 - d3) / (d4 - d3 + d5 - d6);
    s = 1 - t;
  } else {
    const sum = va + vb + vc;
    s = vb / sum;
    t = vc / sum;
  }
  at[0] = ax + s * ux + t * vx;
  at[1] = ay + s * uy + t * vy;
  at[2] = az + s * uz + t * vz;
  return (x - at[0]) ** 2 + (y - at[1]) ** 2 + (z - at[2]) ** 2;
}
