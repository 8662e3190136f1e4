import { createHash, randomBytes } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import { ulid } from 'ulid';
import type { Device } from '../../contract/phone';
import { notFound } from '../errors';
import type { Store } from '../store/database';
import { devices } from '../store/schema';

/** The time of a device's last use is stored this often, ms. */
const NOTED_EVERY = 60_000;

const hashOf = (token: string) => createHash('sha256').update(token).digest('hex');
const SHOWN = {
  id: devices.id,
  name: devices.name,
  pairedAt: devices.pairedAt,
  usedAt: devices.usedAt,
};

export const listDevices = (store: Store): Promise<Device[]> =>
  store.db.select(SHOWN).from(devices).orderBy(asc(devices.pairedAt));

/** @returns the secret that its browser sends from now on: it cannot be looked up again */
export function letIn(store: Store, kind: string): Promise<{ device: Device; token: string }> {
  return store.write(async tx => {
    const names = new Set((await tx.select(SHOWN).from(devices)).map(d => d.name));
    let number = 1;
    while (names.has(`${kind} ${number}`)) number++;
    const device: Device = {
      id: ulid(),
      name: `${kind} ${number}`,
      pairedAt: new Date().toISOString(),
      usedAt: null,
    };
    const token = randomBytes(32).toString('base64url');
    await tx.insert(devices).values({ ...device, token: hashOf(token) });
    return { device, token };
  });
}

/** The device with this secret, if it is paired. Its visit is recorded. */
export async function deviceOf(store: Store, token: string): Promise<Device | null> {
  const [device] = await store.db
    .select(SHOWN)
    .from(devices)
    .where(eq(devices.token, hashOf(token)));
  if (!device) return null;
  const now = new Date();
  if (device.usedAt === null || now.getTime() - Date.parse(device.usedAt) > NOTED_EVERY)
    await store
      .write(tx => tx.update(devices).set({ usedAt: now.toISOString() }).where(eq(devices.id, device.id)))
      // Where nothing can be written, reading is still allowed: a write reports that itself.
      .catch(() => undefined);
  return device;
}

export async function renameDevice(store: Store, id: string, name: string): Promise<void> {
  const done = await store.write(tx => tx.update(devices).set({ name }).where(eq(devices.id, id)));
  if (done.rowsAffected === 0) throw notFound('That phone');
}

export async function sendAway(store: Store, id: string): Promise<void> {
  const done = await store.write(tx => tx.delete(devices).where(eq(devices.id, id)));
  if (done.rowsAffected === 0) throw notFound('That phone');
}
