/** Values as the SNMP library has them, and as ours are. */
import snmp, { type LibraryVarbind } from 'net-snmp';
import type { SmiType, Varbind } from '../../core/exchange/observation/snmp/mib';

const TYPES: Readonly<Record<SmiType, number>> = {
  integer: snmp.ObjectType.Integer,
  counter: snmp.ObjectType.Counter,
  gauge: snmp.ObjectType.Gauge,
  ticks: snmp.ObjectType.TimeTicks,
  octets: snmp.ObjectType.OctetString,
  oid: snmp.ObjectType.OID,
};
const NAMES = new Map(Object.entries(TYPES).map(([name, type]) => [type, name as SmiType]));

export const toLibrary = ({ oid, type, value }: Varbind): LibraryVarbind => ({
  oid,
  type: TYPES[type],
  value: value instanceof Uint8Array ? Buffer.from(value) : value,
});

/** Null for what no table of ours has: a 64-bit counter, an address. */
export function fromLibrary({ oid, type, value }: LibraryVarbind): Varbind | null {
  const name = NAMES.get(type);
  if (!name) return null;
  if (Buffer.isBuffer(value)) return { oid, type: name, value: Uint8Array.from(value) };
  return typeof value === 'number' || typeof value === 'string' ? { oid, type: name, value } : null;
}
