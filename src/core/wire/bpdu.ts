/** Bridge protocol data units in octets and back (IEEE 802.1Q-2018 clause 14; configuration and TCN BPDUs as in 802.1D-1998 9.3). */
import { fail, type Result } from '../result';
import { Reader, Writer } from './octets';

/** A bridge identifier as sent: priority with the system ID extension, and address. */
export interface WireBridgeId {
  readonly priority: number;
  readonly mac: string;
}

/** What configuration and RST BPDUs have in common. Times in seconds, sent in 256ths. */
export interface WireInfo {
  readonly root: WireBridgeId;
  readonly rootPathCost: number;
  readonly bridge: WireBridgeId;
  /** The sixteen bits of the port identifier. */
  readonly port: number;
  readonly messageAge: number;
  readonly maxAge: number;
  readonly hello: number;
  readonly forwardDelay: number;
  readonly tc: boolean;
}

export type WireBpdu =
  | { readonly kind: 'tcn' }
  | ({ readonly kind: 'config'; readonly tcAck: boolean } & WireInfo)
  | ({ readonly kind: 'rst'; readonly role: WireRole; readonly proposal: boolean; readonly learning: boolean; readonly forwarding: boolean; readonly agreement: boolean } & WireInfo);

/** Port role encodings 1 to 3 (clause 14, bits 3 and 4 of the flags); 0 is the master's in MSTP. */
export const WIRE_ROLES = ['master', 'alternate', 'root', 'designated'] as const;
export type WireRole = (typeof WIRE_ROLES)[number];

const TYPES = { config: 0x00, rst: 0x02, tcn: 0x80 } as const;
const FLAG = { tc: 1, proposal: 2, learning: 16, forwarding: 32, agreement: 64, tcAck: 128 } as const;

/** 35, 36 or 4 octets. */
export function encodeBpdu(bpdu: WireBpdu): Uint8Array {
  const out = new Writer().u16(0).u8(bpdu.kind === 'rst' ? 2 : 0).u8(TYPES[bpdu.kind]);
  if (bpdu.kind === 'tcn') return out.done();
  const common = bpdu.tc ? FLAG.tc : 0;
  const flags =
    bpdu.kind === 'config'
      ? common | (bpdu.tcAck ? FLAG.tcAck : 0)
      : common | (bpdu.proposal ? FLAG.proposal : 0) | (WIRE_ROLES.indexOf(bpdu.role) << 2) | (bpdu.learning ? FLAG.learning : 0) | (bpdu.forwarding ? FLAG.forwarding : 0) | (bpdu.agreement ? FLAG.agreement : 0);
  out.u8(flags).u16(bpdu.root.priority).mac(bpdu.root.mac).u32(bpdu.rootPathCost).u16(bpdu.bridge.priority).mac(bpdu.bridge.mac).u16(bpdu.port);
  for (const seconds of [bpdu.messageAge, bpdu.maxAge, bpdu.hello, bpdu.forwardDelay]) out.u16(Math.round(seconds * 256));
  if (bpdu.kind === 'rst') out.u8(0); // version 1 length
  return out.done();
}

/** Reads a BPDU; the error says what is wrong with it (14.4: longer ones are read as far as they are known). */
export function decodeBpdu(octets: Uint8Array): Result<WireBpdu, string> {
  const from = new Reader(octets);
  const protocol = from.u16();
  if (protocol !== 0) return fail(`protocol identifier ${protocol}, not 0`);
  const version = from.u8();
  const type = from.u8();
  if (type === TYPES.tcn) return from.end({ kind: 'tcn' }, 'a topology change notification');
  if (type !== TYPES.config && !(type === TYPES.rst && version >= 2)) return fail(`BPDU type ${type} of version ${version} is not known`);
  const flags = from.u8();
  const has = (flag: number): boolean => (flags & flag) !== 0;
  const root = { priority: from.u16(), mac: from.mac() };
  const rootPathCost = from.u32();
  const bridge = { priority: from.u16(), mac: from.mac() };
  const port = from.u16();
  const [messageAge, maxAge, hello, forwardDelay] = [from.u16(), from.u16(), from.u16(), from.u16()].map((time) => time / 256) as [number, number, number, number];
  const info = { root, rootPathCost, bridge, port, messageAge, maxAge, hello, forwardDelay, tc: has(FLAG.tc) };
  if (type === TYPES.config) return from.end({ kind: 'config', ...info, tcAck: has(FLAG.tcAck) }, 'a configuration BPDU');
  from.u8();
  const role = WIRE_ROLES[(flags >> 2) & 3]!;
  return from.end({ kind: 'rst', ...info, role, proposal: has(FLAG.proposal), learning: has(FLAG.learning), forwarding: has(FLAG.forwarding), agreement: has(FLAG.agreement) }, 'an RST BPDU');
}
