import { createHash, randomUUID } from 'node:crypto';
import { mkdir, open, readFile, rename, rm, utimes } from 'node:fs/promises';
import { join } from 'node:path';
import type { Store } from '../store/database';
import { blobs } from '../store/schema';

/** More came than is taken. */
export class TooLong extends Error {
  override name = 'TooLong';
}

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
    await this.noted(sha256, bytes.length);
    return sha256;
  }

  /**
   * Keeps what comes in a stream, never all of it in memory.
   * @param most bytes @param check of the whole file before it is kept: throws where it is refused
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
