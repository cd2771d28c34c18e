/** Frames as they go over the cables, in octets: what a packet analyser would see. */
import { isPerVlan } from '../../model/document';
import { CIST, CST, treeVlan, vlanTree, type TreeId } from '../../model/ids';
import type { Network } from '../../topology/network';
import { encodeBpdu } from '../../wire/bpdu';
import { negotiationOf } from '../../topology/lag/ends';
import { BRIDGE_GROUP, PER_VLAN_GROUP, encodeFrame } from '../../wire/ethernet';
import { encodeLacpFrame } from '../../wire/lacpdu';
import type { Capture, CapturedFrame } from '../../wire/pcapng';
import { bridgeKeys } from '../engine/bridgeKeys';
import { wireLacpdu, wireOf } from '../engine/onWire';
import { portAddress } from '../../topology/bridgeId';
import type { SentLog, SentLacpdu } from '../trace/sentLog';

/** What a run sent. */
export interface SentFrames {
  readonly sent: SentLog;
  readonly negotiation: readonly SentLacpdu[];
}

/**
 * The frames of a run in octets, in the order of time, an interface for each link; `wanted` says of which ports. Messages of
 * the older negotiation are left out: no open standard has their octets.
 */
export function captureOf(
  network: Network,
  trees: readonly TreeId[],
  { sent: log, negotiation }: SentFrames,
  wanted: (port: number) => boolean = () => true,
): Capture {
  const keys = bridgeKeys(network);
  const frames: CapturedFrame[] = [];
  const interfaces: string[] = [];
  const interfaceOf = new Map<string, number>();
  const interfaceFor = (port: number): number => {
    const name = interfaceName(network, port);
    const known = interfaceOf.get(name) ?? interfaces.length;
    if (known === interfaces.length) interfaces.push(name);
    interfaceOf.set(name, known);
    return known;
  };
  for (let i = 0; i < log.count; i += 1) {
    if (!wanted(log.portOf(i))) continue;
    const { t, tree, port, bpdu, origin } = log.at(i);
    const id = trees[tree]!;
    const sender = network.switches[origin]!;
    const octets = encodeBpdu(wireOf(keys, bpdu));
    const at = interfaceFor(port);
    // A switch without spanning tree floods what another's port has sent: a notification does not say which.
    const by = network.transmitPort[port]!; // none where a bundle has come to nothing since
    const own = network.owner[port] === origin ? network.ports[by < 0 ? port : by]!.number : null;
    const number = own ?? (bpdu.kind === 'tcn' ? 0 : bpdu.vector.port & 0xfff);
    const from = number === 0 ? sender.mac : portAddress(sender.mac, number);
    const put = (to: string, vlan: number | null): number =>
      frames.push({ t, at, octets: encodeFrame({ to, from, vlan, bpdu: octets }) });
    if (id === CST || id === CIST || id === vlanTree(1)) put(BRIDGE_GROUP, null);
    const vid = treeVlan(id) ?? 1;
    if (id === CST || (vid === 1 && !isPerVlan(sender))) continue;
    const { vlans } = network.ports[port]!;
    put(PER_VLAN_GROUP, vlans.mode === 'trunk' && vlans.native !== vid ? vid : null);
  }
  const { ends, members } = network.bundles;
  /** A host's card speaks by the address of its host. */
  const sourceOf = (member: number): string => {
    const { at, end } = members[member]!;
    const { owner, mac } = ends[end]!;
    return owner.kind === 'switch'
      ? portAddress(mac, network.ports[network.portIndexOf(at.switch, at.port)]!.number)
      : mac;
  };
  for (const { t, member, lacpdu } of negotiation) {
    const { at, end } = members[member]!;
    const port = network.portIndexOf(at.switch, at.port);
    if (negotiationOf(ends[end]!.mode) === 'lacp' && wanted(port))
      frames.push({ t, at: interfaceFor(port), octets: encodeLacpFrame(sourceOf(member), wireLacpdu(lacpdu)) });
  }
  return { interfaces, frames: negotiation.length > 0 ? frames.sort((a, b) => a.t - b.t) : frames };
}

/** A link by its ends; a port that leads to a host, or nowhere, by itself. */
function interfaceName(
  { design, owner, switches, ports, cable: inSocket, transmitPort }: Network,
  port: number,
): string {
  const cable = design.links[inSocket[transmitPort[port]!] ?? -1];
  return cable
    ? `${cable.a.switch} ${cable.a.port} = ${cable.b.switch} ${cable.b.port}`
    : `${switches[owner[port]!]!.id} ${ports[port]!.id}`;
}
