import { encode } from 'fast-png';
import { facing, type TriangleMesh } from '../shape/mesh/mesh';

/** From the front right and above, the way parts are viewed on a bench. */
const TURN = -0.62;
const TILT = 0.62;
const [CLAY, EDGE] = [
  [205, 178, 146],
  [60, 52, 44],
] as const;
/** Share of the picture left free around the part. */
const MARGIN = 0.06;

/**
 * A small picture of bodies as they lie, shaded by the direction of each face, on a transparent ground: PNG. @param
 * size pixels
 */
export function partPicture(bodies: readonly TriangleMesh[], size = 256): Uint8Array {
  const seen = bodies.map(mesh => ({ mesh, at: projected(mesh) }));
  const box = [Infinity, Infinity, -Infinity, -Infinity] as [number, number, number, number];
  for (const { at } of seen)
    for (let i = 0; i < at.length; i += 3) {
      box[0] = Math.min(box[0], at[i]!);
      box[1] = Math.min(box[1], at[i + 1]!);
      box[2] = Math.max(box[2], at[i]!);
      box[3] = Math.max(box[3], at[i + 1]!);
    }
  const scale = ((1 - 2 * MARGIN) * size) / Math.max(box[2] - box[0], box[3] - box[1], 1e-6);
  const [dx, dy] = [size / 2 - (scale * (box[0] + box[2])) / 2, size / 2 + (scale * (box[1] + box[3])) / 2];
  const pixels = new Uint8Array(4 * size * size);
  const depth = new Float32Array(size * size).fill(-Infinity);
  for (const { mesh, at } of seen) {
    for (let t = 0; t < mesh.triangles.length; t += 3) {
      const corner = [0, 1, 2].map(k => {
        const v = 3 * mesh.triangles[t + k]!;
        return [dx + scale * at[v]!, dy - scale * at[v + 1]!, at[v + 2]!] as const;
      });
      fill(corner as never, light(facing(mesh, t / 3)), pixels, depth, size);
    }
  }
  ink(pixels, depth, size, 2 / scale);
  return encode({ width: size, height: size, data: pixels, channels: 4, depth: 8 });
}

/** Right, up and towards the eye. */
function projected({ positions: p }: TriangleMesh): Float64Array {
  const [ct, st, cl, sl] = [Math.cos(TURN), Math.sin(TURN), Math.cos(TILT), Math.sin(TILT)];
  const out = new Float64Array(p.length);
  for (let i = 0; i < p.length; i += 3) {
    const [x, y, z] = [p[i]! * ct - p[i + 1]! * st, p[i]! * st + p[i + 1]! * ct, p[i + 2]!];
    out[i] = x;
    out[i + 1] = z * cl + y * sl;
    out[i + 2] = z * sl - y * cl;
  }
  return out;
}

/** From above and a little from the left. */
function light(normal: readonly [number, number, number]): number {
  const long = Math.hypot(...normal) || 1;
  const [x, y, z] = normal.map(n => n / long) as [number, number, number];
  return 0.62 + 0.38 * Math.max(0, 0.85 * z - 0.35 * y - 0.2 * x) - 0.12 * Math.max(0, x);
}

type Corner = readonly [x: number, y: number, z: number];

function fill(
  [a, b, c]: readonly [Corner, Corner, Corner],
  shade: number,
  pixels: Uint8Array,
  depth: Float32Array,
  size: number,
): void {
  const area = (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]);
  if (Math.abs(area) < 1e-12) return;
  const from = (i: 0 | 1) => Math.max(0, Math.floor(Math.min(a[i], b[i], c[i])));
  const to = (i: 0 | 1) => Math.min(size - 1, Math.ceil(Math.max(a[i], b[i], c[i])));
  for (let y = from(1); y <= to(1); y++)
    for (let x = from(0); x <= to(0); x++) {
      const [px, py] = [x + 0.5, y + 0.5];
      const u = ((b[0] - px) * (c[1] - py) - (b[1] - py) * (c[0] - px)) / area;
      const v = ((c[0] - px) * (a[1] - py) - (c[1] - py) * (a[0] - px)) / area;
      const w = 1 - u - v;
      if (u < 0 || v < 0 || w < 0) continue;
      const z = u * a[2] + v * b[2] + w * c[2];
      const i = y * size + x;
      if (z <= depth[i]!) continue;
      depth[i] = z;
      for (let k = 0; k < 3; k++) pixels[4 * i + k] = CLAY[k]! * shade;
      pixels[4 * i + 3] = 255;
    }
}

/** A line wherever the depth jumps: at outlines, and at edges in front of something farther away. */
function ink(pixels: Uint8Array, depth: Float32Array, size: number, jump: number): void {
  for (let y = 1; y < size; y++)
    for (let x = 1; x < size; x++) {
      const i = y * size + x;
      const beside = [depth[i - 1]!, depth[i - size]!];
      if (beside.every(d => d === depth[i] || Math.abs(d - depth[i]!) < 4 * jump)) continue;
      for (let k = 0; k < 3; k++) pixels[4 * i + k] = EDGE[k]!;
      pixels[4 * i + 3] = 255;
    }
}
