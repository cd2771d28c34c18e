/** Values as management information has them, and as we do. */
import type { BridgeId } from '../../../topology/bridgeId';

const octet = (value: number): string => value.toString(16).padStart(2, '0');

/** `02:4b:00:00:00:0a`. */
export const macText = (octets: Uint8Array): string => Array.from(octets, octet).join(':');
export const macOctets = (mac: string): Uint8Array =>
  Uint8Array.from(mac.split(':'), (digits) => Number.parseInt(digits, 16));

/** BridgeId: two octets of priority, six of address. */
export const idOctets = ({ priority, mac }: BridgeId): Uint8Array =>
  Uint8Array.from([priority >> 8, priority & 255, ...macOctets(mac)]);
export const idOf = (octets: Uint8Array | undefined): BridgeId | null =>
  octets?.length === 8 ? { priority: octets[0]! * 256 + octets[1]!, mac: macText(octets.slice(2)) } : null;

export const pairOctets = (value: number): Uint8Array => Uint8Array.from([value >> 8, value & 255]);
export const pairOf = (octets: Uint8Array | undefined): number | null =>
  octets?.length === 2 ? octets[0]! * 256 + octets[1]! : null;

/** PortList: a bit for each port, the first one the highest of the first octet; `length`: octets, else as many as there must be. */
export function portList(ports: readonly number[], length?: number): Uint8Array {
  const octets = new Uint8Array(length ?? Math.ceil(ports.reduce((most, port) => Math.max(most, port), 0) / 8));
  for (const port of ports) octets[(port - 1) >> 3]! |= 0x80 >> ((port - 1) & 7);
  return octets;
}
export function portsOf(octets: Uint8Array | undefined): number[] {
  const found: number[] = [];
  octets?.forEach((each, at) => {
    for (let bit = 0; bit < 8; bit += 1) if (each & (0x80 >> bit)) found.push(at * 8 + bit + 1);
  });
  return found;
}

/** BITS: the first bit is the highest, where an LACPDU's is the lowest. */
export const stateBits = (state: number): Uint8Array => Uint8Array.of(turned(state));
export const stateOf = (octets: Uint8Array | undefined): number | null =>
  octets && octets.length > 0 ? turned(octets[0]!) : null;
function turned(octetOf: number): number {
  let found = 0;
  for (let bit = 0; bit < 8; bit += 1) if (octetOf & (1 << bit)) found |= 0x80 >> bit;
  return found;
}
