import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../../kernels/node';
import { partWith } from '../../../../testing/part-with';
import { PLAIN_CONTEXT } from '../../../../testing/plain-context';
import { grip, mushroom } from '../../../../testing/scan-objects';
import { box } from '../../../../testing/solids';
import { scannedBy } from '../../../bench/scanner';
import { ScanSurface } from '../../../scan/scan-surface';
import { thinned } from '../../../scan/thinned';
import { buildPart } from '../../build';
import { inspectPart } from '../../checks/inspect';
import { comesOut } from '../../comes-out';
import type { Kernels } from '../../kernels/kernel';
import { boundsOf, closureOf, type TriangleMesh } from '../../mesh/mesh';
import { rayTreeOf } from '../../mesh/rays';
import { sectionAtZ } from '../../mesh/section';
import type { Parameters } from '../parameters';
import { recess } from '.';
import type { P } from './parameters';
import { sizesOf } from './sizes';

const [TRUE, SCAN, CAP, BAR] = ['a', 'b', 'c', 'd'].map(x => x.repeat(64)) as [
  string,
  string,
  string,
  string,
];

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
  const object = grip();
  const scan = scannedBy(object, { spacing: 0.6, noise: 0.05, warp: 0.05, islands: 3, seed: 7 });
  kernels.models = new Map<string, TriangleMesh>([
    [TRUE, object],
    [SCAN, thinned(new ScanSurface(scan))],
    [CAP, mushroom()],
    [BAR, box([200, 20, 16])],
  ]);
});

const asked = (change: Parameters): Parameters => ({ ...recess.demo.parameters, mouth: 0.8, ...change });

function built(change: Parameters) {
  const p = asked(change);
  const outcome = buildPart(recess, p, kernels, 'file');
  if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
  const { part } = outcome;
  expect(part.watertight).toBe(true);
  expect(closureOf(part.mesh).bodies).toBe(1);
  const s = sizesOf(p as unknown as P, kernels.models)!;
  return { p, part, s, codes: recess.checks(p, part, PLAIN_CONTEXT, kernels.models).map(f => f.code) };
}

const GRIP = { opening: 32.8, sunk: 14, long: 140, floor: 2.4 };

describe('a grip from its scan', () => {
  test.each(['block', 'plate', 'holster'])(
    'in %s: closed, and the grip itself comes out with its room',
    form => {
      const { part, s, codes } = built({ ...GRIP, object: SCAN, form });
      expect(part.mates[0]!.size).toBeCloseTo(32.8, 2);
      expect(codes).toContain('comes-out');
      // Not the scan, but the object that was scanned, in its true place.
      const { min, max } = boundsOf(kernels.models!.get(SCAN)!);
      const by = [-(min[0] + max[0]) / 2, -(min[1] + max[1]) / 2, s.under - min[2]];
      const { positions, triangles } = kernels.models!.get(TRUE)!;
      const truth = { positions: positions.map((x, i) => x + by[i % 3]!), triangles };
      const out = comesOut(part.mesh, truth);
      expect(out.heldAt).toBeNull();
      expect(out.leastRoom).toBeGreaterThan(0.5 * s.room);
    },
  );

  test('the room is the same all round what lies in it', () => {
    const { part, s } = built({ ...GRIP, object: TRUE, draft: 0 });
    const tree = rayTreeOf(part.mesh);
    const p = s.object.mesh.positions;
    const rooms: number[] = [];
    for (let v = 0; v < p.length; v += 3) {
      if (p[v + 2]! > 8) continue;
      rooms.push(tree.nearest([p[v]!, p[v + 1]!, p[v + 2]! + s.under], 5)!.distance);
    }
    rooms.sort((a, b) => a - b);
    expect(rooms.length).toBeGreaterThan(1000);
    expect(rooms[0]!).toBeGreaterThan(s.room - 0.08);
    expect(rooms[Math.floor(0.95 * rooms.length)]!).toBeLessThan(s.room + 0.05);
  });

  test('fingers, a drain, ears or a plate behind take nothing of that away', () => {
    const changes: Parameters[] = [
      { fingers: 'ends', finger: 16, fingerDeep: 9, drain: 5, mount: 'ears' },
      { fingers: 'left', form: 'holster', mount: 'back' },
      { form: 'plate', fingers: 'right', drain: 4, mount: 'back' },
    ];
    for (const change of changes) {
      const { part, codes } = built({ ...GRIP, object: SCAN, ...change });
      expect(part.mates[0]!.size, JSON.stringify(change)).toBeCloseTo(32.8, 1);
      expect(codes).toContain('comes-out');
      expect(codes).not.toContain('held-in');
    }
  });

  test('a draft opens it towards the mouth', () => {
    const wide = (draft: number) => {
      const { part, s } = built({ ...GRIP, object: TRUE, draft });
      const [hole] = sectionAtZ(part.mesh, s.mouth - 1).filter(loop => loop.area < 0);
      return hole!.area;
    };
    // Its widest place is a few mm below: only above that does it widen.
    expect(wide(6)).toBeLessThan(wide(0) - 15);
  });
});

describe('with what is put on it', () => {
  const found = (kind: 'other-hand' | 'split' | 'shape', set: Parameters = {}) => {
    const { recipe, parameters } = partWith('recess', [{ kind, set }], asked({ ...GRIP, object: TRUE }));
    const outcome = buildPart(recipe, parameters, kernels, 'file');
    if (!outcome.ok) throw new Error(outcome.findings[0]!.message);
    return inspectPart(recipe, parameters, outcome.part, PLAIN_CONTEXT, kernels).findings.map(f => f.code);
  };

  test('the other hand is for the other hand’s object, and a split part is looked at in one piece', () => {
    for (const kind of ['other-hand', 'split'] as const) {
      const codes = found(kind);
      expect(codes, kind).toContain('comes-out');
      expect(codes, kind).not.toContain('held-in');
      expect(codes, kind).not.toContain('goes-not-in');
    }
  });

  test('what stands in the way is found', () => {
    const bar = { section: 'round', diameter: 8, rise: 12, place: 'top', x: 0, y: 0 };
    expect(found('shape', bar)).toEqual(expect.arrayContaining(['held-in']));
  });
});

test('an undercut is told by its area and depth, and left open: the object comes out all the same', () => {
  const standing = built({ object: CAP, lies: 'drawn', opening: 30.8, sunk: 23, long: 50 });
  expect(standing.codes).toEqual(expect.arrayContaining(['comes-out']));
  expect(standing.codes).not.toContain('undercut');
  const over = built({ object: CAP, lies: 'over', opening: 30.8, sunk: 22, long: 50 });
  expect(over.codes).toEqual(expect.arrayContaining(['comes-out', 'undercut']));
});

test('a long bar is held by its middle, open at both ends', () => {
  const { part, codes } = built({ object: BAR, opening: 20.7, sunk: 12, long: 40 });
  expect(part.bounds.max[0] - part.bounds.min[0]).toBeCloseTo(40, 3);
  expect(part.mates[0]!.size).toBeCloseTo(20.7, 1);
  expect(codes).toContain('comes-out');
});

test('what cannot be is refused in words, at the number that is wrong', () => {
  const said = (change: Parameters) =>
    recess.refuse(asked({ ...GRIP, ...change }), kernels.models).map(f => f.parameter);
  expect(said({ object: '' })).toEqual(['object']);
  expect(said({ object: 'f'.repeat(64) })).toEqual(['object']);
  expect(said({ object: TRUE, opening: 31 })).toEqual(['opening']);
  expect(said({ object: TRUE, opening: 60 })).toEqual(['opening']);
  expect(said({ object: TRUE, sunk: 70 })).toEqual(['sunk']);
  expect(said({ object: TRUE, mouth: 8, sunk: 8 })).toContain('mouth');
  expect(said({ object: TRUE })).toEqual([]);
});
