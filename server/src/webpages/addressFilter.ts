import { BlockList, isIP } from 'node:net';

/** Addresses that are not on the public internet: IANA special-purpose registries (RFC 6890). */
const SPECIAL: readonly [string, number, 'ipv4' | 'ipv6'][] = [
  ['0.0.0.0', 8, 'ipv4'],
  ['10.0.0.0', 8, 'ipv4'],
  ['100.64.0.0', 10, 'ipv4'],
  ['127.0.0.0', 8, 'ipv4'],
  ['169.254.0.0', 16, 'ipv4'],
  ['172.16.0.0', 12, 'ipv4'],
  ['192.0.0.0', 24, 'ipv4'],
  ['192.0.2.0', 24, 'ipv4'],
  ['192.168.0.0', 16, 'ipv4'],
  ['198.18.0.0', 15, 'ipv4'],
  ['198.51.100.0', 24, 'ipv4'],
  ['203.0.113.0', 24, 'ipv4'],
  ['224.0.0.0', 4, 'ipv4'],
  ['240.0.0.0', 4, 'ipv4'],
  ['::', 128, 'ipv6'],
  ['::1', 128, 'ipv6'],
  ['64:ff9b::', 96, 'ipv6'],
  ['64:ff9b:1::', 48, 'ipv6'],
  ['100::', 64, 'ipv6'],
  ['2001::', 23, 'ipv6'],
  ['2001:db8::', 32, 'ipv6'],
  ['2002::', 16, 'ipv6'],
  ['fc00::', 7, 'ipv6'],
  ['fe80::', 10, 'ipv6'],
  // Site-local, deprecated but still in use (RFC 3879).
  ['fec0::', 10, 'ipv6'],
  ['5f00::', 16, 'ipv6'],
  ['ff00::', 8, 'ipv6'],
];

const special = new BlockList();
for (const [address, bits, family] of SPECIAL) special.addSubnet(address, bits, family);

/** Whether an IP address is on the public internet, so that fetching from it gives nothing of ours away. */
export function isPublicAddress(address: string): boolean {
  const family = isIP(address);
  if (family === 0) return false;
  if (family === 4) return !special.check(address, 'ipv4');
  // An IPv4 address in an IPv6 one (RFC 4291 §2.5.5.2) is judged as what it stands for.
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address)?.[1];
  if (mapped) return isPublicAddress(mapped);
  if (/^::ffff:/i.test(address)) return false;
  return !special.check(address, 'ipv6');
}
