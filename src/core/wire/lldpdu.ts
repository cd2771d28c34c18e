/** LLDPDUs (IEEE 802.1AB-2016 clause 8) in Ethernet frames, as far as neighbours need them: who, which port, for how long. */
import { fail, ok, type Result } from '../base/result';
import { OctetReader, Writer } from './octets';

/** The nearest bridge group address, which no bridge forwards (802.1AB-2016 table 7-1). */
export const NEAREST_BRIDGE = '01:80:c2:00:00:0e';
const LLDP = 0x88cc;

/** TLV types (table 8-1). */
const TYPES = { end: 0, chassis: 1, port: 2, ttl: 3, portDescription: 4, systemName: 5 } as const;
/** Chassis ID subtype 4, an address (table 8-2); port ID subtypes 3, an address, and 5, the name of an interface (table 8-3). */
const CHASSIS_MAC = 4;
const PORT_MAC = 3;
const PORT_NAME = 5;
/** What the length of a TLV can say, octets (8.4.2), without the octet of a subtype. */
const LONGEST_ID = 255;

export interface Lldpdu {
  /** `02:4b:00:00:00:0a`, or as text where it is no address. */
  readonly chassis: string;
  /** The name of an interface, or an address. */
  readonly port: string;
  /** How long this holds, seconds; 0: it holds no longer. */
  readonly ttl: number;
  /** Null where it is not told. */
  readonly systemName: string | null;
}

export interface LldpFrame extends Lldpdu {
  readonly from: string;
}

/** The frame without its check sequence; names that are too long are cut. */
export function encodeLldpFrame({ from, chassis, port, ttl, systemName }: LldpFrame): Uint8Array {
  const out = new Writer().mac(NEAREST_BRIDGE).mac(from).u16(LLDP);
  const tlv = (type: number, octets: Uint8Array): void => void out.u16((type << 9) | octets.length).octets(octets);
  tlv(TYPES.chassis, new Writer().u8(CHASSIS_MAC).mac(chassis).done());
  tlv(TYPES.port, new Writer().u8(PORT_NAME).octets(shortened(port)).done());
  tlv(TYPES.ttl, new Writer().u16(ttl).done());
  if (systemName !== null) tlv(TYPES.systemName, shortened(systemName));
  tlv(TYPES.end, new Uint8Array());
  return out.padTo(60).done();
}

/** As many whole letters as there is room for. */
function shortened(text: string): Uint8Array {
  let octets = new Uint8Array();
  for (const letter of text) {
    const next = new TextEncoder().encode(letter);
    if (octets.length + next.length > LONGEST_ID) break;
    octets = Uint8Array.from([...octets, ...next]);
  }
  return octets;
}

/** Reads a frame; the error says why there is no LLDPDU in it. The first three TLVs are those that must be (8.2). */
export function decodeLldpFrame(octets: Uint8Array): Result<LldpFrame, string> {
  const input = new OctetReader(octets);
  input.mac();
  const from = input.mac();
  const type = input.u16();
  if (type !== LLDP) return fail(`EtherType 0x${type.toString(16).padStart(4, '0')}, not that of LLDP`);
  const found = new Map<number, Uint8Array>();
  for (let place = 0; ; place += 1) {
    if (input.left < 2) {
      if (place > 3) break;
      return fail(`the frame ends after ${octets.length} octets`);
    }
    const head = input.u16();
    const [tlv, length] = [head >> 9, head & 0x1ff];
    if (place < 3 && tlv !== place + 1) return fail(`TLV of type ${tlv} where type ${place + 1} belongs`);
    if (tlv === TYPES.end) break;
    if (input.left < length) return fail(`a TLV of ${length} octets where ${input.left} are left`);
    const value = Uint8Array.from({ length }, () => input.u8());
    if (!found.has(tlv)) found.set(tlv, value);
  }
  const [chassis, port, ttl] = [TYPES.chassis, TYPES.port, TYPES.ttl].map((each) => found.get(each)!) as [
    Uint8Array,
    Uint8Array,
    Uint8Array,
  ];
  if (chassis.length < 2 || port.length < 2) return fail('an identifier without anything in it');
  if (ttl.length < 2) return fail('a time to live without anything in it');
  const name = found.get(TYPES.systemName);
  return ok({
    from,
    chassis: idText(chassis, CHASSIS_MAC),
    port: idText(port, PORT_MAC),
    ttl: new OctetReader(ttl).u16(),
    systemName: name ? new TextDecoder().decode(name) : null,
  });
}

/** `mac`: the subtype that is an address. */
function idText([subtype, ...value]: Uint8Array, mac: number): string {
  const octets = Uint8Array.from(value);
  return subtype === mac && octets.length === 6 ? new OctetReader(octets).mac() : new TextDecoder().decode(octets);
}
