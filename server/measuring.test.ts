import { deflateSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { readingEdit, type TestServer, testServer } from '../testing/server';
import { printable } from './sheet/pdf';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(async () => {
  await server.stop();
  server.remove();
});

/** A made-up PNG of one grey; its header may say any size. */
function png(width: number, height: number, rows = Math.min(height, 4)): Uint8Array {
  const crc = (bytes: Buffer) => {
    let c = ~0;
    for (const byte of bytes) {
      c ^= byte;
      for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
    }
    return ~c >>> 0;
  };
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const out = Buffer.alloc(body.length + 8);
    out.writeUInt32BE(data.length, 0);
    body.copy(out, 4);
    out.writeUInt32BE(crc(body), body.length + 4);
    return out;
  };
  const head = Buffer.alloc(13);
  head.writeUInt32BE(width, 0);
  head.writeUInt32BE(height, 4);
  head.set([8, 0, 0, 0, 0], 8);
  const pixels = deflateSync(Buffer.alloc(rows * (Math.min(width, 4) + 1)));
  return new Uint8Array(
    Buffer.concat([
      Buffer.from('89504e470d0a1a0a', 'hex'),
      chunk('IHDR', head),
      chunk('IDAT', pixels),
      chunk('IEND', Buffer.alloc(0)),
    ]),
  );
}

describe('photos', () => {
  test('a photo is kept, given back as what it is, and goes along in a bundle', {
    timeout: 20_000,
  }, async () => {
    const { id } = await server.newJob();
    const bytes = png(4, 3);
    const sent = await server.call('POST', `/jobs/${id}/photos?label=from%20above`, bytes);
    expect(sent.status).toBe(201);
    expect(sent.body.photo).toMatchObject({ type: 'image/png', width: 4, height: 3, label: 'from above' });
    const { photo } = sent.body;
    expect(await server.bytes(`/jobs/${id}/photos/${photo.id}`)).toEqual(bytes);
    const { headers } = await server.call('GET', `/jobs/${id}/photos/${photo.id}`);
    expect(headers.get('content-type')).toBe('image/png');
    expect(headers.get('x-content-type-options')).toBe('nosniff');
    const job = (await server.call('GET', `/jobs/${id}`)).body;
    expect(job.document.photos).toHaveLength(1);
    expect(job.undo.words).toContain('from above');

    const other = await testServer();
    try {
      const bundle = await server.bytes(`/jobs/${id}/bundle`);
      expect((await other.call('POST', '/import', bundle)).status).toBe(201);
      expect(await other.bytes(`/jobs/${id}/photos/${photo.id}`)).toEqual(bytes);
    } finally {
      await other.stop();
      other.remove();
    }
  });

  test.each([
    [
      'text',
      new Uint8Array(Buffer.from('<svg onload="alert(1)" xmlns="http://www.w3.org/2000/svg"/>')),
      422,
      'bad-photo',
    ],
    ['a GIF', new Uint8Array(Buffer.from('R0lGODlhAQABAAAAACwAAAAAAQABAAA=', 'base64')), 422, 'bad-photo'],
    ['nothing', new Uint8Array(), 422, 'bad-photo'],
    ['a head without a body', png(4, 3).slice(0, 12), 422, 'bad-photo'],
    ['a billion pixels', png(19_000, 19_000, 1), 422, 'photo-too-large'],
    ['over 32 MB', new Uint8Array(34e6), 413, 'too-large'],
  ])('%s is refused', async (_, bytes, status, code) => {
    const { id } = await server.newJob();
    const answer = await server.call('POST', `/jobs/${id}/photos`, bytes);
    expect([answer.status, answer.body.error.code]).toEqual([status, code]);
    expect((await server.call('GET', `/jobs/${id}`)).body.document.photos).toEqual([]);
  });

  test('a photo that is not there', async () => {
    const { id } = await server.newJob();
    expect((await server.call('GET', `/jobs/${id}/photos/none`)).status).toBe(404);
    expect((await server.call('POST', '/jobs/none/photos', png(4, 3))).status).toBe(404);
  });
});

describe('the sheet', () => {
  test('PDF and CSV of a job, whatever its name', async () => {
    const { id } = await server.newJob('Крышка 🦆 “quoted”');
    await server.call('POST', `/jobs/${id}/edits`, { revision: 1, edit: readingEdit('rim', 31.7) });
    const pdf = Buffer.from(await server.bytes(`/jobs/${id}/sheet.pdf`));
    expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    expect(pdf.subarray(-6).toString()).toContain('%%EOF');
    const csv = Buffer.from(await server.bytes(`/jobs/${id}/readings.csv`)).toString('utf8');
    expect(csv.split('\r\n')[1]).toBe(
      'rim,"Rim, outside",31.7,mm,31.7,2026-01-01T00:00:00.000Z,Calipers,seat,,',
    );
    expect((await server.call('GET', '/jobs/none/sheet.pdf')).status).toBe(404);
  });

  test('many long rows go over pages', async () => {
    const { id } = await server.newJob();
    for (let n = 0; n < 40; n++) {
      const dimension = {
        id: `own${n}`,
        name: `own_${n}`,
        label: `An own dimension with a rather long name, number ${n}`,
        kind: 'length',
        critical: false,
        guide: null,
        note: 'A note that takes more than a line in its column, so that the row is high.',
        readings: [],
      };
      await server.call('POST', `/jobs/${id}/edits`, {
        revision: n + 1,
        edit: { kind: 'add-dimension', dimension },
      });
    }
    const pdf = Buffer.from(await server.bytes(`/jobs/${id}/sheet.pdf`)).toString('latin1');
    expect(Number(/\/Count (\d+)/.exec(pdf)?.[1])).toBeGreaterThanOrEqual(3);
  });

  test('letters the font lacks are not left as boxes', () => {
    expect(printable('⌀ 31.7 ± 0.04 − π“x”\n√2 ü Ω 🦆')).toBe('dia. 31.7 ± 0.04 − pi"x" sqrt2 ü ? ?');
  });
});

test('what an instrument repeats within is learned over all jobs, slips and turned readings apart', async () => {
  const own = await testServer();
  try {
    const { id } = await own.newJob();
    let revision = 1;
    const send = async (edit: object) => {
      const answer = await own.call('POST', `/jobs/${id}/edits`, { revision, edit });
      expect(answer.status).toBe(200);
      revision = answer.body.revision;
    };
    for (const value of [31.7, 31.72, 31.71]) await send(readingEdit('rim', value));
    for (const [value, turn] of [
      [24, 0],
      [24.6, 120],
      [25.2, 240],
    ] as const) {
      const edit = readingEdit('bore', value);
      await send({ ...edit, reading: { ...edit.reading, turn } });
    }
    const { instruments } = (await own.call('GET', '/workshop/repeatability')).body;
    expect(instruments).toHaveLength(1);
    expect(instruments[0]).toMatchObject({ instrumentId: 'calipers', learned: { readings: 3, things: 1 } });
    expect(instruments[0].learned.sd).toBeLessThan(0.03);
  } finally {
    await own.stop();
    own.remove();
  }
});
