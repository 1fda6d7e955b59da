import { isIPv4, isIPv6 } from 'node:net';

/**
 * The network an address is in, as one asker is counted: an IPv4 address by itself, of an IPv6 address its first 64 bits,
 * for one line has all the others.
 */
export function networkOf(address: string | undefined): string {
  const plain = (address ?? '').replace(/%.*$/, '').toLowerCase();
  const mapped = /^::ffff:(\d+\.\d+\.\d+\.\d+)$/.exec(plain)?.[1];
  if (mapped && isIPv4(mapped)) return mapped;
  if (!isIPv6(plain)) return isIPv4(plain) ? plain : 'unknown';
  const [head = '', tail] = plain.split('::');
  const groups = head.split(':').filter(Boolean);
  const rest = tail === undefined ? [] : tail.split(':').filter(Boolean);
  while (tail !== undefined && groups.length + rest.length < 8) groups.push('0');
  return `${[...groups, ...rest]
    .slice(0, 4)
    .map((group) => group.replace(/^0+(?=.)/, ''))
    .join(':')}::/64`;
}
