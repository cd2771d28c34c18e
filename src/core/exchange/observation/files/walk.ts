/** What `snmpwalk -On` prints, as the values that it read. */
import type { SmiType, SmiValue, Varbind } from '../snmp/mib';

/** Whether a text looks like it. */
export const isWalk = (text: string): boolean => /^\.?1(\.\d+)+ = /m.test(text.slice(0, 4000));

/** A value may go on over several lines; what cannot be read is left out. */
export function readWalk(text: string): Varbind[] {
  const found: { oid: string; value: string }[] = [];
  for (const line of text.replaceAll('\r', '').split('\n')) {
    const [, oid, value] = /^\.?(1(?:\.\d+)+) = (.*)$/.exec(line) ?? [];
    if (oid !== undefined) found.push({ oid, value: value! });
    else if (found.length > 0) found[found.length - 1]!.value += `\n${line}`;
  }
  return found.flatMap(({ oid, value }) => {
    const read = valueIn(value);
    return read ? [{ oid, ...read }] : [];
  });
}

const NUMBERS: Readonly<Record<string, SmiType>> = {
  INTEGER: 'integer',
  Counter32: 'counter',
  Counter64: 'counter64',
  Gauge32: 'gauge',
  Unsigned32: 'gauge',
  Timeticks: 'ticks',
};

function valueIn(text: string): { readonly type: SmiType; readonly value: SmiValue } | null {
  const value = text.trimEnd();
  if (value === '""') return { type: 'octets', value: new Uint8Array() };
  const [, kind, rest = ''] = /^([A-Za-z][\w-]*): ?([\s\S]*)$/.exec(value) ?? [];
  if (kind === undefined) return null;
  const type = NUMBERS[kind];
  if (type) {
    // `up(1)`, `(123) 0:00:01.23`, `5`, `1500 octets`.
    const number = /\((-?\d+)\)/.exec(rest)?.[1] ?? /^-?\d+/.exec(rest)?.[0];
    return number === undefined ? null : { type, value: Number(number) };
  }
  switch (kind) {
    case 'STRING':
      return { type: 'octets', value: new TextEncoder().encode(unquoted(rest)) };
    case 'Hex-STRING':
    case 'BITS':
      return { type: 'octets', value: octetsIn(rest) };
    case 'OID':
      return { type: 'oid', value: rest.replace(/^\./, '') };
    default:
      return null;
  }
}

const unquoted = (text: string): string =>
  /^"[\s\S]*"$/.test(text) ? text.slice(1, -1).replaceAll(/\\(["\\])/g, '$1') : text;

/** `02 4B 00`, with names of bits behind them where there are some. */
function octetsIn(text: string): Uint8Array {
  const [, hex = ''] = /^((?:[0-9A-Fa-f]{2}\s*)*)/.exec(text) ?? [];
  return Uint8Array.from(hex.match(/[0-9A-Fa-f]{2}/g) ?? [], (digits) => Number.parseInt(digits, 16));
}
