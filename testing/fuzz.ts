import type { Edit } from '../core/job/edits';
import { readEdit } from './read-edit';

/** Requests as an enemy, or bad luck, would send them: sound ones with something changed. Fixed seeds. */
export interface Request {
  method: string;
  path: string;
  body?: unknown;
  raw?: Uint8Array;
  headers?: Record<string, string>;
}

/** Values to put in place of others. */
const STRANGE: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1e308,
  2 ** 53 - 1,
  Number.NaN,
  '',
  '__proto__',
  'constructor',
  '../../etc/passwd',
  'x'.repeat(5000),
  '\u0000\u202e\ud800',
  '1e9999',
  'max(1; '.repeat(200),
  [],
  {},
  [[[[[[]]]]]],
  { __proto__: null, toString: 1 },
];
/** Those of them that can be names in an object. */
const NAMES = STRANGE.flatMap(x => (typeof x === 'object' ? [] : [String(x).slice(0, 50)]));
const pick = <T>(random: () => number, list: readonly T[]): T => list[Math.floor(random() * list.length)]!;

/** One value somewhere in it changed, left out, or doubled. */
export function mutated(value: unknown, random: () => number): unknown {
  if (random() < 0.12 || typeof value !== 'object' || value === null) return pick(random, STRANGE);
  if (Array.isArray(value)) {
    if (value.length === 0) return [pick(random, STRANGE)];
    const at = Math.floor(random() * value.length);
    const kind = random();
    if (kind < 0.2) return value.filter((_, i) => i !== at);
    if (kind < 0.4) return [...value, ...Array.from({ length: 40 }, () => value[at])];
    return value.map((x, i) => (i === at ? mutated(x, random) : x));
  }
  const keys = Object.keys(value);
  if (keys.length === 0) return { strange: pick(random, STRANGE) };
  const key = pick(random, keys);
  const { [key]: old, ...rest } = value as Record<string, unknown>;
  const kind = random();
  if (kind < 0.15) return rest;
  if (kind < 0.25) return { ...value, [pick(random, NAMES)]: old };
  return { ...value, [key]: mutated(old, random) };
}

/** Sound requests of every route that writes, and of those that read by something in their path. */
export function soundRequests(job: string, revision: number): Request[] {
  const edits: Edit[] = [
    readEdit('rim', 31.7),
    { kind: 'brief', brief: { quantity: 3, hottestC: 40, loads: [], obstacles: [] } },
    { kind: 'parameter', partId: 'part-1', name: 'wall', expression: { text: 'rim / 20', unit: 'mm' } },
    { kind: 'rename', title: 'Another' },
    {
      kind: 'add-addition',
      partId: 'part-1',
      addition: { id: 'hole1', kind: 'hole', name: 'Hole', on: true },
      begins: { diameter: { text: '4', unit: 'mm' } },
    },
    { kind: 'change-recipe', partId: 'part-1', recipe: 'bush', takes: { shaft: 'rim' }, prefix: 'r1' },
    {
      kind: 'want',
      mateId: 'skirt',
      want: { name: 'own', window: { min: 0, max: 0.2, unit: 'mm' }, prefer: 'none' },
    },
  ];
  const at = `/jobs/${job}`;
  return [
    ...edits.map(edit => ({ method: 'POST', path: `${at}/edits`, body: { revision, edit } })),
    { method: 'POST', path: '/jobs', body: { title: 'Cap', recipe: 'round-cap', object: 'port' } },
    { method: 'POST', path: `${at}/undo`, body: { editId: 'none' } },
    { method: 'POST', path: `${at}/prints`, body: { versionId: 'none', pieces: 2, hours: 1, note: '' } },
    {
      method: 'POST',
      path: `${at}/tries`,
      body: { printId: 'none', mates: { skirt: { verdict: 'tight' } }, note: '' },
    },
    { method: 'POST', path: `${at}/void`, body: { kind: 'print', id: 'none', reason: 'slip' } },
    { method: 'POST', path: `${at}/ladders`, body: { mateId: 'skirt', sizes: [31.8, 31.9, 32] } },
    { method: 'POST', path: '/presence', body: { tabs: ['a', 'b'] } },
    { method: 'POST', path: '/device/readings', body: { text: '31.72', instrumentId: null } },
    { method: 'PUT', path: '/workshop', body: { revision: 0, workshop: { name: 'Boathouse' } } },
    ...['', '/raw', '/activity', '/bundle', '/sheet.pdf', '/drawing.svg', '/readings.csv'].map(end => ({
      method: 'GET',
      path: at + end,
    })),
    { method: 'GET', path: `${at}/versions/none/batch?pieces=3` },
    { method: 'GET', path: `${at}/versions/none/files/stl` },
    { method: 'GET', path: '/models/none' },
    { method: 'GET', path: `${at}/photos/none` },
  ];
}

/** One of them, spoiled: in its body, in its path, in its bytes or in its headers. */
export function spoiled(request: Request, random: () => number): Request {
  const kind = random();
  if (request.body === undefined || kind < 0.1) {
    const parts = request.path.split('/');
    const i = Math.floor(random() * parts.length);
    const strange = encodeURIComponent(
      String(
        pick(
          random,
          STRANGE.filter(s => typeof s !== 'object'),
        ),
      ).replace(/[\ud800-\udfff]/g, ''),
    ).slice(0, 300);
    return { ...request, path: parts.map((p, k) => (k === i && k > 0 ? strange : p)).join('/') };
  }
  if (kind < 0.2) {
    const bytes = new TextEncoder().encode(JSON.stringify(request.body));
    const cut = bytes.slice(0, Math.floor(random() * bytes.length));
    if (cut.length > 0) cut[Math.floor(random() * cut.length)] = Math.floor(random() * 256);
    return { ...request, body: undefined, raw: cut, headers: { 'content-type': 'application/json' } };
  }
  if (kind < 0.25)
    return {
      ...request,
      headers: {
        'content-type': pick(random, [
          'text/plain',
          'application/json; charset=utf-7',
          'multipart/form-data',
        ]),
      },
    };
  return { ...request, body: mutated(request.body, random) };
}

export interface Fuzzed {
  sent: number;
  /** By the first digit of the answer's status. */
  by: Record<string, number>;
  /** Requests that made the server fail, or that took too long. */
  failed: { request: Request; status: number; ms: number; said: string }[];
}

/** Sends spoiled requests, one after the other. @param base of the server @param longest allowed answer time, ms */
export async function fuzz(
  base: string,
  count: number,
  random: () => number,
  longest = 10_000,
): Promise<Fuzzed> {
  const send = async ({ method, path, body, raw, headers }: Request) => {
    const began = performance.now();
    const answer = await fetch(`${base}/api${path}`, {
      method,
      headers: { ...(body === undefined ? {} : { 'content-type': 'application/json' }), ...headers },
      ...(raw ? { body: raw as BodyInit } : body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    const said = await answer.text();
    return { status: answer.status, ms: performance.now() - began, said };
  };
  const result: Fuzzed = { sent: 0, by: {}, failed: [] };
  let job = '';
  let revision = 0;
  for (let i = 0; i < count; i++) {
    // A job that was damaged by accepted requests is left behind now and then.
    if (i % 50 === 0) {
      const made = await send({
        method: 'POST',
        path: '/jobs',
        body: { title: `Fuzz ${i}`, recipe: 'round-cap' },
      });
      ({ id: job, revision } = JSON.parse(made.said) as { id: string; revision: number });
    }
    const sound = soundRequests(job, revision);
    const request = spoiled(sound[Math.floor(random() * sound.length)]!, random);
    const { status, ms, said } = await send(request);
    result.sent++;
    const digit = `${Math.floor(status / 100)}xx`;
    result.by[digit] = (result.by[digit] ?? 0) + 1;
    if (status >= 500 || ms > longest) result.failed.push({ request, status, ms, said: said.slice(0, 300) });
    if (status === 200 && request.path.endsWith('/edits'))
      revision = (JSON.parse(said) as { revision?: number }).revision ?? revision;
  }
  return result;
}
