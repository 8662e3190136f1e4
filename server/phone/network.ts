import { BlockList, isIPv4 } from 'node:net';
import { hostname, networkInterfaces } from 'node:os';

/** The addresses of this machine on its networks. IPv4 only: every home network has it. */

export interface OwnAddress {
  /** The system's name for it. */
  network: string;
  address: string;
  /** Leading bits that its whole network shares. */
  prefix: number;
}

/** Cable and radio come before bridges and tunnels. */
const USUAL = /^(wl|en|eth|wi-?fi|ethernet)/i;

/** Read again each time: a laptop moves from one network to another. */
export function ownAddresses(): OwnAddress[] {
  const found = Object.entries(networkInterfaces()).flatMap(([network, entries = []]) =>
    entries
      .filter(e => e.family === 'IPv4' && !e.internal && !e.address.startsWith('169.254.') && e.cidr)
      .map(e => ({ network, address: e.address, prefix: Number(e.cidr!.split('/').at(-1)) })),
  );
  return found.toSorted((a, b) => Number(USUAL.test(b.network)) - Number(USUAL.test(a.network)));
}

/** Host names that lead here, besides this machine's own `localhost`. */
export function ownNames(): string[] {
  const name = hostname().toLowerCase();
  return [...ownAddresses().map(a => a.address), name, `${name}.local`];
}

/** Whether an address is on one of this machine's own networks. @param own the networks to check */
export function isNear(remote: string | undefined, own: readonly OwnAddress[] = ownAddresses()): boolean {
  const plain = remote?.replace(/^::ffff:/, '') ?? '';
  if (plain === '::1') return true;
  if (!isIPv4(plain)) return false;
  const near = new BlockList();
  near.addSubnet('127.0.0.0', 8);
  for (const { address, prefix } of own) near.addSubnet(address, prefix);
  return near.check(plain);
}
