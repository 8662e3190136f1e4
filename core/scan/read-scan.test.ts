import { describe, expect, test } from 'vitest';
import { box } from '../../testing/solids';
import { seeded } from '../bench/random';
import { writeStl } from '../files/stl';
import { writeThreeMf } from '../files/three-mf';
import { boundsOf, type TriangleMesh } from '../shape/mesh/mesh';
import { judgeScan, unitSuspicions } from './judge';
import { readScan } from './read-scan';
import { ScanError } from './scan-file';

const body = box([30, 20, 10]);
const bytes = (text: string) => new TextEncoder().encode(text);
const cornersOf = ({ positions: p }: TriangleMesh) =>
  Array.from({ length: p.length / 3 }, (_, v) => [p[3 * v]!, p[3 * v + 1]!, p[3 * v + 2]!]);
const facesOf = ({ triangles: t }: TriangleMesh) =>
  Array.from({ length: t.length / 3 }, (_, i) => [t[3 * i]!, t[3 * i + 1]!, t[3 * i + 2]!]);

const ascii = `solid box\n${facesOf(body)
  .map(
    f =>
      `facet normal 0 0 0\n outer loop\n${f.map(v => `  vertex ${cornersOf(body)[v]!.join(' ')}`).join('\n')}\n endloop\nendfacet`,
  )
  .join('\n')}\nendsolid box\n`;
const off = `OFF # a box\n8 12 0\n${cornersOf(body)
  .map(c => c.join(' '))
  .join('\n')}\n${facesOf(body)
  .map(f => `3 ${f.join(' ')}`)
  .join('\n')}\n`;
const obj = `# a box\no box\n${cornersOf(body)
  .map(c => `v ${c.join(' ')}`)
  .join('\n')}\n${facesOf(body)
  .map(f => `f ${f.map(v => `${v + 1}//1`).join(' ')}`)
  .join('\n')}\n`;
const plyHead = (format: string) =>
  `ply\nformat ${format} 1.0\ncomment a box\nelement vertex 8\nproperty float x\nproperty float y\nproperty float z\nproperty uchar red\nelement face 12\nproperty list uchar int vertex_indices\nend_header\n`;
const plyText = `${plyHead('ascii')}${cornersOf(body)
  .map(c => `${c.join(' ')} 200`)
  .join('\n')}\n${facesOf(body)
  .map(f => `3 ${f.join(' ')}`)
  .join('\n')}\n`;
function plyBytes(little: boolean): Uint8Array {
  const head = bytes(plyHead(little ? 'binary_little_endian' : 'binary_big_endian'));
  const view = new DataView(new ArrayBuffer(8 * 13 + 12 * 13));
  let at = 0;
  for (const c of cornersOf(body)) {
    for (const x of c) {
      view.setFloat32(at, x, little);
      at += 4;
    }
    view.setUint8(at++, 200);
  }
  for (const f of facesOf(body)) {
    view.setUint8(at++, 3);
    for (const v of f) {
      view.setInt32(at, v, little);
      at += 4;
    }
  }
  return Uint8Array.from([...head, ...new Uint8Array(view.buffer)]);
}

describe('the same body comes out of every format', () => {
  test.each([
    ['STL, binary', writeStl(body, 'box')],
    ['STL, text', bytes(ascii)],
    ['OFF', bytes(off)],
    ['OBJ', bytes(obj)],
    ['PLY, text', bytes(plyText)],
    ['PLY, little end first', plyBytes(true)],
    ['PLY, big end first', plyBytes(false)],
    ['3MF', writeThreeMf('box', '', [{ name: 'box', mesh: body }])],
  ])('%s', (_, file) => {
    const scan = readScan(file);
    expect(boundsOf(scan)).toEqual(boundsOf(body));
    expect(judgeScan(scan)).toMatchObject({
      triangles: 12,
      vertices: 8,
      components: 1,
      watertight: true,
      openEdges: 0,
      nonManifoldEdges: 0,
      holes: 0,
    });
  });
  test('a list of points, with a heading and commas', () => {
    const points = Array.from({ length: 50 }, (_, i) => `${i * 0.5}, ${i % 7}, ${-i}, 200, 10, 0`);
    const scan = readScan(bytes(`x,y,z,r,g,b\n${points.join('\r\n')}\n`));
    expect(scan.triangles).toHaveLength(0);
    expect(scan.positions).toHaveLength(150);
    expect(judgeScan(scan)).toMatchObject({ triangles: 0, vertices: 50, fuzz: null });
  });
  test('a face with five corners becomes three triangles', () => {
    const five = bytes(`v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0.5 1.5 0\nv 0 1 0\nf -5 -4 -3 -2 -1\n`);
    expect(readScan(five).triangles).toHaveLength(9);
  });
});

describe('a broken file gets a sentence that says what and where', () => {
  const said = (file: Uint8Array) => {
    try {
      readScan(file);
    } catch (error) {
      if (error instanceof ScanError) return error.message;
      throw error;
    }
    return 'read';
  };
  test.each<[string, Uint8Array, RegExp]>([
    ['empty', new Uint8Array(0), /empty/],
    [
      'a picture',
      Uint8Array.from([0xff, 0xd8, 0xff, ...new Array(900).fill(7)]),
      /cannot read this file|cut off|triangles/,
    ],
    ['binary STL cut off', writeStl(body, 'box').subarray(0, 300), /12 triangles, and ends in triangle 5/],
    ['text STL cut off', bytes(ascii.slice(0, -60)), /cut off/],
    ['text STL with a word', bytes(ascii.replace('vertex 30', 'vertex x')), /Line \d+ should be a corner/],
    ['OFF that promises more', bytes(off.replace('8 12', '9 12')), /Corner 9 of 9|Face/],
    ['OFF with a wrong name', bytes(off.replace(/\n3 0/, '\n3 77')), /names corner 77/],
    ['OBJ with a wrong name', bytes(obj.replace('f 1//1', 'f 99//1')), /line \d+ names corner/],
    ['OBJ with a face of two', bytes('v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2\n'), /has 2 corners/],
    ['PLY without an end', bytes(plyText.replace('end_header', 'end')), /heading does not end/],
    ['PLY cut off', plyBytes(true).subarray(0, 260), /cut off/],
    ['PLY of no known kind', bytes(plyText.replace('ascii', 'zipped')), /format is “zipped”/],
    ['a zip of nothing', bytes('PK\x03\x04 nothing'), /export the scan again/],
    ['a corner at infinity', bytes(obj.replace('v 0 0 0', 'v 1e30 0 0')), /kilometres away|number/],
    ['points that stop being points', bytes(`${'1 2 3\n'.repeat(40)}1 two 3\n`), /Line 41/],
  ])('%s', (_, file, words) => {
    expect(said(file)).toMatch(words);
  });
  test('promises of millions are refused before anything is made of them', () => {
    const head =
      'ply\nformat binary_little_endian 1.0\nelement vertex 2000000000\nproperty float x\nproperty float y\nproperty float z\nend_header\n';
    expect(said(bytes(head))).toMatch(/at most/);
    const stl = new Uint8Array(400);
    new DataView(stl.buffer).setUint32(80, 4_000_000_000, true);
    expect(said(stl)).toMatch(/at most|cut off/);
  });
  test('whatever the bytes are, it answers or says a sentence', () => {
    let seed = 7;
    const next = () => {
      seed = (seed * 1103515245 + 12345) & 0x7fffffff;
      return seed / 0x7fffffff;
    };
    const files = [
      writeStl(body, 'box'),
      bytes(ascii),
      bytes(off),
      bytes(obj),
      bytes(plyText),
      plyBytes(true),
    ];
    for (let round = 0; round < 1500; round++) {
      const file = files[Math.floor(next() * files.length)]!.slice();
      for (let k = 0; k < 1 + 6 * next(); k++)
        file[Math.floor(next() * file.length)] = Math.floor(256 * next());
      const cut = next() < 0.4 ? file.subarray(0, Math.floor(next() * file.length)) : file;
      expect(said(cut).length).toBeGreaterThan(3);
    }
  });
});

describe('what a scan is', () => {
  test('a lid taken off leaves a border of four edges; a body beside it counts, a crumb is an island', () => {
    const open = { ...body, triangles: body.triangles.slice(6) };
    expect(judgeScan(open)).toMatchObject({ watertight: false, openEdges: 4, holes: 1, components: 1 });
  });
  test('its unit is suspected by its size, inches before centimetres', () => {
    const of = (longest: number) =>
      unitSuspicions({ min: [0, 0, 0], max: [longest, longest / 2, longest / 4] }).map(s => s.unit);
    expect(of(80)).toEqual(['mm']);
    expect(of(3.1)).toEqual(['in', 'cm', 'mm']);
    expect(of(0.08)[0]).toBe('m');
    expect(of(31_000)[0]).toBe('µm');
    const [first] = unitSuspicions({ min: [0, 0, 0], max: [3.1, 1, 1] });
    expect(first).toMatchObject({ factor: 25.4 });
    expect(first!.reason).toContain('78.7 mm');
  });
});

describe('files that are broken in thousands of ways', () => {
  const good: [string, Uint8Array][] = [
    ['STL as numbers', new Uint8Array(writeStl(body, 'box'))],
    ['STL as text', bytes(ascii)],
    ['OFF', bytes(off)],
    ['OBJ', bytes(obj)],
    ['PLY as text', bytes(plyText)],
    ['PLY, little end first', plyBytes(true)],
    ['PLY, big end first', plyBytes(false)],
  ];
  test.each(good)('%s: each is read, or refused with a sentence', (_, whole) => {
    const random = seeded(whole.length);
    for (let n = 0; n < 600; n++) {
      const file = whole.slice(0, random() < 0.3 ? Math.floor(random() * whole.length) : whole.length);
      const hits = 1 + Math.floor(random() * 6);
      for (let k = 0; k < hits && file.length > 0; k++)
        file[Math.floor(random() * file.length)] = Math.floor(random() * 256);
      try {
        const scan = readScan(file);
        judgeScan(scan);
        expect(scan.positions.every(Number.isFinite)).toBe(true);
      } catch (error) {
        expect(error, `${n}`).toBeInstanceOf(ScanError);
      }
    }
  });
});
