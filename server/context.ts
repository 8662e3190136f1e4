import type { Blobs } from './blobs/blobs';
import type { Events } from './events';
import type { SolidPool } from './solids/pool';
import type { Store } from './store/database';

/** What the routes of every subject work with. */
export interface App {
  store: Store;
  blobs: Blobs;
  pool: SolidPool;
  events: Events;
  version: string;
}
