/** Switches of a lab that stay in our simulator, on real cables: frames go in and out as octets, and time is what the clock says. */
import type { BridgePortId, SwitchId } from '../../model/ids';
import type { Design, LinkEnd } from '../../model/document';
import type { Bpdu } from '../../modes/bpdu';
import type { Micros, RunState } from '../../modes/entity';
import type { Lacpdu } from '../../modes/lacp/state';
import { lacpduOf, wireLacpdu, wireOf, bpduOf } from '../../sim/engine/onWire';
import { Simulation } from '../../sim/engine/simulation';
import { bridgeId, portAddress } from '../../topology/bridgeId';
import { compileNetwork, type Network } from '../../topology/network';
import { treesOf } from '../../topology/trees';
import { decodeBpdu, encodeBpdu } from '../../wire/bpdu';
import { BRIDGE_GROUP, decodeFrame, encodeFrame } from '../../wire/ethernet';
import { decodeLacpFrame, encodeLacpFrame, SLOW_GROUP } from '../../wire/lacpdu';
import { NEAREST_BRIDGE } from '../../wire/lldpdu';
import { OctetReader } from '../../wire/octets';
import type { BridgeReading, BundleReading, PortReading, ReadState, SwitchReading } from '../readings/reading';
import { outsideOf } from '../settings/oneTree';
import { settingsOf, type SwitchSet } from '../settings/settings';
import { Neighbours } from './neighbours';

/** Puts a frame without its check sequence on the cable of a port. */
export type Transmit = (end: LinkEnd, octets: Uint8Array) => void;

export class JoinedSwitches {
  /** Frames that were not understood, or told of bridges that the design does not have: sentences, each once. */
  readonly notes = new Set<string>();
  private readonly simulation: Simulation;
  private readonly joined: ReadonlySet<SwitchId>;
  private readonly neighbours: Neighbours;
  private design: Design;

  /** `design` is one of a lab's: of one tree, or none. */
  constructor(design: Design, joined: ReadonlySet<SwitchId>, transmit: Transmit, seed = 1) {
    const network = compileNetwork(design);
    const outside = new Set([...network.switches.keys()].filter((s) => !joined.has(network.switches[s]!.id)));
    this.design = design;
    this.joined = joined;
    this.simulation = new Simulation(
      network,
      treesOf(design),
      seed,
      {},
      {
        outside: {
          switches: outside,
          transmit: (port, bpdu, origin) => this.sendBpdu(port, bpdu, origin, transmit),
          negotiate: (port, lacpdu) => this.sendLacpdu(port, lacpdu, transmit),
        },
      },
    );
    this.neighbours = new Neighbours((end, octets) => this.send(end, octets, transmit));
    this.neighbours.follow(this.simulation.network, joined, 0);
  }

  /** Switches on what has power. */
  boot(): void {
    this.simulation.boot();
  }

  /** When something is due next, microseconds since the boot. */
  get next(): Micros {
    return Math.min(this.simulation.next, this.neighbours.next);
  }

  /** Goes on to a moment. */
  runTo(t: Micros): void {
    this.simulation.runTo(t);
    this.neighbours.runTo(t);
  }

  /** Goes over to another state of the design, with the same switches, ports and bundles. */
  follow(design: Design): void {
    this.design = design;
    this.simulation.follow(design);
    this.neighbours.follow(this.simulation.network, this.joined, this.simulation.now);
  }

  /** A frame comes in at a port, now. */
  hear({ switch: sw, port }: LinkEnd, octets: Uint8Array): void {
    const { simulation } = this;
    const { network } = simulation;
    const p = network.portIndexOf(sw, port);
    if (!network.macOperational[p]) return;
    switch (new OctetReader(octets).mac()) {
      case BRIDGE_GROUP:
        return this.hearBpdu(p, octets);
      case SLOW_GROUP:
        return this.hearLacpdu({ switch: sw, port }, octets);
      case NEAREST_BRIDGE: {
        const wrong = this.neighbours.hear({ switch: sw, port }, octets, simulation.now);
        if (wrong !== null) this.note({ switch: sw, port }, wrong);
      }
    }
  }

  /** What each of them says of itself. */
  readings(): Map<SwitchId, SwitchReading> {
    const found = new Map<SwitchId, SwitchReading>();
    for (const set of settingsOf(this.design)) if (this.joined.has(set.id)) found.set(set.id, this.read(set));
    return found;
  }

  private hearBpdu(p: number, octets: Uint8Array): void {
    const { simulation } = this;
    const { network } = simulation;
    const end = endAt(network, p);
    const frame = decodeFrame(octets);
    if (!frame.ok) return; // of another protocol
    const said = decodeBpdu(frame.value.bpdu);
    if (!said.ok) return this.note(end, said.error);
    const bpdu = bpduOf(simulation.keys, said.value);
    if (!bpdu) return this.note(end, 'a BPDU that tells of a bridge which the design does not have');
    const port = network.serves[p]!;
    const far = network.plug[p]!;
    if (port < 0 || far < 0 || simulation.trees.length === 0) return;
    const origin = network.owner[far]!;
    simulation.schedule(simulation.now, { kind: 'arrive', tree: 0, port, bpdu, origin, through: [] });
  }

  private hearLacpdu(end: LinkEnd, octets: Uint8Array): void {
    const { simulation } = this;
    const { members, memberAt } = simulation.aggregation.bundles;
    const frame = decodeLacpFrame(octets);
    if (!frame.ok) return this.note(end, frame.error);
    const member = memberAt(end.switch, end.port);
    const far = members[member]?.far ?? -1;
    if (far < 0) return;
    const { value } = frame;
    simulation.schedule(simulation.now, { kind: 'lacpdu', member, lacpdu: lacpduOf(value), from: far });
  }

  /** By a cable between two of ours a frame is there at once. */
  private send(end: LinkEnd, octets: Uint8Array, transmit: Transmit): void {
    const { network } = this.simulation;
    const far = network.plug[network.portIndexOf(end.switch, end.port)]!;
    const there = far < 0 ? null : endAt(network, far);
    if (there && this.joined.has(there.switch)) this.hear(there, octets);
    else transmit(end, octets);
  }

  private note({ switch: sw, port }: LinkEnd, what: string): void {
    this.notes.add(`${sw} port ${port}: ${what}`);
  }

  private sendBpdu(p: number, bpdu: Bpdu, origin: number, transmit: Transmit): void {
    const { network, keys } = this.simulation;
    const { mac } = network.switches[origin]!;
    const own = network.owner[p] === origin;
    const frame = {
      to: BRIDGE_GROUP,
      from: own ? portAddress(mac, network.ports[p]!.number) : mac,
      vlan: null,
      bpdu: encodeBpdu(wireOf(keys, bpdu)),
    };
    transmit(endAt(network, p), encodeFrame(frame));
  }

  private sendLacpdu(p: number, lacpdu: Lacpdu, transmit: Transmit): void {
    const { network } = this.simulation;
    const { mac } = network.switches[network.owner[p]!]!;
    transmit(endAt(network, p), encodeLacpFrame(portAddress(mac, network.ports[p]!.number), wireLacpdu(lacpdu)));
  }

  private read(set: SwitchSet): SwitchReading {
    const { network } = this.simulation;
    return {
      bridge: this.readBridge(set),
      ports: outsideOf(set).map((port) =>
        this.readPort(port.interface, network.portIndexOf(set.id, port.id as BridgePortId)),
      ),
      bundles: set.bundles.map((bundle) => this.readBundle(bundle.interface, set, bundle.id)),
      neighbours: set.ports.flatMap((port) => {
        const there = this.neighbours.at({ switch: set.id, port: port.id } as LinkEnd, this.simulation.now);
        return there ? [{ interface: port.interface, system: there.systemName, port: there.port }] : [];
      }),
    };
  }

  private readBridge(set: SwitchSet): BridgeReading | null {
    const { simulation } = this;
    const { network, keys } = simulation;
    const s = network.switchIndex.get(set.id)!;
    const there = simulation.trees.length > 0 ? simulation.entity(0, s) : null;
    if (!there) return null;
    const { root, externalCost } = there.entity.rootVector(there.own);
    const rootPort = simulation.rootPort(0, s) ?? -1;
    const named = outsideOf(set).find((port) => network.portIndexOf(set.id, port.id as BridgePortId) === rootPort);
    return {
      id: bridgeId(network.switches[s]!, simulation.trees[0]!),
      root: keys.idOf(root),
      rootPathCost: externalCost,
      rootPort: named?.interface ?? null,
    };
  }

  private readPort(name: string, p: number): PortReading {
    const { simulation } = this;
    const { network } = simulation;
    const unknown = { interface: name, priority: null, vlans: null, untagged: null };
    if (simulation.trees.length === 0 || !simulation.inTree(0, p))
      return { ...unknown, state: network.live[p] ? 'forwarding' : 'disabled', role: null, cost: null };
    const s = network.owner[p]!;
    const [state, role] = [simulation.state(0, p), simulation.role(0, p)];
    const local = simulation.placeOf(0, p);
    return {
      ...unknown,
      state: STATES[state],
      role: role === 'master' ? 'root' : role,
      cost: simulation.costs(0, s)[local] ?? null,
    };
  }

  private readBundle(name: string, set: SwitchSet, id: string): BundleReading {
    const { bundles } = this.simulation.aggregation;
    const end = bundles.ends.find(({ owner }) => owner.kind === 'switch' && owner.bundle === id)!;
    const interfaceOf = (m: number): string =>
      set.ports.find((port) => port.id === bundles.members[m]!.at.port)!.interface;
    const active = end.members.filter((m) => this.simulation.aggregation.memberNow(m).state === 'active');
    return { interface: name, members: end.members.map(interfaceOf).sort(), active: active.map(interfaceOf).sort() };
  }
}

const STATES: Readonly<Record<RunState, ReadState>> = {
  disabled: 'disabled',
  blocking: 'discarding',
  discarding: 'discarding',
  listening: 'moving',
  learning: 'moving',
  forwarding: 'forwarding',
};

const endAt = ({ switches, owner, ports }: Network, p: number): LinkEnd =>
  ({ switch: switches[owner[p]!]!.id, port: ports[p]!.id }) as LinkEnd;
