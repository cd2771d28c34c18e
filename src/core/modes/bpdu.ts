/** Bridge protocol data units as values (IEEE 802.1Q-2018 clause 14, 802.1D-1998 clause 9); octets are made of them in core/wire. */
import type { MstConfigurationId } from '../wire/mstConfiguration';
import type { Times, Vector } from './vector';

/** Configuration BPDU: version 0, type 0. */
export interface ConfigBpdu {
  readonly kind: 'config';
  readonly vector: Vector;
  readonly times: Times;
  readonly tc: boolean;
  readonly tcAck: boolean;
}

/** Topology change notification: version 0, type 128. */
export interface TcnBpdu {
  readonly kind: 'tcn';
}

/** The role that an RST BPDU conveys: alternate and backup share one code. */
export type RoleCode = 'root' | 'designated' | 'alternate' | 'master';

/** What the flags of RST and MST BPDUs and of MSTI messages say. */
export interface RstFlags {
  readonly role: RoleCode;
  readonly tc: boolean;
  readonly proposal: boolean;
  readonly learning: boolean;
  readonly forwarding: boolean;
  readonly agreement: boolean;
}

/** RST BPDU: version 2, type 2. */
export interface RstBpdu extends RstFlags {
  readonly kind: 'rst';
  readonly vector: Vector;
  readonly times: Times;
}

/** What a BPDU says of one instance (14.4.1, MSTI configuration message): its vector has no root and no external cost. */
export interface MstiMessage extends RstFlags {
  readonly kind: 'msti';
  readonly mstid: number;
  readonly vector: Vector;
  readonly remainingHops: number;
  readonly master: boolean;
}

/** MST BPDU: version 3, type 2. */
export interface MstBpdu extends Omit<RstBpdu, 'kind'> {
  readonly kind: 'mst';
  readonly configurationId: MstConfigurationId;
  readonly instances: readonly MstiMessage[];
}

export type Bpdu = ConfigBpdu | TcnBpdu | RstBpdu | MstBpdu;
