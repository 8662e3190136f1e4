import { strToU8, zipSync } from 'fflate';
import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { box, withoutTriangle } from '../../../testing/solids';
import type { Kernels } from '../../shape/kernels/kernel';
import { volumeOf } from '../../shape/mesh/mesh';
import { circle } from '../../shape/outline';
import { readStl } from '../reading-back';
import { writeStl } from '../stl';
import { writeThreeMf } from '../three-mf';
import { readBody } from './read-body';

/** Files of bodies as other programs write them, and files that are not bodies. */
let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
const read = async (bytes: Uint8Array) => {
  const answer = await readBody(bytes, kernels);
  if (!answer.ok) throw new Error(answer.message);
  return { ...answer, volume: volumeOf(readStl(answer.stl)) };
};
const refused = async (bytes: Uint8Array) => {
  const answer = await readBody(bytes, kernels);
  return answer.ok ? '' : answer.message;
};
const brick = box([10, 6, 2], [3, 0, -1]);

/** As text, as in the format's first description. */
function textStl({ positions: p, triangles }: typeof brick): string {
  const facets = Array.from({ length: triangles.length / 3 }, (_, t) => {
    const corners = [0, 1, 2].map(c => {
      const v = 3 * triangles[3 * t + c]!;
      return `vertex ${p[v]} ${p[v + 1]} ${p[v + 2]}`;
    });
    return `facet normal 0 0 0\nouter loop\n${corners.join('\n')}\nendloop\nendfacet`;
  });
  return `solid brick\n${facets.join('\n')}\nendsolid brick\n`;
}

describe('reads by content', () => {
  test('STL as bytes and as text, OBJ with quads, 3MF', async () => {
    const quads = [
      '# a brick',
      ...Array.from({ length: 8 }, (_, i) => `v ${[0, 1, 2].map(k => brick.positions[3 * i + k]).join(' ')}`),
      'f 1 3 4 2',
      'f 5 6 8 7',
      'f 1 2 6 5',
      'f 3 7 8 4',
      'f 1 5 7 3',
      'f 2 4 8 6',
    ].join('\n');
    for (const bytes of [
      writeStl(brick, 'brick'),
      strToU8(textStl(brick)),
      strToU8(quads),
      writeThreeMf('brick', '', [{ name: 'brick', mesh: brick }]),
    ]) {
      const { volume, size, hull } = await read(bytes);
      expect(volume).toBeCloseTo(120, 3);
      expect(size.map(x => Math.round(1000 * x) / 1000)).toEqual([10, 6, 2]);
      expect(hull).toBe(false);
    }
  });

  test('STEP: exact surfaces cut into triangles', async () => {
    const rod = kernels.part.extrude(circle([0, 0], 5), 0, 20);
    const text = await kernels.part.step([{ body: rod, name: 'rod' }]);
    kernels.part.release();
    const { volume, size } = await read(strToU8(text));
    expect(volume / (Math.PI * 25 * 20)).toBeCloseTo(1, 2);
    expect(size[2]).toBeCloseTo(20, 3);
  });

  test('a 3MF in inches, its body placed and mirrored by its item: 3MF Core 1.3, 3.4', async () => {
    const vertices = Array.from(
      { length: 8 },
      (_, i) => `<vertex x="${i & 1}" y="${i & 2 ? 1 : 0}" z="${i & 4 ? 1 : 0}"/>`,
    ).join('');
    const triangles = Array.from({ length: 12 }, (_, t) => {
      const [a, b, c] = [0, 1, 2].map(k => brick.triangles[3 * t + k]);
      return `<triangle v1="${a}" v2="${b}" v3="${c}"/>`;
    }).join('');
    const model = `<?xml version="1.0"?><model unit="inch"><resources><object id="1"><mesh><vertices>${vertices}</vertices><triangles>${triangles}</triangles></mesh></object></resources><build><item objectid="1" transform="-1 0 0 0 2 0 0 0 1 5 0 0"/></build></model>`;
    const { volume, size } = await read(zipSync({ '3D/3dmodel.model': strToU8(model) }));
    expect(volume / (2 * 25.4 ** 3)).toBeCloseTo(1, 5);
    expect(size[1]).toBeCloseTo(50.8, 3);
  });

  test('a surface with a hole: the hull stands in, and it is said', async () => {
    const { hull, volume } = await read(writeStl(withoutTriangle(brick), 'open'));
    expect(hull).toBe(true);
    expect(volume).toBeCloseTo(120, 3);
  });
});

test('components of components that would multiply without end', async () => {
  const mesh =
    '<object id="1"><mesh><vertices><vertex x="0" y="0" z="0"/></vertices><triangles/></mesh></object>';
  const levels = [2, 3, 4, 5, 6].map(
    id =>
      `<object id="${id}"><components>${`<component objectid="${id - 1}"/>`.repeat(10)}</components></object>`,
  );
  const model = `<model unit="millimeter"><resources>${mesh}${levels.join('')}</resources><build><item objectid="6"/></build></model>`;
  expect(await refused(zipSync({ '3D/3dmodel.model': strToU8(model) }))).toContain('more than 1000 bodies');
});

describe('refuses with what to do', () => {
  test.each([
    ['nothing known', strToU8('hello'), 'choose STEP, STL, OBJ or 3MF'],
    [
      'no triangles',
      writeStl({ positions: new Float64Array(), triangles: new Uint32Array() }, ''),
      'no surface',
    ],
    ['a zip of something else', zipSync({ 'a.txt': strToU8('a') }), 'no 3MF model'],
    ['STEP cut off', strToU8('ISO-10303-21;\nHEADER;'), 'STEP'],
    ['flat', strToU8('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3'), 'plane'],
    ['no numbers', strToU8('v 0 0 zero\nv 1 0 0\nv 0 1 0\nf 1 2 3'), '.'],
  ])('%s', async (_, bytes, words) => {
    const message = await refused(bytes);
    expect(message).toContain(words);
    expect(message).toMatch(/\.$/);
  });
});
