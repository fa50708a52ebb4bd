/**
 * Blocks whose addresses never leave a home: private (RFC 1918), link-local (RFC 3927, RFC 4291), unique local
 * (RFC 4193) and loopback (RFC 1122, RFC 4291).
 */
export const HOME_BLOCKS = [
  '10.0.0.0/8',
  '172.16.0.0/12',
  '192.168.0.0/16',
  '169.254.0.0/16',
  '127.0.0.0/8',
  'fc00::/7',
  'fe80::/10',
  '::1/128',
] as const;

/** The name under which a machine is found in a home without a name server (RFC 6762). */
export function localName(machine: string): string {
  const first = machine.toLowerCase().split('.', 1)[0]!;
  const plain = first
    .replace(/[^a-z0-9-]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 63);
  return `${plain || 'oculent'}.local`;
}

/** An address as it stands in a web address: IPv6 in brackets. */
export function inUrl(address: string): string {
  return address.includes(':') ? `[${address}]` : address;
}
