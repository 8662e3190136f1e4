import { beforeAll, describe, expect, test } from 'vitest';
import { kernels as startKernels } from '../../../kernels/node';
import { box } from '../../../testing/solids';
import type { Kernels } from '../kernels/kernel';
import { volumeOf } from '../mesh/mesh';
import { boxMesh } from '../sides';
import type { OpenZoneAsked } from './context';
import { checkKeepOpen, zoneBox } from './keep-open';

let kernels: Kernels;
beforeAll(async () => {
  kernels = await startKernels();
});
/** 80 long to the back, 40 wide, 10 high. */
const plate = box([40, 80, 10]);
const zone = (change: Partial<OpenZoneAsked> = {}): OpenZoneAsked => ({
  id: 'z1',
  name: 'buttons',
  edge: 'right',
  end: 'front',
  from: 50,
  to: 65,
  deep: 5,
  ...change,
});
const said = (z: OpenZoneAsked, part = plate) => checkKeepOpen(part, [z], kernels.mesh);

describe('a stretch of an edge that stays open', () => {
  test('a whole plate fills it: 15 × 5 × 10 mm³', () => {
    const [found] = said(zone());
    expect(found).toMatchObject({ code: 'zone-closed', level: 'stop', neighbour: 'z1' });
    expect(found!.message).toContain('0.75 cm³');
    expect(found!.message).toContain('from 50 to 65 mm from its front end, along its right edge');
  });

  test('cut out, it is quiet; counted from the other end, it is not the same place', () => {
    const cut = boxMesh({ min: [35, 50, -1], max: [41, 65, 11] });
    const open = kernels.mesh.combine('cut', plate, cut);
    expect(said(zone(), open)).toEqual([]);
    expect(said(zone({ end: 'back' }), open)[0]!.code).toBe('zone-closed');
    expect(said(zone({ end: 'back', from: 15, to: 30 }), open)).toEqual([]);
    expect(said(zone({ edge: 'left' }), open)[0]!.code).toBe('zone-closed');
  });

  test('a zone of no length, or beyond the part, says so', () => {
    expect(said(zone({ from: 20, to: 20 }))[0]!.code).toBe('zone-nowhere');
    expect(said(zone({ from: 90, to: 95 }))[0]!.message).toContain('80');
  });

  test('its room along every edge', () => {
    const bounds = { min: [0, 0, 0], max: [40, 80, 10] } as Parameters<typeof zoneBox>[1];
    expect(zoneBox(zone({ edge: 'top', end: 'left', from: 5, to: 8 }), bounds)).toEqual({
      min: [5, 0, 5],
      max: [8, 80, 10],
    });
    expect(zoneBox(zone({ edge: 'back', end: 'right', from: 1, to: 4 }), bounds, 6)).toEqual({
      min: [36, 75, 0],
      max: [39, 86, 10],
    });
    expect(volumeOf(boxMesh(bounds))).toBeCloseTo(32_000, 6);
  });
});
