/** MST configuration identifiers (IEEE 802.1Q-2018 13.8): two bridges are in one region where these are equal. */
import { hmac } from '@noble/hashes/hmac';
import { md5 } from '@noble/hashes/legacy';

export interface MstConfigurationId {
  /** At most 32 octets. */
  readonly name: string;
  readonly revision: number;
  /** Sixteen octets in hexadecimal: what the VLAN map comes to. */
  readonly digest: string;
}

/** The key of the digest (13.8, table 13-1). */
const KEY = Uint8Array.from([
  0x13, 0xac, 0x06, 0xa6, 0x2e, 0x47, 0xfd, 0x51, 0xf9, 0x5d, 0x2b, 0xa2, 0x43, 0xcd, 0x03, 0x46,
]);

/** HMAC-MD5 of the MSTIDs of VIDs 0 to 4095, two octets each; `mstidOf` gives that of a VLAN from 1 to 4094. */
export function configurationDigest(mstidOf: (vid: number) => number): string {
  const table = new Uint8Array(4096 * 2);
  for (let vid = 1; vid < 4095; vid += 1) {
    const mstid = mstidOf(vid);
    table[2 * vid] = mstid >> 8;
    table[2 * vid + 1] = mstid & 255;
  }
  return Array.from(hmac(md5, KEY, table), (octet) => octet.toString(16).padStart(2, '0')).join('');
}

export const sameConfiguration = (a: MstConfigurationId, b: MstConfigurationId): boolean =>
  a === b || (a.name === b.name && a.revision === b.revision && a.digest === b.digest);
