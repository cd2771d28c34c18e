/** Ethernet frames that carry BPDUs: IEEE 802.3 with a length and LLC, tagged or not (IEEE 802.1Q-2018 9.3, 14.1). */
import { fail, ok, type Result } from '../base/result';
import { OctetReader, Writer } from './octets';

/** The bridge group address: no standard bridge forwards it (802.1Q-2018 table 8-1). */
export const BRIDGE_GROUP = '01:80:c2:00:00:00';
/** Where the trees of single VLANs speak: a group address that a standard bridge floods like any other. Locally administered. */
export const PER_VLAN_GROUP = '03:4b:50:00:00:00';

const TAG = 0x8100;
const LLC = [0x42, 0x42, 0x03] as const;
/** Shortest frame without its check sequence, octets. */
const SHORTEST = 60;

export interface BpduFrame {
  readonly to: string;
  readonly from: string;
  /** The VLAN of the tag; null untagged. */
  readonly vlan: number | null;
  readonly bpdu: Uint8Array;
}

/** The frame without its check sequence, padded to the shortest length. A tag carries priority 7, network control. */
export function encodeFrame({ to, from, vlan, bpdu }: BpduFrame): Uint8Array {
  const out = new Writer().mac(to).mac(from);
  if (vlan !== null) out.u16(TAG).u16((7 << 13) | vlan);
  return out
    .u16(LLC.length + bpdu.length)
    .octets(LLC)
    .octets(bpdu)
    .padTo(SHORTEST)
    .done();
}

/** Reads a frame; the error says why there is no BPDU in it. */
export function decodeFrame(octets: Uint8Array): Result<BpduFrame, string> {
  const from = new OctetReader(octets);
  const [to, source] = [from.mac(), from.mac()];
  let length = from.u16();
  let vlan: number | null = null;
  if (length === TAG) {
    vlan = from.u16() & 0xfff;
    length = from.u16();
  }
  if (length > 1500) return fail(`EtherType 0x${length.toString(16)}, not a length`);
  const llc = [from.u8(), from.u8(), from.u8()];
  if (llc.some((octet, i) => octet !== LLC[i])) return fail('no BPDU: another LLC header');
  if (from.left < length - LLC.length) return fail(`the frame ends after ${octets.length} octets`);
  return ok({ to, from: source, vlan, bpdu: from.rest().slice(0, length - LLC.length) });
}
