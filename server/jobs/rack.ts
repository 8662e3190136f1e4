import PQueue from 'p-queue';
import type { Rack } from '../../contract/rack';
import type { Evidence } from '../../core/learn/lessons';
import { foundIn, searchWords } from '../../core/work/search-words';
import type { Events } from '../events';
import type { KernelPool } from '../solids/pool';
import type { Store } from '../store/database';
import { tags } from '../store/schema';
import { readWorkshop } from '../workshop/repository';
import { readJob, readJobStamps, readTriedJobs, UnreadableJob } from './repository';

interface Kept {
  stamp: string;
  workshop: string;
  /** The tag as JSON: it is sent as it is. */
  text: string;
  /** What its tries teach other jobs, and the text that a search goes through; neither is sent. Null in an old tag. */
  taught: Evidence[] | null;
  words: string;
}

/** Changed whenever a tag shows something new: older tags are outdated then. */
const TAG = 'with what is on a printer';

/** Tags are refreshed in groups of this size, so that other requests are answered in between. */
const AT_ONCE = 2;
/** Number of recently tried jobs that an answer about lessons waits for. */
const MOST_AWAITED = 6;

/**
 * The rack. Tags are stored with their jobs: one is refreshed by a thread when its job has changed. After a change of
 * the workshop all of them are outdated; they are shown as they are and refreshed one by one.
 */
export class RackReader {
  private readonly kept = new Map<string, Kept>();
  private loaded = false;
  private last: { written: number; answer: Buffer } | undefined;
  private readonly behind = new PQueue({ concurrency: AT_ONCE });
  private readonly queued = new Set<string>();

  constructor(
    private readonly store: Store,
    private readonly pool: KernelPool,
    private readonly events: Events,
    private readonly version: string,
  ) {}

  /** The answer as JSON, see `Rack`; reused while nothing was written since. */
  async read(): Promise<Buffer> {
    if (this.last?.written === this.store.written) return this.last.answer;
    const { written } = this.store;
    const answer = Buffer.from(await this.fresh());
    this.last = { written, answer };
    return answer;
  }

  /** A tag that was made from another state is outdated. @param revision of the workshop */
  private readonly madeBy = (revision: number): string => `${revision} ${this.version} ${TAG}`;

  private async fresh(): Promise<string> {
    await this.load();
    const { workshop, revision } = await readWorkshop(this.store.db);
    const made = this.madeBy(revision);
    const stamps = await readJobStamps(this.store.db);
    const changed = stamps.filter(({ id, stamp }) => this.kept.get(id)?.stamp !== stamp);
    const unreadable: Rack['unreadable'] = [];
    // A job that was changed is shown in its current state; the others may follow.
    const turns = new PQueue({ concurrency: AT_ONCE });
    await Promise.all(
      changed.map(({ id, number, title, stamp }) =>
        turns.add(async () => {
          const why = await this.workOut(id, stamp);
          if (why !== null) unreadable.push({ id, number, title, why });
        }),
      ),
    );
    for (const { id, stamp } of stamps)
      if (this.kept.get(id) && this.kept.get(id)!.workshop !== made) this.follow(id, stamp);
    const texts = stamps.flatMap(({ id }) => this.kept.get(id)?.text ?? []);
    return `{"workshop":${JSON.stringify(workshop.name)},"jobs":[${texts.join(',')}],"unreadable":${JSON.stringify(unreadable)}}`;
  }

  /**
   * What jobs taught about the workshop's printers. Only jobs that were tried count. The latest ones are worked out
   * before the answer, up to a limit: nobody waits for a whole workshop, which follows later.
   * @param but a job whose own tries do not count for it
   */
  async lessons(but?: string): Promise<Evidence[]> {
    await this.load();
    const tried = (await readTriedJobs(this.store.db)).filter(({ id }) => id !== but);
    const stale = tried.filter(({ id, stamp }) => {
      const kept = this.kept.get(id);
      return kept?.stamp !== stamp || kept.taught === null;
    });
    await Promise.all(stale.slice(0, MOST_AWAITED).map(({ id, stamp }) => this.workOut(id, stamp)));
    for (const { id, stamp } of stale.slice(MOST_AWAITED)) this.follow(id, stamp);
    const ids = new Set(tried.map(t => t.id));
    return this.known().filter(e => ids.has(e.jobId));
  }

  /** The jobs that contain all of these words. */
  async search(wanted: string): Promise<string[]> {
    await this.read();
    return [...this.kept].flatMap(([id, { words }]) => (foundIn(words, wanted) ? [id] : []));
  }

  private known(): Evidence[] {
    return [...this.kept.values()].flatMap(k => k.taught ?? []);
  }

  private async load(): Promise<void> {
    if (this.loaded) return;
    this.loaded = true;
    for (const { jobId, stamp, workshop, document } of await this.store.db.select().from(tags)) {
      const kept = unfolded(document);
      // An old tag is outdated, as after a change of the workshop.
      this.kept.set(jobId, { stamp, workshop: kept.taught ? workshop : '', ...kept });
    }
  }

  /** @returns why it cannot be, or null */
  private async workOut(id: string, stamp: string): Promise<string | null> {
    const { workshop, revision } = await readWorkshop(this.store.db);
    try {
      const job = await readJob(this.store.db, id);
      const { tag, taught } = await this.pool.run('tag', { job, workshop, lessons: this.known() });
      const kept = { text: JSON.stringify(tag), taught, words: searchWords(job.document, job.history) };
      const row = { stamp, workshop: this.madeBy(revision), document: folded(kept) };
      this.kept.set(id, { stamp, workshop: row.workshop, ...kept });
      await this.store.write(tx =>
        tx
          .insert(tags)
          .values({ jobId: id, ...row })
          .onConflictDoUpdate({ target: tags.jobId, set: row }),
      );
      return null;
    } catch (error) {
      this.kept.delete(id);
      // One job never takes the rack down, whatever is wrong with it.
      return error instanceof UnreadableJob
        ? error.why
        : `Sagoma failed at it (${(error as Error).message}).`;
    }
  }

  private follow(id: string, stamp: string): void {
    if (this.queued.has(id)) return;
    this.queued.add(id);
    void this.behind
      .add(() => this.workOut(id, stamp))
      .catch(() => undefined)
      .finally(() => {
        this.queued.delete(id);
        // Once for all of them: every window then fetches the rack again.
        if (this.behind.size === 0 && this.behind.pending === 0)
          this.events.send({ kind: 'job', jobId: id, revision: 0, tab: null });
      });
  }
}

/** A stored tag: the tag, what its tries teach, and the text that a search goes through, a line each. */
const folded = ({ text, taught, words }: Pick<Kept, 'text' | 'taught' | 'words'>): string =>
  `${text}\n${JSON.stringify(taught)}\n${words}`;

/** A tag from before lessons were stored with it is a single line: it is shown, and refreshed. */
function unfolded(stored: string): Pick<Kept, 'text' | 'taught' | 'words'> {
  const [text = '', taught, ...words] = stored.split('\n');
  return { text, taught: taught ? (JSON.parse(taught) as Evidence[]) : null, words: words.join('\n') };
}
