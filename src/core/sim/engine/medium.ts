/** The cables between ports: what is sent arrives after its delay, is let through by switches that have no part in its tree, or gets lost. */
import type { TreeId } from '../../model/ids';
import type { Bpdu } from '../../modes/bpdu';
import type { Micros } from '../../modes/entity';
import type { Lacpdu } from '../../modes/lacp/state';
import type { Vector } from '../../modes/vector';
import type { Network } from '../../topology/network';
import { ownCheckedPorts } from '../../topology/ownCheck';
import { wrongVlans } from '../../topology/vlanCheck';
import type { Aggregation } from './aggregation';
import { delayOf } from './delays';
import { Muted } from './muted';
import { isEndOutside, leadsOutside, type Outside } from './outside';
import { letsBpduThrough, letsThrough, type Spoken } from './places';
import type { Event, Running, SteadyHello } from './running';
import type { Hearer } from './steadyHellos';
import type { Watch } from './watch';

/** What the cables are plugged into. */
export interface Plugged {
  readonly network: Network;
  readonly spoken: Spoken;
  readonly trees: readonly TreeId[];
  readonly running: readonly (readonly (Running | null)[])[];
  readonly aggregation: Aggregation;
  readonly now: Micros;
  /** Whether a port forwards in the tree that decides for a VLAN. */
  readonly forwardsIn: (vid: number, port: number) => boolean;
  readonly schedule: (t: Micros, event: Event) => void;
}

const NOBODY: readonly number[] = [];

export class Medium {
  private readonly mute = new Muted();
  /** Of these BPDUs alone are lost. */
  private readonly silent = new Muted();
  private readonly to: Plugged;
  private readonly watch: Watch;
  private readonly outside: Outside | undefined;

  constructor(to: Plugged, watch: Watch, outside?: Outside) {
    this.to = to;
    this.watch = watch;
    this.outside = outside;
  }

  /** What a port sends gets lost, or arrives again: all of it, or its BPDUs alone. */
  setMute(port: number, on: boolean, bpdus: boolean): void {
    (bpdus ? this.silent : this.mute).set(port, on);
  }

  /** Whether a BPDU that a bridge port sends gets there. */
  private gets(port: number): boolean {
    return this.carries(port) && !this.silent.has(this.to.network.transmitPort[port]!);
  }

  /** Whether what a bridge port sends reaches the other end. */
  carries(port: number, as = this.to.network): boolean {
    return this.mute.carries(as, port);
  }

  /** Whether what goes out of an aggregation port comes out of the cable. */
  arrives(aggregationPort: number): boolean {
    return this.mute.arrives(this.to.network, aggregationPort);
  }

  /** Puts an LACPDU on the cable of a member. */
  negotiate(member: number, lacpdu: Lacpdu): void {
    const { network, aggregation, now, schedule } = this.to;
    const { members, ends } = aggregation.bundles;
    const { far, at, end } = members[member]!;
    const aggregationPort = network.portIndexOf(at.switch, at.port);
    this.watch.negotiated?.(now, member, lacpdu);
    if (far >= 0 && isEndOutside(network, this.outside, ends[members[far]!.end]!))
      return this.outside.negotiate(aggregationPort, lacpdu);
    if (far < 0 || (ends[end]!.owner.kind === 'switch' && this.mute.has(aggregationPort))) return;
    schedule(now + delayOf(network, network.cable[aggregationPort]!), {
      kind: 'lacpdu',
      member: far,
      lacpdu,
      from: member,
    });
  }

  /**
   * Puts a BPDU on the cable of a port; `through` are the switches that have flooded it already: complements of those that did
   * so where they forward.
   */
  send(tree: number, port: number, bpdu: Bpdu, origin: number, through: readonly number[] = NOBODY): void {
    const { network, now, schedule } = this.to;
    const to = network.far[port]!;
    this.watch.sent?.(now, tree, port, bpdu, origin, to < 0 ? null : this.heldBy(tree, to), 1, 0);
    const by = network.transmitPort[port]!;
    if (leadsOutside(network, this.outside, by))
      return this.gets(port) ? this.outside.transmit(by, bpdu, origin) : undefined;
    if (to < 0 || !this.gets(port)) return;
    schedule(now + delayOf(network, network.link[port]!), { kind: 'arrive', tree, port: to, bpdu, origin, through });
  }

  /** A hello that was not run is on its way. */
  deliver(at: Micros, { from, to, at: local, bpdu }: SteadyHello): void {
    const [tree, port] = [from.trees[0]!, to!.ports[local]!];
    this.to.schedule(at, { kind: 'arrive', tree, port, bpdu, origin: from.switch, through: NOBODY });
  }

  /** A switch without an entity for a BPDU sends it on, where it lets it through. */
  flood(tree: number, port: number, bpdu: Bpdu, origin: number, through: readonly number[]): void {
    const { network, trees, forwardsIn } = this.to;
    const { owner, firstPort, live } = network;
    const s = owner[port]!;
    const kind = letsThrough(network, trees[tree]!, port);
    const floods = (p: number): boolean =>
      letsThrough(network, trees[tree]!, p) === kind && letsBpduThrough(network, trees[tree]!, p, forwardsIn);
    // A switch may pass it on among some ports, and flood it among others.
    const here = kind === 'always' ? s : ~s;
    if (!floods(port) || through.includes(here)) return;
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
      if (p !== port && live[p] && floods(p)) this.send(tree, p, bpdu, origin, [...through, here]);
  }

  /** Who hears what a port of an entity sends: null for nobody, undefined where it is let through to others. */
  hearer({ trees: [tree] }: Running, port: number): Hearer | null | undefined {
    const { network, trees, running, spoken } = this.to;
    const { far, owner, link } = network;
    const to = far[port]!;
    if (to < 0 || !this.gets(port)) return null;
    const isOwn = owner[to] === owner[port] && ownCheckedPorts(network)?.[to] === 1;
    if (isOwn || wrongVlans(network).has(to)) return undefined; // each is looked at
    if (!network.ports[to]!.bpduRx && letsThrough(network, trees[tree!]!, to) === 'never') return null;
    const [there, local] = [running[tree!]![owner[to]!], spoken.places[tree!]![to]!];
    if (there && local >= 0) return { running: there, local, delay: delayOf(network, link[port]!) };
    return letsThrough(network, trees[tree!]!, to) === 'never' ? null : undefined;
  }

  /** The port priority vector of a port, where a bridge's entity has one. */
  private heldBy(tree: number, port: number): Vector | null {
    const { network, running, spoken } = this.to;
    const there = running[tree]![network.owner[port]!];
    const local = spoken.places[tree]![port]!;
    return there && local >= 0 ? there.entity.held(local) : null;
  }
}
