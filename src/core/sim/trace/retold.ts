/** BPDUs of one tree as another sends them that fares alike. */
import type { Bpdu, ConfigBpdu, RstBpdu } from '../../modes/bpdu';
import { ADDRESSES, vectorOf, type Vector } from '../../modes/vector';

/**
 * A BPDU of one tree as one alike sends it: the VLAN is part of every bridge identifier (802.1Q-2018 14.2.5), `by` is how much
 * higher it is. What says the same remains one object.
 */
export class Retold {
  private readonly known = new WeakMap<Bpdu, Map<number, Bpdu>>();

  bpdu(bpdu: Bpdu, by: number): Bpdu {
    if (by === 0 || bpdu.kind === 'tcn' || bpdu.kind === 'mst') return bpdu;
    const retold = this.known.get(bpdu) ?? new Map<number, Bpdu>();
    this.known.set(bpdu, retold);
    const found = retold.get(by) ?? raised(bpdu, by);
    retold.set(by, found);
    return found;
  }
}

const raised = (bpdu: RstBpdu | ConfigBpdu, by: number): Bpdu => ({ ...bpdu, vector: raisedVector(bpdu.vector, by) });

/** A vector with the identifiers of another VLAN. */
export function raisedVector(
  { root, externalCost, regionalRoot, internalCost, bridge, port }: Vector,
  by: number,
): Vector {
  const more = by * ADDRESSES;
  return vectorOf(root + more, externalCost, regionalRoot + more, internalCost, bridge + more, port);
}
