import { BlockList, isIP } from 'node:net';
import { networkInterfaces } from 'node:os';
import { HOME_BLOCKS } from '../../core/devices/homeAddresses';
import { Refusal } from '../../core/refusal';

const home = new BlockList();
for (const block of HOME_BLOCKS) {
  const [first = '', bits] = block.split('/');
  home.addSubnet(first, Number(bits), isIP(first) === 4 ? 'ipv4' : 'ipv6');
}

/** Whether an address can only be reached from within a home. */
export function isHomeAddress(address: string): boolean {
  const family = isIP(address);
  return family !== 0 && home.check(address, family === 4 ? 'ipv4' : 'ipv6');
}

export function sameAddress(a: string, b: string): boolean {
  if (isIP(a) === 0 || isIP(a) !== isIP(b)) return false;
  const list = new BlockList();
  const family = isIP(a) === 4 ? 'ipv4' : 'ipv6';
  list.addAddress(a, family);
  return list.check(b, family);
}

/**
 * Addresses of this machine in the home network; link-local ones are left out, because they carry a zone that no web
 * address can hold.
 * @param chosen addresses in place of those that the machine has, with commas between them
 * @throws Refusal for one that is not of a home
 */
export function homeAddresses(chosen: string | undefined): string[] {
  if (chosen) {
    const all = chosen.split(',').map((each) => each.trim());
    const foreign = all.find((each) => !isHomeAddress(each));
    if (foreign !== undefined) {
      throw new Refusal(
        `OCULENT_HOME_ADDRESSES: “${foreign}” is no address of a home network (such as 192.168.1.20).`,
      );
    }
    return all;
  }
  return Object.values(networkInterfaces())
    .flatMap((each) => each ?? [])
    .filter(
      ({ address, internal }) => !internal && isHomeAddress(address) && !/^(fe80:|169\.254\.)/i.test(address),
    )
    .map(({ address }) => address);
}
