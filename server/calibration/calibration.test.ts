import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { FEATURES } from '../../core/calibration/piece';
import { readStl } from '../../core/files/reading-back';
import { boundsOf } from '../../core/shape/mesh/mesh';
import { type TestServer, testServer } from '../../testing/server';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

const fresh = {
  printerId: 'printer',
  materialId: 'petg',
  at: '2026-11-01T10:00:00.000Z',
  note: '',
  rows: [],
};
const put = (id: string, change: object = {}) =>
  server.call('PUT', `/calibrations/${id}`, { ...fresh, ...change });
const kept = async (id: string) =>
  (await server.call('GET', '/workshop')).body.workshop.calibrations?.find(
    (c: { id: string }) => c.id === id,
  );

describe('calibrations', () => {
  test('the piece comes as a closed STL and as 3MF', async () => {
    const mesh = readStl(await server.bytes('/calibrations/piece.stl'));
    expect(boundsOf(mesh).max[0]).toBeCloseTo(80, 4);
    const zip = await server.bytes('/calibrations/piece.3mf');
    expect(String.fromCharCode(zip[0]!, zip[1]!)).toBe('PK');
    expect((await server.call('GET', '/calibrations/piece.exe')).status).toBe(400);
  });

  test('each is saved by itself, whatever else changes the workshop', async () => {
    const { revision } = (await server.call('GET', '/workshop')).body;
    expect((await put('a')).body.revision).toBe(revision + 1);
    await put('b', { materialId: 'pla' });
    await put('a', { piece: { instrumentId: null, readings: { 'hole-20': [19.7, 19.72] } } });
    expect((await kept('a')).piece.readings['hole-20']).toEqual([19.7, 19.72]);
    expect((await kept('b')).materialId).toBe('pla');
    expect((await server.call('DELETE', '/calibrations/b')).status).toBe(200);
    expect(await kept('b')).toBeUndefined();
    expect((await server.call('DELETE', '/calibrations/b')).status).toBe(404);
  });

  test('nonsense is refused in words and changes nothing', async () => {
    expect((await put('a', { printerId: 'gone' })).body.error.message).toContain('choose another');
    expect((await put('a', { materialId: 'gone' })).status).toBe(422);
    const slip = { instrumentId: null, readings: { 'hole-20': [-1] } };
    expect((await put('a', { piece: slip })).status).toBe(400);
    expect((await put('a', { rows: [{ kind: 'knob', drawn: 1, printed: 1 }] })).status).toBe(400);
    expect((await kept('a')).piece.readings['hole-20']).toEqual([19.7, 19.72]);
  });

  test('a profile goes out as a file and comes back, matched by name or said not to', async () => {
    const file = (await server.call('GET', '/calibrations/a/profile.json')).body;
    expect(file).toMatchObject({
      format: 'sagoma-printer-profile',
      schemaVersion: 1,
      printer: { name: 'Filament printer', nozzle: 0.4 },
      plastic: { name: 'PETG' },
    });
    expect(file.calibration.id).toBeUndefined();
    const back = await server.call('POST', '/calibrations/import', file);
    expect(back).toMatchObject({ status: 201, body: { notes: [] } });
    expect(await kept(back.body.id)).toMatchObject({
      printerId: 'printer',
      materialId: 'petg',
      nozzle: 0.4,
      piece: { readings: { 'hole-20': [19.7, 19.72] } },
    });
    const foreign = { ...file, printer: { name: 'Another’s', nozzle: 0.6 }, plastic: { name: 'Odd' } };
    const taken = await server.call('POST', '/calibrations/import', foreign);
    expect(taken.body.notes).toHaveLength(2);
    expect((await kept(taken.body.id)).nozzle).toBe(0.6);
    for (const bad of [{}, { ...file, schemaVersion: 2 }, { ...file, calibration: { rows: 'x' } }])
      expect((await server.call('POST', '/calibrations/import', bad)).status).toBe(400);
  });

  test('a workshop of an earlier Sagoma, whose sizes said the side, still opens', async () => {
    const { revision, workshop } = (await server.call('GET', '/workshop')).body;
    const old = {
      ...fresh,
      id: 'old',
      rows: [
        { side: 'inside', drawn: 20, printed: 19.7 },
        { side: 'outside', drawn: 20, printed: 20.1 },
      ],
    };
    await server.call('PUT', '/workshop', { revision, workshop: { ...workshop, calibrations: [old] } });
    expect((await kept('old')).rows.map((r: { kind: string }) => r.kind)).toEqual(['hole', 'peg']);
  });
});

describe('the practice printer', () => {
  test('prints the piece for who has the bench, the same piece twice', async () => {
    await put('c');
    const ask = (ids: string[], times = 2) =>
      server.call('POST', '/bench/calibrations/c/read', { featureIds: ids, times });
    expect((await ask(['hole-20'])).body.error.code).toBe('bench-off');
    const { revision, workshop } = (await server.call('GET', '/workshop')).body;
    await server.call('PUT', '/workshop', { revision, workshop: { ...workshop, practiceBench: true } });
    const all = (await ask(FEATURES.map(f => f.id))).body.readings;
    expect(Object.keys(all)).toHaveLength(FEATURES.length);
    for (const f of FEATURES)
      for (const value of all[f.id]) expect(Math.abs(value - f.size), f.id).toBeLessThan(1);
    expect((await ask(['hole-20', 'nothing'])).body.readings).toEqual({ 'hole-20': all['hole-20'] });
    expect((await ask(['hole-20'], 99)).status).toBe(400);
  });
});
