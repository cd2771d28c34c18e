/** Values as the SNMP library has them, and as ours are. */
import snmp, { type LibraryVarbind } from 'net-snmp';
import type { SmiType, Varbind } from '../core/exchange/observation/snmp/mib';

const TYPES: Readonly<Record<SmiType, number>> = {
  integer: snmp.ObjectType.Integer,
  counter: snmp.ObjectType.Counter,
  counter64: snmp.ObjectType.Counter64,
  gauge: snmp.ObjectType.Gauge,
  ticks: snmp.ObjectType.TimeTicks,
  octets: snmp.ObjectType.OctetString,
  oid: snmp.ObjectType.OID,
};
const NAMES = new Map(Object.entries(TYPES).map(([name, type]) => [type, name as SmiType]));

export const toLibrary = ({ oid, type, value }: Varbind): LibraryVarbind => ({
  oid,
  type: TYPES[type],
  value: value instanceof Uint8Array ? Buffer.from(value) : type === 'counter64' ? eightOctets(value) : value,
});

/** As the library wants it. */
function eightOctets(value: number | string): Buffer {
  const octets = Buffer.alloc(8);
  octets.writeBigUInt64BE(BigInt(value));
  return octets;
}

/** Null for what no table of ours has, such as an address. */
export function fromLibrary({ oid, type, value }: LibraryVarbind): Varbind | null {
  const name = NAMES.get(type);
  if (!name) return null;
  // No more than eight octets, whatever is sent; a count that is too high for a number is left.
  if (name === 'counter64')
    return Buffer.isBuffer(value) && value.length <= 8
      ? { oid, type: name, value: value.reduce((sum, octet) => sum * 256 + octet, 0) }
      : null;
  if (Buffer.isBuffer(value)) return { oid, type: name, value: Uint8Array.from(value) };
  return typeof value === 'number' || typeof value === 'string' ? { oid, type: name, value } : null;
}
