/** Bridge protocol data units in octets and back (IEEE 802.1Q-2018 clause 14; configuration and TCN BPDUs as in 802.1D-1998 9.3). */
import { fail, type Result } from '../base/result';
import type { MstConfigurationId } from './mstConfiguration';
import { OctetReader, Writer } from './octets';

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
  | ({ readonly kind: 'rst' } & WireFlags & WireInfo)
  | ({ readonly kind: 'mst'; readonly mst: WireMst } & WireFlags & WireInfo);

export interface WireFlags {
  readonly role: WireRole;
  readonly proposal: boolean;
  readonly learning: boolean;
  readonly forwarding: boolean;
  readonly agreement: boolean;
}

/** What an MST BPDU has beyond an RST BPDU, whose `bridge` is its regional root (14.4). */
export interface WireMst {
  readonly configurationId: MstConfigurationId;
  readonly internalRootPathCost: number;
  readonly bridge: WireBridgeId;
  readonly remainingHops: number;
  readonly instances: readonly WireMsti[];
}

/** An MSTI configuration message: sixteen octets (14.4.1). The MSTID is in the regional root's identifier. */
export interface WireMsti extends WireFlags {
  readonly tc: boolean;
  readonly master: boolean;
  readonly regionalRoot: WireBridgeId;
  readonly internalRootPathCost: number;
  /** The four settable bits in their places, 0 to 61440, and those of the port, 0 to 240. */
  readonly bridgePriority: number;
  readonly portPriority: number;
  readonly remainingHops: number;
}

/** Port role encodings 1 to 3 (clause 14, bits 3 and 4 of the flags); 0 is the master's in MSTP. */
export const WIRE_ROLES = ['master', 'alternate', 'root', 'designated'] as const;
export type WireRole = (typeof WIRE_ROLES)[number];

const TYPES = { config: 0x00, rst: 0x02, mst: 0x02, tcn: 0x80 } as const;
const VERSIONS = { config: 0, tcn: 0, rst: 2, mst: 3 } as const;
const FLAG = { tc: 1, proposal: 2, learning: 16, forwarding: 32, agreement: 64, tcAck: 128, master: 128 } as const;
/** Octets after the version 3 length that are there without an instance, and those of each instance. */
const MST_LENGTH = 64;
const MSTI_LENGTH = 16;
const NAME_LENGTH = 32;

/** 35, 36 or 4 octets; of an MST BPDU 102 and 16 for each instance. */
export function encodeBpdu(bpdu: WireBpdu): Uint8Array {
  const out = new Writer().u16(0).u8(VERSIONS[bpdu.kind]).u8(TYPES[bpdu.kind]);
  if (bpdu.kind === 'tcn') return out.done();
  const flags = (bpdu.tc ? FLAG.tc : 0) | (bpdu.kind === 'config' ? (bpdu.tcAck ? FLAG.tcAck : 0) : flagBits(bpdu));
  out
    .u8(flags)
    .u16(bpdu.root.priority)
    .mac(bpdu.root.mac)
    .u32(bpdu.rootPathCost)
    .u16(bpdu.bridge.priority)
    .mac(bpdu.bridge.mac)
    .u16(bpdu.port);
  for (const seconds of [bpdu.messageAge, bpdu.maxAge, bpdu.hello, bpdu.forwardDelay])
    out.u16(Math.round(seconds * 256));
  if (bpdu.kind !== 'config') out.u8(0); // version 1 length
  if (bpdu.kind === 'mst') encodeMst(out, bpdu.mst);
  return out.done();
}

function encodeMst(
  out: Writer,
  { configurationId: { name, revision, digest }, internalRootPathCost, bridge, remainingHops, instances }: WireMst,
): void {
  out
    .u16(MST_LENGTH + MSTI_LENGTH * instances.length)
    .u8(0)
    .text(name, NAME_LENGTH)
    .u16(revision)
    .hex(digest);
  out.u32(internalRootPathCost).u16(bridge.priority).mac(bridge.mac).u8(remainingHops);
  for (const each of instances) {
    out
      .u8((each.tc ? FLAG.tc : 0) | flagBits(each) | (each.master ? FLAG.master : 0))
      .u16(each.regionalRoot.priority)
      .mac(each.regionalRoot.mac)
      .u32(each.internalRootPathCost);
    out
      .u8(each.bridgePriority >> 8)
      .u8(each.portPriority)
      .u8(each.remainingHops);
  }
}

const flagBits = (said: WireFlags): number =>
  (said.proposal ? FLAG.proposal : 0) |
  (WIRE_ROLES.indexOf(said.role) << 2) |
  (said.learning ? FLAG.learning : 0) |
  (said.forwarding ? FLAG.forwarding : 0) |
  (said.agreement ? FLAG.agreement : 0);

const flagsIn = (bits: number): WireFlags => ({
  role: WIRE_ROLES[(bits >> 2) & 3]!,
  proposal: (bits & FLAG.proposal) !== 0,
  learning: (bits & FLAG.learning) !== 0,
  forwarding: (bits & FLAG.forwarding) !== 0,
  agreement: (bits & FLAG.agreement) !== 0,
});

/** Reads a BPDU; the error says what is wrong with it (14.4: longer ones are read as far as they are known). */
export function decodeBpdu(octets: Uint8Array): Result<WireBpdu, string> {
  const from = new OctetReader(octets);
  const protocol = from.u16();
  if (protocol !== 0) return fail(`protocol identifier ${protocol}, not 0`);
  const version = from.u8();
  const type = from.u8();
  if (type === TYPES.tcn) return from.end({ kind: 'tcn' }, 'a topology change notification');
  if (type !== TYPES.config && !(type === TYPES.rst && version >= 2))
    return fail(`BPDU type ${type} of version ${version} is not known`);
  const flags = from.u8();
  const has = (flag: number): boolean => (flags & flag) !== 0;
  const root = { priority: from.u16(), mac: from.mac() };
  const rootPathCost = from.u32();
  const bridge = { priority: from.u16(), mac: from.mac() };
  const port = from.u16();
  const [messageAge, maxAge, hello, forwardDelay] = [from.u16(), from.u16(), from.u16(), from.u16()].map(
    (time) => time / 256,
  ) as [number, number, number, number];
  const info = { root, rootPathCost, bridge, port, messageAge, maxAge, hello, forwardDelay, tc: has(FLAG.tc) };
  if (type === TYPES.config)
    return from.end({ kind: 'config', ...info, tcAck: has(FLAG.tcAck) }, 'a configuration BPDU');
  from.u8();
  if (version < VERSIONS.mst || from.left < 2 + MST_LENGTH)
    return from.end({ kind: 'rst', ...info, ...flagsIn(flags) }, 'an RST BPDU');
  return from.end({ kind: 'mst', ...info, ...flagsIn(flags), mst: decodeMst(from) }, 'an MST BPDU');
}

function decodeMst(from: OctetReader): WireMst {
  const length = from.u16();
  from.u8(); // format selector
  const configurationId = { name: from.text(NAME_LENGTH), revision: from.u16(), digest: from.hex(16) };
  const internalRootPathCost = from.u32();
  const bridge = { priority: from.u16(), mac: from.mac() };
  const remainingHops = from.u8();
  const instances = Array.from(
    { length: Math.max(0, Math.floor((length - MST_LENGTH) / MSTI_LENGTH)) },
    (): WireMsti => {
      const bits = from.u8();
      const regionalRoot = { priority: from.u16(), mac: from.mac() };
      return {
        tc: (bits & FLAG.tc) !== 0,
        ...flagsIn(bits),
        master: (bits & FLAG.master) !== 0,
        regionalRoot,
        internalRootPathCost: from.u32(),
        bridgePriority: from.u8() << 8,
        portPriority: from.u8(),
        remainingHops: from.u8(),
      };
    },
  );
  return { configurationId, internalRootPathCost, bridge, remainingHops, instances };
}
