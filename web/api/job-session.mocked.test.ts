import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import type { JobAnswer } from '../../contract/jobs';
import { diff } from '../../core/job/changes';
import type { JobDocument } from '../../core/job/document';
import { applyEdit, type Edit } from '../../core/job/edits';
import { emptyHistory } from '../../core/job/history';
import { newJob } from '../../core/job/new-job';
import { FIRST_WORKSHOP } from '../../core/job/workshop';
import { requireRecipe } from '../../core/shape/recipes';

/** A server in a few lines: enough to be slow, unreachable, faster than us, or to lose an answer. */
class PretendServer {
  job: JobAnswer = {
    id: 'job',
    number: 1,
    revision: 1,
    createdAt: '',
    updatedAt: '',
    document: newJob('Cap', requireRecipe('round-cap'), FIRST_WORKSHOP),
    history: emptyHistory(),
    undo: null,
    redo: null,
  };
  away = false;
  /** The disk is full. */
  full = false;
  /** How long an answer takes, ms. */
  slow = 0;
  /** Does what it is asked and then breaks the connection. */
  loseNextAnswer = false;
  received: Edit[] = [];

  fetch = async (url: string, init: { method: string; body?: string }) => {
    if (this.away) throw new TypeError('fetch failed');
    if (this.slow > 0) await new Promise(done => setTimeout(done, this.slow));
    if (init.method === 'GET') return answer(200, this.job);
    if (this.full) return answer(507, { error: { code: 'disk-full', message: 'The disk is full.' } });
    const { revision, edit } = JSON.parse(init.body!) as { revision: number; edit: Edit };
    if (url.endsWith('/undo')) {
      const before = this.job.document;
      const dimensions = before.dimensions.map(d => ({ ...d, readings: d.readings.slice(0, -1) }));
      return this.changed({ ...before, dimensions });
    }
    if (!url.endsWith('/edits')) return answer(404, { error: { code: 'no-route', message: 'no.' } });
    if (revision !== this.job.revision) {
      return answer(409, {
        error: {
          code: 'stale',
          message: 'stale.',
          details: { current: this.job, theirs: ['theirs'], yours: edit.kind },
        },
      });
    }
    if (edit.kind === 'rename' && edit.title === 'refused')
      return answer(422, { error: { code: 'edit-refused', message: 'The server will not.' } });
    this.received.push(edit);
    const change = this.changed(applyEdit(this.job.document, edit, FIRST_WORKSHOP));
    if (this.loseNextAnswer) {
      this.loseNextAnswer = false;
      throw new TypeError('connection reset');
    }
    return change;
  };

  /** The changes of a request, as the server reports them. */
  private changed(document: JobDocument) {
    const changes = diff(this.job.document, document);
    this.job = { ...this.job, revision: this.job.revision + 1, document };
    const { revision, updatedAt, undo, redo } = this.job;
    return answer(200, { revision, updatedAt, changes, added: [], voided: null, undo, redo });
  }

  /** An edit from another window. */
  otherWindow(edit: Edit): void {
    this.job = {
      ...this.job,
      revision: this.job.revision + 1,
      document: applyEdit(this.job.document, edit, FIRST_WORKSHOP),
    };
  }
}

const answer = (status: number, body: unknown) => ({
  ok: status < 400,
  status,
  json: async () => structuredClone(body),
});

class Storage {
  private readonly kept = new Map<string, string>();
  getItem = (key: string) => this.kept.get(key) ?? null;
  setItem = (key: string, value: string) => void this.kept.set(key, value);
  removeItem = (key: string) => void this.kept.delete(key);
}

const rename = (title: string): Edit => ({ kind: 'rename', title });
const reading = (id: string, value = 31.7): Edit => ({
  kind: 'add-reading',
  dimensionId: 'rim',
  reading: {
    id,
    value,
    text: String(value),
    unit: 'mm',
    at: '2026-01-01T00:00:00.000Z',
    instrumentId: null,
    source: 'seat',
    via: 'typed',
    struck: null,
  },
});

let server: PretendServer;
let open: () => Promise<import('./job-session').JobSession>;
beforeEach(async () => {
  vi.useFakeTimers();
  vi.resetModules();
  server = new PretendServer();
  vi.stubGlobal('sessionStorage', new Storage());
  vi.stubGlobal('EventSource', class {});
  vi.stubGlobal('fetch', (url: string, init: never) => server.fetch(url, init));
  const { JobSession } = await import('./job-session');
  open = async () => {
    const session = new JobSession('job', FIRST_WORKSHOP);
    session.start();
    await vi.advanceTimersByTimeAsync(0);
    return session;
  };
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const later = (ms = 5) => vi.advanceTimersByTimeAsync(ms);

describe('edits of this window', () => {
  test('show at once, are sent one after another, and end acknowledged', async () => {
    const session = await open();
    void session.edit(rename('One'));
    void session.edit(rename('Two'));
    void session.edit(reading('r1'));
    expect(session.read().document!.title).toBe('Two');
    expect(session.read().pending).toHaveLength(3);
    await later();
    expect(session.read().pending).toEqual([]);
    expect(server.received.map(e => e.kind)).toEqual(['rename', 'rename', 'add-reading']);
    expect(session.read().base!.revision).toBe(4);
  });

  test('an edit validates the document once in this window, however long it is on its way', async () => {
    const session = await open();
    const parse = vi.spyOn((await import('../../core/job/document')).JobDocument, 'parse');
    server.away = true;
    await session.edit(reading('r1'));
    await later(4000);
    server.away = false;
    await later(2000);
    expect(session.read().pending).toEqual([]);
    expect(parse.mock.calls).toHaveLength(1);
    parse.mockRestore();
  });

  test('what makes no sense is refused here, in words, and never sent', async () => {
    const session = await open();
    await expect(session.edit(rename('  '))).rejects.toThrow('Give');
    await expect(session.edit(reading('r1', -1))).rejects.toThrow('above 0');
    await session.edit(rename('Cap'));
    await later();
    expect(server.received).toEqual([]);
  });

  test('what the server refuses is taken back and said', async () => {
    const session = await open();
    const said: string[] = [];
    session.onRefused = error => said.push(error.message);
    await session.edit(rename('refused'));
    await later();
    expect(said).toEqual(['The server will not.']);
    expect(session.read().document!.title).toBe('Cap');
    expect(session.read().pending).toEqual([]);
  });
});

describe('undo', () => {
  test('pressed while an edit is on its way waits for it, and a later edit waits for the undo', async () => {
    const session = await open();
    server.job = { ...server.job, undo: { editId: 'e1', words: 'x' } };
    await session.refresh();
    void session.edit(reading('r1'));
    void session.edit(reading('r2', 31.8));
    const undone = session.undo('undo');
    await later(60);
    await undone;
    void session.edit(reading('r3', 31.9));
    await later();
    expect(session.read()).toMatchObject({ conflict: null, pending: [] });
    expect(server.job.document.dimensions[0]!.readings.map(r => r.id)).toEqual(['r1', 'r3']);
  });
});

describe('while the server is away', () => {
  test('edits are kept, shown, and sent when it is back', async () => {
    const session = await open();
    server.away = true;
    await session.edit(reading('r1'));
    await session.edit(reading('r2', 31.8));
    await later();
    expect(session.read()).toMatchObject({ offline: true, pending: [{}, {}] });
    expect(session.read().document!.dimensions[0]!.readings).toHaveLength(2);
    server.away = false;
    await later(2000);
    expect(session.read()).toMatchObject({ offline: false, pending: [] });
    expect(server.job.document.dimensions[0]!.readings.map(r => r.id)).toEqual(['r1', 'r2']);
  });

  test('a full disk drops no edit: it is said, what waits behind is given up, and the edits are sent again', async () => {
    const session = await open();
    const said: string[] = [];
    session.onRefused = error => said.push(error.message);
    server.full = true;
    await session.edit(reading('r1'));
    const undone = session.undo('undo');
    void session.edit(reading('r2', 31.8));
    await expect(undone).rejects.toThrow('not saved yet');
    await later(4000);
    expect(session.read()).toMatchObject({
      offline: true,
      trouble: 'The disk is full.',
      pending: [{}, {}],
    });
    expect(session.read().document!.dimensions[0]!.readings).toHaveLength(2);
    server.full = false;
    await later(2000);
    expect(session.read()).toMatchObject({ offline: false, trouble: null, pending: [] });
    expect(server.job.document.dimensions[0]!.readings.map(r => r.id)).toEqual(['r1', 'r2']);
    expect(said).toEqual([]);
  });

  test('they survive a reload of the window', async () => {
    const first = await open();
    server.away = true;
    await first.edit(reading('r1'));
    await later();
    server.away = false;
    const second = await open();
    await later();
    expect(server.job.document.dimensions[0]!.readings.map(r => r.id)).toEqual(['r1']);
    expect(second.read().pending).toEqual([]);
  });

  test('an answer lost on the way does not make the edit twice, nor a conflict of it', async () => {
    const session = await open();
    const note: Edit = { kind: 'service-note', id: 'n1', at: '2026-01-01T00:00:00.000Z', words: 'holds' };
    for (const edit of [reading('r1'), note, rename('One')]) {
      server.loseNextAnswer = true;
      await session.edit(edit);
      await later(2000);
      expect(session.read(), edit.kind).toMatchObject({ conflict: null, pending: [], offline: false });
    }
    server.loseNextAnswer = true;
    await session.edit({ kind: 'take-back-reading', dimensionId: 'rim', readingId: 'r1' });
    await later(2000);
    expect(session.read().pending).toEqual([]);
    expect(server.received.map(e => e.kind)).toEqual([
      'add-reading',
      'service-note',
      'rename',
      'take-back-reading',
    ]);
    expect(server.job.document.service.notes).toHaveLength(1);
  });
});

describe('two windows', () => {
  test('the later one is told both sides; on top keeps both', async () => {
    const session = await open();
    server.otherWindow(rename('Theirs'));
    await session.edit(reading('r1'));
    await later();
    expect(session.read().conflict).toMatchObject({ theirs: ['theirs'], yours: 'add-reading' });
    // Nothing more is sent until the maker has decided.
    await session.edit(reading('r2', 31.9));
    await later();
    expect(server.received).toEqual([]);
    session.resolveConflict(true);
    await later();
    expect(server.job.document).toMatchObject({ title: 'Theirs' });
    expect(server.job.document.dimensions[0]!.readings).toHaveLength(2);
  });

  test('leaving mine out keeps theirs', async () => {
    const session = await open();
    server.otherWindow(rename('Theirs'));
    await session.edit(rename('Mine'));
    await later();
    session.resolveConflict(false);
    await later();
    expect(session.read().document!.title).toBe('Theirs');
    expect(server.received).toEqual([]);
  });

  test('an undo never takes another edit than the last one saved: it waits, or says that it cannot', async () => {
    const session = await open();
    server.job = { ...server.job, undo: { editId: 'e1', words: 'x' } };
    await session.refresh();
    server.slow = 7000;
    await session.edit(reading('r1'));
    const undone = session.undo('undo');
    let settled = false;
    void undone.then(() => {
      settled = true;
    });
    // Longer than anybody waits for a queue.
    await later(6500);
    expect(settled).toBe(false);
    server.slow = 0;
    await later(7000);
    expect(settled).toBe(true);
    expect(server.received.map(e => e.kind)).toEqual(['add-reading']);
    server.away = true;
    await session.edit(reading('r2', 31.9));
    const behind = session.undo('undo');
    const said = expect(behind).rejects.toThrow('not saved yet');
    await later();
    await said;
  });

  test('an append waits until every edit is there, and says so when it cannot', async () => {
    const session = await open();
    server.away = true;
    await session.edit(reading('r1'));
    await later();
    await expect(session.append('versions', () => ({}))).rejects.toThrow('not saved yet');
  });
});
