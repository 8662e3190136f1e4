import { createHash } from 'node:crypto';
import { eq } from 'drizzle-orm';
import type { FileWords } from '../../core/files/part-files';
import type { Pose } from '../../core/print/pose';
import type { CheckContext } from '../../core/shape/checks/context';
import type { Finding } from '../../core/shape/findings/finding';
import { referencesIn, shaOf } from '../../core/shape/model';
import type { SolidRecord } from '../../core/shape/solid';
import { type SolidSpec, solidKey } from '../../core/shape/solid-key';
import { KERNEL_VERSIONS } from '../../kernels/versions';
import type { Blobs } from '../blobs/blobs';
import type { Store } from '../store/database';
import { solids } from '../store/schema';
import { type Asker, Cancelled, type KernelPool } from './pool';
import type { KeptSolid, PieceFiles } from './tasks';

/** A solid on the server: built once for its key, then only read. */
export type Built = ({ ok: true } & KeptSolid) | { ok: false; findings: Finding[] };
export type Step = { ok: true; step: Uint8Array } | { ok: false; message: string };

/** A build in progress, and how many wait for it. */
interface UnderWay<T> {
  answer: Promise<T>;
  askers: number;
  stop: AbortController;
}

/**
 * Solids by their key. A built solid is stored as blobs; a second request for a key in progress waits for the first,
 * and work that somebody waits for is not ended when another gives up.
 */
export class Solids {
  private readonly underWay = new Map<string, UnderWay<unknown>>();

  constructor(
    private readonly store: Store,
    private readonly blobs: Blobs,
    readonly pool: KernelPool,
  ) {}

  /** @throws Cancelled where the asker gave up */
  built(spec: SolidSpec, asker: Asker = {}): Promise<Built> {
    const key = keyOf(spec);
    return this.shared(`build ${key}`, asker, async signal => {
      const kept = await this.kept(key);
      if (kept) return kept;
      const answer = await this.pool.run(
        'build',
        { key, spec, modelFiles: this.modelFiles(spec) },
        { ...asker, signal },
      );
      if (!answer.ok) return { ok: false, findings: answer.findings };
      const mesh = await this.blobs.put(answer.packed);
      await this.remember(key, answer.record, mesh);
      return { ok: true, key, record: answer.record, meshFile: this.blobs.path(mesh) };
    });
  }

  /** STEP text without a name yet: the exact surfaces, made once for a key, or why they cannot be made. */
  step(spec: SolidSpec, asker: Asker = {}): Promise<Step> {
    const key = keyOf(spec);
    return this.shared(`step ${key}`, asker, async signal => {
      const [row] = await this.store.db.select().from(solids).where(eq(solids.key, key));
      if (row?.stepProblem) return { ok: false, message: row.stepProblem };
      const known = row?.step && (await this.blobs.get(row.step));
      if (known) return { ok: true, step: known };
      const answer = await this.pool.run(
        'step',
        { spec, modelFiles: this.modelFiles(spec) },
        { ...asker, signal },
      );
      const change = answer.ok
        ? { step: await this.blobs.put(answer.step) }
        : { stepProblem: answer.message };
      await this.store.write(tx => tx.update(solids).set(change).where(eq(solids.key, key)));
      return answer;
    });
  }

  async inspected(
    solid: KeptSolid,
    spec: SolidSpec,
    context: CheckContext,
    asker: Asker = {},
  ): Promise<Finding[]> {
    const modelFiles = this.modelFiles(spec, context);
    return (await this.pool.run('inspect', { solid, spec, context, modelFiles }, asker)).findings;
  }

  async files(solid: KeptSolid, words: FileWords, pose: Pose, asker: Asker = {}): Promise<PieceFiles> {
    const { stl, '3mf': threeMf } = await this.pool.run('files', { solid, words, pose }, asker);
    return { stl, '3mf': threeMf };
  }

  private modelFiles(spec: SolidSpec, context?: CheckContext): Record<string, string> {
    const named = referencesIn(spec.parameters, context?.neighbours).map(shaOf);
    return Object.fromEntries(named.map(sha => [sha, this.blobs.path(sha)]));
  }

  /** Null when it was never built, or its triangles are missing on the disk. */
  private async kept(key: string): Promise<Built | null> {
    const [row] = await this.store.db.select().from(solids).where(eq(solids.key, key));
    if (!row || !(await this.blobs.get(row.mesh))) return null;
    const record = JSON.parse(row.record) as SolidRecord;
    return { ok: true, key, record, meshFile: this.blobs.path(row.mesh) };
  }

  private async remember(key: string, record: SolidRecord, mesh: string): Promise<void> {
    const row = { record: JSON.stringify(record), mesh, at: new Date().toISOString() };
    await this.store.write(tx =>
      tx
        .insert(solids)
        .values({ key, ...row })
        .onConflictDoUpdate({ target: solids.key, set: row }),
    );
  }

  private async shared<T>(
    what: string,
    { signal }: Asker,
    work: (signal: AbortSignal) => Promise<T>,
  ): Promise<T> {
    if (signal?.aborted) throw new Cancelled();
    let now = this.underWay.get(what) as UnderWay<T> | undefined;
    if (!now || now.stop.signal.aborted) {
      const stop = new AbortController();
      const answer = work(stop.signal).finally(() => {
        if (this.underWay.get(what)?.stop === stop) this.underWay.delete(what);
      });
      // When every caller has given up, its end is not reported.
      answer.catch(() => undefined);
      now = { answer, askers: 0, stop };
      this.underWay.set(what, now);
    }
    const mine = now;
    mine.askers += 1;
    const leave = () => {
      mine.askers -= 1;
      if (mine.askers === 0) mine.stop.abort();
    };
    return new Promise<T>((done, fail) => {
      const giveUp = () => {
        leave();
        fail(new Cancelled());
      };
      signal?.addEventListener('abort', giveUp, { once: true });
      mine.answer.then(done, fail).finally(() => signal?.removeEventListener('abort', giveUp));
    });
  }
}

/** The key of a solid at file quality with this machine's kernels, short enough for a name. */
export const keyOf = (spec: SolidSpec): string =>
  createHash('sha256')
    .update(solidKey(spec, 'file', KERNEL_VERSIONS))
    .digest('hex');
