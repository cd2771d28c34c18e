/** Frames as they go over the cables, in octets: what a packet analyser would see. */
import { CIST, CST, treeVlan, vlanTree } from '../design/ids';
import type { Bpdu, MstBpdu, MstiMessage } from '../protocol/bpdu';
import type { Micros } from '../protocol/entity';
import { isPerVlan } from '../tree/bridgeId';
import { encodeBpdu, type WireBpdu, type WireFlags, type WireInfo, type WireMst } from '../wire/bpdu';
import { BRIDGE_GROUP, PER_VLAN_GROUP, encodeFrame } from '../wire/ethernet';
import type { Capture, CapturedFrame } from '../wire/pcapng';
import type { Simulation } from './simulation';

/** Most frames that are kept; later ones are only counted. */
export const MOST_FRAMES = 1_000_000;

export class CaptureRecorder {
  private readonly frames: CapturedFrame[] = [];
  private readonly interfaces: string[] = [];
  private readonly interfaceOf = new Map<string, number>();

  /** How many frames there was no room for. */
  left = 0;

  constructor(private readonly sim: Simulation) {}

  /** A BPDU that a port sends; `origin` is the switch that it is of. */
  take(t: Micros, tree: number, port: number, bpdu: Bpdu, origin: number): void {
    const { network, trees } = this.sim;
    const id = trees[tree]!;
    const { mac, dialect } = network.switches[origin]!;
    const octets = encodeBpdu(this.wire(bpdu));
    const at = this.interfaceFor(port);
    const put = (to: string, vlan: number | null): void => {
      if (this.frames.length < MOST_FRAMES) this.frames.push({ t, at, octets: encodeFrame({ to, from: mac, vlan, bpdu: octets }) });
      else this.left += 1;
    };
    if (id === CST || id === CIST || id === vlanTree(1)) put(BRIDGE_GROUP, null);
    if (id === CST || !isPerVlan(dialect)) return;
    const vid = treeVlan(id) ?? 1;
    const { vlans } = network.ports[port]!;
    put(PER_VLAN_GROUP, vlans.mode === 'trunk' && vlans.native !== vid ? vid : null);
  }

  done(): Capture {
    return { interfaces: this.interfaces, frames: this.frames };
  }

  /** The BPDU with identifiers in place of the numbers that stand for them. */
  wire(bpdu: Bpdu): WireBpdu {
    if (bpdu.kind === 'tcn') return { kind: 'tcn' };
    const { vector, times, tc } = bpdu;
    const { keys } = this.sim;
    const info: WireInfo = {
      root: keys.idOf(vector.root), rootPathCost: vector.externalCost, bridge: keys.idOf(vector.bridge), port: vector.port,
      messageAge: times.messageAge, maxAge: times.maxAge, hello: times.hello, forwardDelay: times.forwardDelay, tc,
    };
    if (bpdu.kind === 'config') return { kind: 'config', ...info, tcAck: bpdu.tcAck };
    if (bpdu.kind === 'rst') return { kind: 'rst', ...info, ...flags(bpdu) };
    return { kind: 'mst', ...info, ...flags(bpdu), bridge: keys.idOf(vector.regionalRoot), mst: this.mst(bpdu) };
  }

  private mst({ configurationId, vector, times, instances }: MstBpdu): WireMst {
    const { keys } = this.sim;
    return {
      configurationId, internalRootPathCost: vector.internalCost, bridge: keys.idOf(vector.bridge), remainingHops: times.remainingHops,
      instances: instances.map((message) => ({
        ...flags(message), tc: message.tc, master: message.master, regionalRoot: keys.idOf(message.vector.regionalRoot), internalRootPathCost: message.vector.internalCost,
        bridgePriority: keys.idOf(message.vector.bridge).priority & 0xf000, portPriority: (message.vector.port >> 8) & 0xf0, remainingHops: message.remainingHops,
      })),
    };
  }

  /** One interface for each link, by its ends; one for a port that leads to a host. */
  private interfaceFor(port: number): number {
    const { design, owner, switches, ports, link } = this.sim.network;
    const cable = design.links[link[port]!];
    const name = cable ? `${cable.a.switch} ${cable.a.port} = ${cable.b.switch} ${cable.b.port}` : `${switches[owner[port]!]!.id} ${ports[port]!.id}`;
    const known = this.interfaceOf.get(name);
    if (known !== undefined) return known;
    this.interfaceOf.set(name, this.interfaces.length);
    this.interfaces.push(name);
    return this.interfaces.length - 1;
  }
}

const flags = ({ role, proposal, learning, forwarding, agreement }: MstBpdu | MstiMessage | Extract<Bpdu, { kind: 'rst' }>): WireFlags => ({ role, proposal, learning, forwarding, agreement });
