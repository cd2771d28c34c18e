/** Whom an engineer names: switches that are asked, networks in which neighbours are, and where notices go. */
import { fail, ok, type Result } from '../../base/result';
import { z } from '../../base/zod';

/** The address of a switch, or its name. */
export const addressField = z
  .string()
  .regex(/^[a-z0-9]([a-z0-9.-]{0,252}[a-z0-9])?$/i, 'addresses or names of switches, such as 192.0.2.1');

/** An IPv4 network. */
export const networkField = z.string().refine((text) => networkOf(text) !== null, 'networks such as 192.0.2.0/24');

/** Where notices go as JSON. */
export const webhookField = z
  .string()
  .max(2000)
  .regex(/^https?:\/\/[^\s/]+/, 'an address that begins with http:// or https://');

/** Where notices go as syslog. */
export const syslogField = z
  .string()
  .regex(/^[a-z0-9.-]+(:\d{1,5})?$/i, 'a host, or a host and a port, such as 192.0.2.9:514');

/** Seconds from one reading of a watch to the next. */
export const everyField = z.number().int().min(5).max(3600);

/** Whether an address is in one of some IPv4 networks, such as `192.0.2.0/24,198.51.100.0/25`; none: in no network. */
export function withinOf(networks: string): Result<(address: string) => boolean, string> {
  const all: Network[] = [];
  for (const text of networks.split(',').filter((each) => each.trim() !== '')) {
    const network = networkOf(text.trim());
    if (!network) return fail(`found "${text.trim()}"; allowed: networks such as 192.0.2.0/24`);
    all.push(network);
  }
  return ok((address) => {
    const at = numberOf(address);
    return at !== null && all.some(({ from, size }) => at >= from && at < from + size);
  });
}

/** Addresses as numbers: the first, and how many. */
interface Network {
  readonly from: number;
  readonly size: number;
}

function networkOf(text: string): Network | null {
  const [, address = '', length = ''] = /^([\d.]+)\/(\d{1,2})$/.exec(text) ?? [];
  const from = numberOf(address);
  const bits = Number(length);
  if (from === null || length === '' || bits > 32) return null;
  const size = 2 ** (32 - bits);
  return { from: from - (from % size), size };
}

function numberOf(address: string): number | null {
  const parts = address.split('.').map(Number);
  if (parts.length !== 4 || !parts.every((part) => Number.isInteger(part) && part >= 0 && part < 256)) return null;
  return parts.reduce((sum, part) => sum * 256 + part, 0);
}
