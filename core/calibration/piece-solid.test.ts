import { readFileSync } from 'node:fs';
import ManifoldInit from 'manifold-3d';
import opentype from 'opentype.js';
import { beforeAll, describe, expect, test } from 'vitest';
import { meshKernel } from '../shape/kernels/mesh-kernel';
import { boundsOf, closureOf, type TriangleMesh, volumeOf } from '../shape/mesh/mesh';
import { loopNear, sectionAtZ } from '../shape/mesh/section';
import { textOutlines } from '../shape/text';
import { pieceGrams, pieceMinutes, pieceVolume } from './estimate';
import { FEATURES, PLATE } from './piece';
import { pieceSolid } from './piece-solid';

const bytes = readFileSync(
  new URL('../../node_modules/dejavu-fonts-ttf/ttf/DejaVuSans-Bold.ttf', import.meta.url),
);
const font = opentype.parse(
  bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer,
);
let mesh: TriangleMesh;
let bodies: number;
let genus: number;
beforeAll(async () => {
  const wasm = await ManifoldInit();
  wasm.setup();
  mesh = pieceSolid(wasm, font);
  const facts = meshKernel(wasm).facts(mesh);
  if (!facts.ok) throw new Error(facts.message);
  ({ bodies, genus } = facts.facts);
});

describe('the calibration piece', () => {
  test('is one closed solid with a way through each hole and slot', () => {
    expect(closureOf(mesh).openEdges).toBe(0);
    expect(bodies).toBe(1);
    expect(genus).toBe(FEATURES.filter(f => f.kind === 'hole' || f.kind === 'slot').length);
    expect(boundsOf(mesh)).toEqual({ min: [0, 0, 0], max: [PLATE.width, PLATE.depth, 10] });
  });

  test('every hole and peg measures its number, relieved at the bed', () => {
    for (const f of FEATURES.filter(x => x.kind === 'hole' || x.kind === 'peg')) {
      const side = f.kind === 'hole' ? 'inside' : 'outside';
      const at = (z: number) => loopNear(sectionAtZ(mesh, z), f.centre!, f.size, side)!.diameter;
      expect(Math.abs(at(f.kind === 'hole' ? 1.3 : 3) - f.size), f.id).toBeLessThan(0.005);
      if (f.kind === 'hole') expect(at(0.3), f.id).toBeCloseTo(f.size + 2 * PLATE.relief, 2);
    }
  });

  test('slots, ribs, deck, foot and diagonals measure their numbers in their own direction', () => {
    const widths = (z: number) =>
      sectionAtZ(mesh, z).map(({ points }) => {
        const [xs, ys] = [points.map(p => p[0]), points.map(p => p[1])];
        return { x0: Math.min(...xs), x1: Math.max(...xs), y0: Math.min(...ys), y1: Math.max(...ys) };
      });
    for (const f of FEATURES.filter(x => x.box && x.kind !== 'height' && x.kind !== 'diagonal')) {
      const [x0, y0, x1, y1] = f.box!;
      const middle = [(x0 + x1) / 2, (y0 + y1) / 2];
      const z = f.kind === 'foot' ? 0.3 : f.kind === 'rib' && f.text ? 3 : 1.3;
      const found = widths(z).find(
        e =>
          Math.abs((e.x0 + e.x1) / 2 - middle[0]!) < 0.01 &&
          Math.abs((e.y0 + e.y1) / 2 - middle[1]!) < 0.01 &&
          Math.abs(e.x1 - e.x0 - (x1 - x0)) < 0.01,
      );
      const size = f.direction === 'left-right' ? found!.x1 - found!.x0 : found!.y1 - found!.y0;
      expect(size, f.id).toBeCloseTo(f.size, 3);
    }
    const [c, s] = [0.8, 0.6];
    let [most, other] = [0, 0];
    for (let i = 0; i < mesh.positions.length; i += 3) {
      const z = mesh.positions[i + 2]!;
      if (z < 1 || z > 1.9) continue;
      const [x, y] = [mesh.positions[i]! - 40, mesh.positions[i + 1]! - 30];
      most = Math.max(most, c * x + s * y);
      other = Math.max(other, c * x - s * y);
    }
    expect(2 * most).toBeCloseTo(PLATE.diagonal, 4);
    expect(2 * other).toBeCloseTo(PLATE.diagonal, 4);
  });

  test('no two features touch, labels included, and jaws reach between what stands up', () => {
    const boxOf = (f: (typeof FEATURES)[number], more: number) => {
      const [x, y] = f.centre ?? [0, 0];
      const r = f.size / 2;
      const [x0, y0, x1, y1] = f.box ?? [x - r, y - r, x + r, y + r];
      return [x0 - more, y0 - more, x1 + more, y1 + more] as const;
    };
    const labelOf = (f: (typeof FEATURES)[number]) => {
      const half = String(f.size).length * 1.3;
      return [f.text![0] - half, f.text![1] - 1.5, f.text![0] + half, f.text![1] + 1.5] as const;
    };
    const apart = (a: readonly number[], b: readonly number[]) =>
      a[2]! <= b[0]! || b[2]! <= a[0]! || a[3]! <= b[1]! || b[3]! <= a[1]!;
    const marked = FEATURES.filter(f => f.text);
    const clashes: string[] = [];
    const clear = (isClear: boolean, words: string) => isClear || clashes.push(words);
    for (const f of marked) {
      const standsUp = f.kind === 'peg' || f.kind === 'rib';
      for (const g of marked) {
        if (g === f) continue;
        const room = standsUp && (g.kind === 'peg' || g.kind === 'rib') ? 1.5 : 0;
        if (f.kind !== 'height' || g.kind !== 'height')
          clear(apart(boxOf(f, room), boxOf(g, room)), `${f.id} and ${g.id}`);
        clear(apart(labelOf(f), boxOf(g, 0)), `label of ${f.id} on ${g.id}`);
        clear(apart(labelOf(f), labelOf(g)), `labels of ${f.id} and ${g.id}`);
      }
      clear(apart(labelOf(f), boxOf(f, 0)), `label of ${f.id} on itself`);
      const [x0, y0, x1, y1] = boxOf(f, f.kind === 'height' ? 0 : 0.6);
      clear(x0 >= 1 && y0 >= 1 && x1 <= 79 && y1 <= 59, `${f.id} over the edge`);
    }
    expect(clashes).toEqual([]);
  });

  test('takes under forty minutes and weighs what its volume says', () => {
    // The figures are left out: about half a percent.
    expect(Math.abs(pieceVolume() / volumeOf(mesh) - 1)).toBeLessThan(0.01);
    expect(pieceMinutes(0.4, 0.2)).toBeLessThan(40);
    expect(pieceGrams(1.27)).toBeCloseTo(12.7, 0);
  });
});

test('letters: capitals stand as high as asked, round the middle; what a font lacks is said', () => {
  const points = textOutlines('20', 3, font).flat();
  const ys = points.map(p => p[1]);
  expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(2.95);
  expect(Math.max(...ys) - Math.min(...ys)).toBeLessThan(3.2);
  const xs = points.map(p => p[0]);
  expect(Math.abs(Math.max(...xs) + Math.min(...xs))).toBeLessThan(0.4);
  expect(() => textOutlines('\u{1F6E0}', 3, font)).toThrow(/take another/);
});
