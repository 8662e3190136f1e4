import type { Blobs } from './blobs/blobs';
import type { Events } from './events';
import type { RackReader } from './jobs/rack';
import type { OnBench } from './phone/on-bench';
import type { Builds } from './solids/builds';
import type { KernelPool } from './solids/pool';
import type { Solids } from './solids/solids';
import type { Store } from './store/database';

/** What the routes of every subject need. */
export interface App {
  store: Store;
  blobs: Blobs;
  pool: KernelPool;
  /** Threads that read uploaded files. */
  reader: KernelPool;
  solids: Solids;
  builds: Builds;
  events: Events;
  onBench: OnBench;
  /** The tags of all jobs, and what all jobs taught. */
  rack: RackReader;
  version: string;
}
