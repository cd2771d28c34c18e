/** Networks that an engineer named: only addresses in them are asked. */
import { fail, ok, type Result } from '../core/base/result';

/** Whether an address is in one of some IPv4 networks, such as `192.0.2.0/24,198.51.100.0/25`; none: in no network. */
export function withinOf(networks: string): Result<(address: string) => boolean, string> {
  const all: { from: number; size: number }[] = [];
  for (const text of networks.split(',').filter((each) => each.trim() !== '')) {
    const [, address = '', length = ''] = /^\s*([\d.]+)\/(\d{1,2})\s*$/.exec(text) ?? [];
    const from = numberOf(address);
    const bits = Number(length);
    if (from === null || length === '' || bits > 32)
      return fail(`found "${text.trim()}"; allowed: networks such as 192.0.2.0/24`);
    const size = 2 ** (32 - bits);
    all.push({ from: from - (from % size), size });
  }
  return ok((address) => {
    const at = numberOf(address);
    return at !== null && all.some(({ from, size }) => at >= from && at < from + size);
  });
}

/** Whether a text can be an address, or the name of a switch. */
export const isAddress = (text: string): boolean => /^[a-z0-9]([a-z0-9.-]{0,252}[a-z0-9])?$/i.test(text);

function numberOf(address: string): number | null {
  const parts = address.split('.').map(Number);
  if (parts.length !== 4 || !parts.every((part) => Number.isInteger(part) && part >= 0 && part < 256)) return null;
  return parts.reduce((sum, part) => sum * 256 + part, 0);
}
