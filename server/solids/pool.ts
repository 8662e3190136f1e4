import { Piscina } from 'piscina';
import type { Side } from '../../core/fit/wants';
import { referencesIn, shaOf } from '../../core/shape/model';
import { Recent } from '../../core/shape/recent';
import { requireRecipe } from '../../core/shape/recipes';
import { solidKey } from '../../core/shape/solid-key';
import type { ModelAnswer } from '../models/read-model';
import type { LadderTask, PieceFiles } from './piece';
import type { SolidAnswer, SolidTask } from './task';
import type { ModelTask } from './worker';

/** A kernel's heap only grows: beyond this the thread is replaced. */
const MOST_HEAP = 600e6;
const LONGEST = 60_000;
const MOST_WAITING = 20;
/** Answers kept: a version's solid is asked for again by its files, a few hundred kilobytes each. */
const MOST_KEPT = 12;
export const KERNELS = 'replicad 1.1.0, manifold-3d 3.5.4';

/** Worker threads that build solids, bounded in time and memory. */
export class SolidPool {
  private pool: Piscina;
  private pieceFiles: Promise<PieceFiles> | undefined;
  private readonly recent = new Recent<SolidAnswer>(MOST_KEPT);

  /** @param fileOf where the triangles of a body from a file are kept */
  constructor(private readonly fileOf: (sha256: string) => string) {
    this.pool = this.open();
  }

  private open(): Piscina {
    return new Piscina({
      filename: new URL('./worker.mjs', import.meta.url).href,
      minThreads: 0,
      maxThreads: 1,
      idleTimeout: 120_000,
      maxQueue: MOST_WAITING,
      resourceLimits: { maxOldGenerationSizeMb: 1500 },
    });
  }

  async run(task: SolidTask): Promise<SolidAnswer> {
    const { recipe, parameters, ...rest } = task;
    const key = solidKey(requireRecipe(recipe), parameters, JSON.stringify(rest), KERNELS);
    const known = this.recent.get(key);
    if (known) return known;
    const named = referencesIn(parameters, task.context?.neighbours).map(shaOf);
    const modelFiles = Object.fromEntries(named.map(sha => [sha, this.fileOf(sha)]));
    const answer = (await this.pool.run(
      { ...task, modelFiles },
      { signal: AbortSignal.timeout(LONGEST) },
    )) as SolidAnswer;
    if (answer.memory > MOST_HEAP) {
      const old = this.pool;
      this.pool = this.open();
      void old.close();
    }
    this.recent.put(key, answer);
    return answer;
  }

  /** The calibration piece: always the same, so made once. */
  piece(): Promise<PieceFiles> {
    this.pieceFiles ??= (
      this.pool.run('piece', { signal: AbortSignal.timeout(LONGEST) }) as Promise<PieceFiles>
    ).catch(error => {
      this.pieceFiles = undefined;
      throw error;
    });
    return this.pieceFiles;
  }

  /** A file that somebody brought, as triangles. */
  readModel(file: Uint8Array): Promise<ModelAnswer> {
    const task: ModelTask = { file };
    return this.pool.run(task, { signal: AbortSignal.timeout(LONGEST) }) as Promise<ModelAnswer>;
  }

  ladder(side: Side, sizes: readonly number[], name: string): Promise<PieceFiles> {
    const task: LadderTask = { ladder: true, side, sizes, name };
    return this.pool.run(task, { signal: AbortSignal.timeout(LONGEST) }) as Promise<PieceFiles>;
  }

  close(): Promise<void> {
    return this.pool.destroy();
  }
}
