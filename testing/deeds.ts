import { ulid } from 'ulid';
import { forged } from './forged';
import { readingEdit } from './server';

/** The smallest picture, PNG: bytes appended to it make each one another file. */
const PICTURE = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
);

export const DEEDS = ['edit', 'photo', 'import', 'version'] as const;
export type Deed = (typeof DEEDS)[number];

/** Whether what was acknowledged is there, asked of a server that may be another one by now. */
type IsThere = (base: string) => Promise<boolean>;

// biome-ignore lint/suspicious/noExplicitAny: answers of several routes
export async function send(base: string, method: string, path: string, body?: unknown): Promise<any> {
  const raw = body instanceof Uint8Array;
  const response = await fetch(`${base}/api${path}`, {
    method,
    headers: raw ? {} : { 'content-type': 'application/json' },
    body: raw ? (body as BodyInit) : body === undefined ? undefined : JSON.stringify(body),
  });
  if (!response.ok) throw new Error(`${method} ${path}: ${response.status} ${await response.text()}`);
  return response.json();
}

const bytes = async (base: string, path: string): Promise<Uint8Array | null> => {
  const response = await fetch(`${base}/api${path}`);
  return response.ok ? new Uint8Array(await response.arrayBuffer()) : null;
};

/** One maker at one job, who does one thing after another; each answer states what must be found again. */
export class Maker {
  private done = 0;
  private constructor(
    private readonly base: string,
    private readonly job: string,
    private revision: number,
  ) {}

  /** A cap with enough readings to make versions of it. */
  static async at(base: string): Promise<Maker> {
    const { id, revision } = await send(base, 'POST', '/jobs', { title: 'Cap', recipe: 'round-cap' });
    const maker = new Maker(base, id, revision);
    await maker.edit();
    await maker.edit();
    return maker;
  }

  do(deed: Deed): Promise<IsThere> {
    return this[deed]();
  }

  private async edit(): Promise<IsThere> {
    const n = this.done++;
    const id = `k-${n}`;
    const [dimension, size] = n % 2 ? ['rim_height', 14] : ['rim', 31.7];
    const edit = readingEdit(dimension as string, (size as number) + (n % 7) / 100, id);
    const body = { revision: this.revision, edit };
    ({ revision: this.revision } = await send(this.base, 'POST', `/jobs/${this.job}/edits`, body));
    return async base => {
      const { document } = await send(base, 'GET', `/jobs/${this.job}`);
      return document.dimensions.some((d: { readings: { id: string }[] }) =>
        d.readings.some(r => r.id === id),
      );
    };
  }

  private async photo(): Promise<IsThere> {
    const picture = Buffer.concat([PICTURE, Buffer.from(ulid())]);
    const { photo, revision } = await send(
      this.base,
      'POST',
      `/jobs/${this.job}/photos`,
      new Uint8Array(picture),
    );
    this.revision = revision;
    return async base => {
      const kept = await bytes(base, `/jobs/${this.job}/photos/${photo.id}`);
      return kept !== null && picture.equals(kept);
    };
  }

  private async import(): Promise<IsThere> {
    const bundle = (await bytes(this.base, `/jobs/${this.job}/bundle`))!;
    const answer = await send(this.base, 'POST', '/import', forged(bundle, this.job, this.job, ulid()));
    return async base => (await bytes(base, `/jobs/${answer.jobs[0].id}/bundle`)) !== null;
  }

  private async version(): Promise<IsThere> {
    const body = { revision: this.revision, partId: 'part-1' };
    const { added } = await send(this.base, 'POST', `/jobs/${this.job}/versions`, body);
    const { id } = added[0].row;
    // Something new to freeze, for the next one.
    await this.edit();
    return async base => {
      const file = await bytes(base, `/jobs/${this.job}/versions/${id}/files/stl`);
      return file !== null && file.length > 84;
    };
  }
}
