/** What brought a change about, in words. */
import type { Bpdu } from '../../modes/bpdu';
import type { Network } from '../../topology/network';
import { label } from '../../tree/explain/phrases';
import { bridgeIdText } from '../../topology/bridgeId';
import { costText } from '../../tree/explain/vector';
import type { BridgeKeys } from '../engine/bridgeKeys';
import type { Cause } from '../trace/recording';

/** `ridge-b port 1 heard an RST BPDU: root 4096.02:… at 2 000 through 32768.02:…, designated, proposal`. */
export function causeText(network: Network, keys: BridgeKeys, cause: Cause): string {
  switch (cause.kind) {
    case 'bpdu':
      return `${label(network, cause.port)} heard ${bpduText(keys, cause.bpdu)}`;
    case 'guard':
      return `BPDU guard shut ${label(network, cause.port)}, which heard ${bpduText(keys, cause.bpdu)}`;
    case 'probe':
      return `a test frame of its own switch came back to ${label(network, cause.port)}`;
    case 'timer':
      return 'a timer ran out';
    case 'signal':
      return 'signal came or went';
    case 'setting':
      return 'a setting was changed';
  }
}

const KINDS = {
  config: 'a configuration BPDU',
  tcn: 'a topology change notification',
  rst: 'an RST BPDU',
  mst: 'an MST BPDU',
} as const;

/** A BPDU with what it says: its root, what it costs to get there, who sends it, its flags. */
export function bpduText(keys: BridgeKeys, bpdu: Bpdu): string {
  if (bpdu.kind === 'tcn') return KINDS.tcn;
  const { vector } = bpdu;
  const flags =
    bpdu.kind === 'config'
      ? [bpdu.tc && 'topology change', bpdu.tcAck && 'acknowledgement']
      : [
          bpdu.role,
          bpdu.proposal && 'proposal',
          bpdu.agreement && 'agreement',
          bpdu.learning && 'learning',
          bpdu.forwarding && 'forwarding',
          bpdu.tc && 'topology change',
        ];
  const said = flags.filter(Boolean).join(', ');
  return `${KINDS[bpdu.kind]}: root ${bridgeIdText(keys.idOf(vector.root))} at ${costText(vector.externalCost)}, from ${bridgeIdText(keys.idOf(vector.bridge))} port ${vector.port >> 8}.${vector.port & 255}${said ? `; ${said}` : ''}`;
}
