/** LACPDUs, version 1, in Slow Protocols frames (IEEE 802.1AX-2020 6.4.2 and annex A). */
import { fail, type Result } from '../base/result';
import { OctetReader, Writer } from './octets';

/** The Slow Protocols group address, which no bridge forwards (802.3-2018 57A.3). */
export const SLOW_GROUP = '01:80:c2:00:00:02';
const SLOW_PROTOCOLS = 0x8809;
const LACP_SUBTYPE = 1;
const VERSION = 1;

/** One end as an LACPDU tells it; `state` is the octet of its bits. */
export interface WireParticipant {
  readonly systemPriority: number;
  readonly system: string;
  readonly key: number;
  readonly portPriority: number;
  readonly port: number;
  readonly state: number;
}

export interface WireLacpdu {
  readonly actor: WireParticipant;
  readonly partner: WireParticipant;
}

export interface LacpFrame extends WireLacpdu {
  readonly to: string;
  readonly from: string;
}

/** Types and lengths of the parts (figure 6-7). */
const ACTOR = [1, 20] as const;
const PARTNER = [2, 20] as const;
const COLLECTOR = [3, 16] as const;
const TERMINATOR = [0, 0] as const;
/** Octets at the end that say nothing. */
const REST = 50;

/** The frame without its check sequence: 110 octets after the EtherType. */
export function encodeLacpFrame(from: string, { actor, partner }: WireLacpdu): Uint8Array {
  const out = new Writer().mac(SLOW_GROUP).mac(from).u16(SLOW_PROTOCOLS).u8(LACP_SUBTYPE).u8(VERSION);
  for (const [[type, length], who] of [
    [ACTOR, actor],
    [PARTNER, partner],
  ] as const) {
    out
      .u8(type)
      .u8(length)
      .u16(who.systemPriority)
      .mac(who.system)
      .u16(who.key)
      .u16(who.portPriority)
      .u16(who.port)
      .u8(who.state)
      .octets([0, 0, 0]);
  }
  out.octets(COLLECTOR).u16(0).octets(new Uint8Array(12)).octets(TERMINATOR).octets(new Uint8Array(REST));
  return out.done();
}

/** Reads a frame; the error says why there is no LACPDU in it. */
export function decodeLacpFrame(octets: Uint8Array): Result<LacpFrame, string> {
  const input = new OctetReader(octets);
  const [to, from] = [input.mac(), input.mac()];
  const type = input.u16();
  if (type !== SLOW_PROTOCOLS)
    return fail(`EtherType 0x${type.toString(16).padStart(4, '0')}, not that of the Slow Protocols`);
  const subtype = input.u8();
  if (subtype !== LACP_SUBTYPE) return fail(`subtype ${subtype}, not LACP`);
  input.u8(); // any version begins with the parts of version 1 (6.4.2.4)
  const found: WireParticipant[] = [];
  for (const [part, length] of [ACTOR, PARTNER]) {
    const [is, of] = [input.u8(), input.u8()];
    if (is !== part || of !== length) return fail(`part ${is} of ${of} octets where part ${part} of ${length} belongs`);
    const [systemPriority, system, key, portPriority, port, state] = [
      input.u16(),
      input.mac(),
      input.u16(),
      input.u16(),
      input.u16(),
      input.u8(),
    ];
    for (let i = 0; i < 3; i += 1) input.u8();
    found.push({ systemPriority, system, key, portPriority, port, state });
  }
  return input.end({ to, from, actor: found[0]!, partner: found[1]! }, 'the LACPDU');
}
