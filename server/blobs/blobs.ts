import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rename, rm, utimes } from 'node:fs/promises';
import { join } from 'node:path';
import type { Store } from '../store/database';
import { blobs } from '../store/schema';

/** More data came than is accepted. */
export class TooLong extends Error {
  override name = 'TooLong';
}

/** Files named by their SHA-256. Written under another name, synced, renamed; the row comes after. */
export class Blobs {
  constructor(private readonly store: Store) {}

  path(sha256: string): string {
    return join(this.store.folder, 'blobs', sha256.slice(0, 2), sha256);
  }

  /** Stores the bytes and returns their hash; equal bytes are stored once. */
  async put(bytes: Uint8Array): Promise<string> {
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const path = this.path(sha256);
    // A file that a crash, or a bad disk, has truncated is written again.
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
      // Stored again, it has its whole grace period before it.
      const now = new Date();
      await utimes(path, now, now);
    }
    await this.noted(sha256, bytes.length);
    return sha256;
  }

  /**
   * Stores a stream without ever having all of it in memory.
   * @param most bytes @param check of the whole file before it is stored: throws to refuse it
   * @throws TooLong
   */
  async receive(
    source: AsyncIterable<Uint8Array>,
    most: number,
    check: (path: string) => Promise<void>,
  ): Promise<string> {
    const folder = join(this.store.folder, 'blobs', 'coming');
    await mkdir(folder, { recursive: true });
    const temporary = join(folder, `.${randomUUID()}`);
    const hash = createHash('sha256');
    let size = 0;
    try {
      const file = await open(temporary, 'wx');
      try {
        for await (const chunk of source) {
          size += chunk.length;
          if (size > most) throw new TooLong();
          hash.update(chunk);
          await file.writeFile(chunk);
        }
        await file.sync();
      } finally {
        await file.close();
      }
      await check(temporary);
      const sha256 = hash.digest('hex');
      const path = this.path(sha256);
      await mkdir(join(path, '..'), { recursive: true });
      await rename(temporary, path);
      await sync(join(path, '..'));
      await this.noted(sha256, size);
      return sha256;
    } finally {
      await rm(temporary, { force: true });
    }
  }

  private async noted(sha256: string, size: number): Promise<void> {
    await this.store.write(tx =>
      tx.insert(blobs).values({ sha256, size, at: new Date().toISOString() }).onConflictDoNothing(),
    );
  }

  /** Null when it is not there or its content no longer matches its name. */
  async get(sha256: string): Promise<Uint8Array | null> {
    if (!/^[0-9a-f]{64}$/.test(sha256)) return null;
    const bytes = await readFile(this.path(sha256)).catch(() => null);
    if (!bytes || createHash('sha256').update(bytes).digest('hex') !== sha256) return null;
    return bytes;
  }
}

/** A rename is only durable once its folder is synced. */
async function sync(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}
