import { expect, test } from 'vitest';
import { isNear, ownAddresses, ownNames } from './network';

const OWN = [
  { network: 'wlan0', address: '192.168.7.20', prefix: 24 },
  { network: 'eth0', address: '10.3.200.9', prefix: 20 },
];

test.each([
  ['192.168.7.1', true],
  ['::ffff:192.168.7.254', true],
  ['10.3.192.1', true],
  ['10.3.207.255', true],
  ['127.0.0.1', true],
  ['::1', true],
  ['192.168.8.1', false],
  ['10.3.208.1', false],
  ['203.0.113.9', false],
  ['2001:db8::1', false],
  ['', false],
  [undefined, false],
])('%s is near: %s', (remote, near) => {
  expect(isNear(remote, OWN)).toBe(near);
});

test('this machine’s own addresses are names it is reached by, and near', () => {
  for (const { address } of ownAddresses()) {
    expect(ownNames()).toContain(address);
    expect(isNear(address)).toBe(true);
  }
});
