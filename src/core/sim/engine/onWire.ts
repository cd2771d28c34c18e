/** What the machines say to each other, as it is on the wire, and back. */
import type { Bpdu, MstBpdu, MstiMessage, RstFlags } from '../../modes/bpdu';
import { type Lacpdu, type Participant, type StateBit, STATE_BITS } from '../../modes/lacp/state';
import { timesOf, vectorOf } from '../../modes/vector';
import type { BridgeId } from '../../topology/bridgeId';
import type { WireBpdu, WireFlags, WireInfo, WireMst } from '../../wire/bpdu';
import type { WireLacpdu, WireParticipant } from '../../wire/lacpdu';
import type { BridgeKeys } from './bridgeKeys';

/** The LACPDU with its bits as an octet, activity the lowest (802.1AX-2020 6.4.2.3 m). */
export function wireLacpdu({ actor, partner }: Lacpdu): WireLacpdu {
  const side = ({ state, ...rest }: Participant) => ({
    ...rest,
    state: STATE_BITS.reduce((octet, bit, i) => octet | (state[bit] ? 1 << i : 0), 0),
  });
  return { actor: side(actor), partner: side(partner) };
}

/** The LACPDU of which an octet tells the bits. */
export function lacpduOf({ actor, partner }: WireLacpdu): Lacpdu {
  const side = ({ systemPriority, system, key, portPriority, port, state }: WireParticipant): Participant => {
    const bits = Object.fromEntries(STATE_BITS.map((bit, i) => [bit, (state & (1 << i)) !== 0]));
    return { systemPriority, system, key, portPriority, port, state: bits as Record<StateBit, boolean> };
  };
  return { actor: side(actor), partner: side(partner) };
}

/** The BPDU with identifiers in place of the numbers that stand for them. */
export function wireOf(keys: BridgeKeys, bpdu: Bpdu): WireBpdu {
  if (bpdu.kind === 'tcn') return { kind: 'tcn' };
  const { vector, times, tc } = bpdu;
  const info: WireInfo = {
    root: keys.idOf(vector.root),
    rootPathCost: vector.externalCost,
    bridge: keys.idOf(vector.bridge),
    port: vector.port,
    messageAge: times.messageAge,
    maxAge: times.maxAge,
    hello: times.hello,
    forwardDelay: times.forwardDelay,
    tc,
  };
  if (bpdu.kind === 'config') return { kind: 'config', ...info, tcAck: bpdu.tcAck };
  if (bpdu.kind === 'rst') return { kind: 'rst', ...info, ...flagsOf(bpdu) };
  return { kind: 'mst', ...info, ...flagsOf(bpdu), bridge: keys.idOf(vector.regionalRoot), mst: mstOf(keys, bpdu) };
}

function mstOf(keys: BridgeKeys, { configurationId, vector, times, instances }: MstBpdu): WireMst {
  return {
    configurationId,
    internalRootPathCost: vector.internalCost,
    bridge: keys.idOf(vector.bridge),
    remainingHops: times.remainingHops,
    instances: instances.map((message) => ({
      ...flagsOf(message),
      tc: message.tc,
      master: message.master,
      regionalRoot: keys.idOf(message.vector.regionalRoot),
      internalRootPathCost: message.vector.internalCost,
      bridgePriority: keys.idOf(message.vector.bridge).priority & 0xf000,
      portPriority: (message.vector.port >> 8) & 0xf0,
      remainingHops: message.remainingHops,
    })),
  };
}

const flagsOf = ({ role, proposal, learning, forwarding, agreement }: RstFlags): WireFlags => ({
  role,
  proposal,
  learning,
  forwarding,
  agreement,
});

/** A BPDU of no region tells of no hops, and nobody reads them there. */
const NO_HOPS = 20;

/** A bridge of which no switch here has the address. */
class Unknown extends Error {}

/** The BPDU with numbers in place of identifiers; null where it tells of a bridge of which no switch has the address. */
export function bpduOf(keys: BridgeKeys, said: WireBpdu): Bpdu | null {
  const key = (id: BridgeId): number => {
    const found = keys.of(id);
    if (found === null) throw new Unknown();
    return found;
  };
  try {
    return readBpdu(key, said);
  } catch (error) {
    if (error instanceof Unknown) return null;
    throw error;
  }
}

function readBpdu(key: (id: BridgeId) => number, said: WireBpdu): Bpdu {
  if (said.kind === 'tcn') return { kind: 'tcn' };
  const [root, bridge] = [key(said.root), key(said.bridge)];
  const { rootPathCost, port, messageAge, maxAge, forwardDelay, hello, tc } = said;
  const times = (hops: number) => timesOf(messageAge, maxAge, forwardDelay, hello, hops);
  if (said.kind !== 'mst') {
    const vector = vectorOf(root, rootPathCost, bridge, 0, bridge, port);
    return said.kind === 'config'
      ? { kind: 'config', vector, times: times(NO_HOPS), tc, tcAck: said.tcAck }
      : { kind: 'rst', vector, times: times(NO_HOPS), tc, ...flagsOf(said) };
  }
  const { configurationId, internalRootPathCost, bridge: own, remainingHops, instances } = said.mst;
  return {
    kind: 'mst',
    vector: vectorOf(root, rootPathCost, bridge, internalRootPathCost, key(own), port),
    times: times(remainingHops),
    tc,
    ...flagsOf(said),
    configurationId,
    instances: instances.map((each): MstiMessage => {
      // The MSTID is the system ID extension of the regional root's identifier (14.4.1).
      const mstid = each.regionalRoot.priority & 0xfff;
      const designated = key({ priority: each.bridgePriority | mstid, mac: own.mac });
      const number = (each.portPriority << 8) | (port & 0xfff);
      return {
        kind: 'msti',
        mstid,
        vector: vectorOf(0, 0, key(each.regionalRoot), each.internalRootPathCost, designated, number),
        remainingHops: each.remainingHops,
        master: each.master,
        tc: each.tc,
        ...flagsOf(each),
      };
    }),
  };
}
