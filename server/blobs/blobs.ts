import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rename, rm, utimes } from 'node:fs/promises';
import { join } from 'node:path';
import type { Store } from '../store/database';
import { blobs } from '../store/schema';

/** Files named by their SHA-256. Written under another name, synced, renamed; the row comes after. */
export class Blobs {
  constructor(private readonly store: Store) {}

  path(sha256: string): string {
    return join(this.store.folder, 'blobs', sha256.slice(0, 2), sha256);
  }

  /** Keeps the bytes and returns their hash; the same bytes are kept once. */
  async put(bytes: Uint8Array): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const path = this.path(sha256);
    // One that a crash, or a bad disk, has cut short is written again.
    if ((await this.get(sha256)) === null) {
      const folder = join(path, '..');
      await mkdir(folder, { recursive: true });
      const temporary = join(folder, `.${randomUUID()}`);
      const file = await open(temporary, 'wx');
      try {
        await file.writeFile(bytes);
        await file.sync();
      } catch (error) {
        await rm(temporary, { force: true });
        throw error;
      } finally {
        await file.close();
      }
      await rename(temporary, path);
      await sync(folder);
    } else {
      // Kept anew, it has its whole grace before it.
      const now = new Date();
      await utimes(path, now, now);
    }
    await this.store.write(tx =>
      tx
        .insert(blobs)
        .values({ sha256, size: bytes.length, at: new Date().toISOString() })
        .onConflictDoNothing(),
    );
    return sha256;
  }

  /** null when it is not there or no longer what its name says. */
  async get(sha256: string): Promise<Uint8Array | null> {
    if (!/^[0-9a-f]{64}$/.test(sha256)) return null;
    const bytes = await readFile(this.path(sha256)).catch(() => null);
    if (!bytes || createHash('sha256').update(bytes).digest('hex') !== sha256) return null;
    return bytes;
  }
}

/** A rename is only safe once its folder is on the disk. */
async function sync(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
