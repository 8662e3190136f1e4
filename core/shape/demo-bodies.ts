import type { TriangleMesh } from './mesh/mesh';

/**
 * Objects that stand in for the maker's own until its scan is there, just as every recipe has example sizes until
 * readings are there. Their references are made up: no file has them. Lengths mm.
 * readings. Their references are made up: no file has them. Lengths mm.
 */
export const DEMO_BALL = 'de30'.padEnd(64, '0');
export const DEMO_FENDER = 'de31'.padEnd(64, '0');

/** Diameter of a bow ball: it looks the same from every side. */
export const BALL = 44;

/** Diameter of a round fender. */
export const FENDER = 220;

const kept = new Map<string, TriangleMesh>();

export function demoBody(reference: string): TriangleMesh | null {
  const known = kept.get(reference);
  if (known) return known;
  const made = reference === DEMO_BALL ? ball(BALL) : reference === DEMO_FENDER ? ball(FENDER) : null;
  if (made) kept.set(reference, made);
  return made;
}

const [AROUND, ALONG] = [72, 36];

function ball(across: number): TriangleMesh {
  const radius = across / 2;
  const positions = [0, 0, -radius];
  const triangles: number[] = [];
  for (let k = 1; k < ALONG; k++)
    for (let i = 0; i < AROUND; i++) {
      const [a, b] = [(2 * Math.PI * i) / AROUND, Math.PI * (k / ALONG - 0.5)];
      positions.push(
        radius * Math.cos(b) * Math.cos(a),
        radius * Math.cos(b) * Math.sin(a),
        radius * Math.sin(b),
      );
    }
  positions.push(0, 0, radius);
  const at = (k: number, i: number) => 1 + (k - 1) * AROUND + (i % AROUND);
  const top = positions.length / 3 - 1;
  for (let i = 0; i < AROUND; i++) {
    triangles.push(0, at(1, i + 1), at(1, i));
    for (let k = 1; k < ALONG - 1; k++)
      triangles.push(at(k, i), at(k, i + 1), at(k + 1, i + 1), at(k, i), at(k + 1, i + 1), at(k + 1, i));
    triangles.push(at(ALONG - 1, i), at(ALONG - 1, i + 1), top);
  }
  return { positions: Float64Array.from(positions), triangles: Uint32Array.from(triangles) };
}
