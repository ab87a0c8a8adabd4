import { BlockList, isIP } from 'node:net';

/** Addresses that are not of the open internet (IANA special-purpose registries, RFC 6890 and its updates). */
const NOT_OPEN = new BlockList();
for (const [net, prefix] of [
  ['0.0.0.0', 8],
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['127.0.0.0', 8],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.0.0.0', 24],
  ['192.0.2.0', 24],
  ['192.88.99.0', 24],
  ['192.168.0.0', 16],
  ['198.18.0.0', 15],
  ['198.51.100.0', 24],
  ['203.0.113.0', 24],
  ['224.0.0.0', 4],
  ['240.0.0.0', 4],
] as const)
  NOT_OPEN.addSubnet(net, prefix, 'ipv4');
for (const [net, prefix] of [
  ['::', 128],
  ['::1', 128],
  ['64:ff9b::', 96],
  ['64:ff9b:1::', 48],
  ['100::', 64],
  ['2001::', 23],
  ['2001:db8::', 32],
  ['2002::', 16],
  ['fc00::', 7],
  ['fe80::', 10],
  ['ff00::', 8],
] as const)
  NOT_OPEN.addSubnet(net, prefix, 'ipv6');

/** Whether an IP address is of this machine, a private network or a special purpose. One that is none is taken for private. */
export function isPrivateAddress(address: string): boolean {
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/i.exec(address);
  const own = mapped ? mapped[1]! : address;
  const version = isIP(own);
  // An address of version 4 within one of version 6, written as figures of 16 bits.
  if (version === 6 && /^::ffff:/i.test(own)) return true;
  return version === 0 || NOT_OPEN.check(own, version === 4 ? 'ipv4' : 'ipv6');
}
