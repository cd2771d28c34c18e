/** Networks that an engineer named: only addresses in them are asked. */
import { Unusable } from '../input';

/** Whether an address is in one of some IPv4 networks. */
export function withinOf(networks: string): (address: string) => boolean {
  const all = networks.split(',').map((text) => {
    const [, address = '', length = ''] = /^\s*([\d.]+)\/(\d{1,2})\s*$/.exec(text) ?? [];
    const from = numberOf(address);
    const bits = Number(length);
    if (from === null || length === '' || bits > 32)
      throw new Unusable(`--within: found "${text.trim()}"; allowed: networks such as 192.0.2.0/24`);
    const size = 2 ** (32 - bits);
    return { from: from - (from % size), size };
  });
  return (address) => {
    const at = numberOf(address);
    return at !== null && all.some(({ from, size }) => at >= from && at < from + size);
  };
}

function numberOf(address: string): number | null {
  const parts = address.split('.').map(Number);
  if (parts.length !== 4 || !parts.every((part) => Number.isInteger(part) && part >= 0 && part < 256)) return null;
  return parts.reduce((sum, part) => sum * 256 + part, 0);
}
