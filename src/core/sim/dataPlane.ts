/** Frames between hosts while the trees move: addresses learnt, flooded for, stale, circling; and how long each pair is cut off. */
import type { HostId, LinkId } from '../design/ids';
import { SECOND, type Micros } from '../protocol/entity';
import { circling, type Circling } from './passage';
import type { Simulation } from './simulation';

/** Why frames of a pair do not arrive: no ports lead there; a switch still sends them the old way; they circle. */
export type OutageCause = 'no path' | 'stale address' | 'storm';

/** Frames from one host to another did not arrive. Seconds. */
export interface Outage {
  readonly from: HostId;
  readonly to: HostId;
  readonly vlan: number;
  readonly start: number;
  /** Null where it lasts to the end of the run. */
  readonly end: number | null;
  readonly cause: OutageCause;
}

/** Broadcasts circled in a VLAN. Seconds. */
export interface Storm {
  readonly vlan: number;
  readonly start: number;
  readonly end: number | null;
  /** The links that they circled on. */
  readonly links: readonly LinkId[];
  /** What one broadcast had become after two dozen hops: frames at a time, a million at most. */
  readonly copies: number;
}

/** How often every host speaks to each of its partners: what is learnt anew is learnt within this time. */
export const TALK: Micros = 10_000;
/** Most pairs that are followed; more would be counted, not looked at. */
export const MOST_PAIRS = 5000;

interface Station {
  readonly id: HostId;
  readonly ports: readonly number[];
}

interface Pair {
  readonly from: Station;
  readonly to: Station;
  since: Micros;
  cause: OutageCause | null;
}

/** The hosts of one VLAN and what the switches know of them. */
interface Lan {
  readonly vlan: number;
  readonly stations: readonly Station[];
  readonly pairs: readonly Pair[];
  /** By switch: the port behind which a host was heard last. */
  readonly tables: Map<HostId, number>[];
  /** The loop that frames circle in now. */
  storm: { readonly since: Micros; readonly found: Circling } | null;
}

export class DataPlane {
  readonly outages: Outage[] = [];
  readonly storms: Storm[] = [];
  /** Pairs that are not followed, since there are too many. */
  readonly unfollowed: number;
  private readonly lans: Lan[];
  private talking = false;
  private start: Micros = 0;

  constructor(private readonly sim: Simulation) {
    const { design, switches, portIndexOf } = sim.network;
    const vlans = [...new Set(design.hosts.map((host) => host.vlan))].sort((a, b) => a - b);
    let room = MOST_PAIRS;
    let left = 0;
    this.lans = vlans.map((vlan) => {
      const stations = design.hosts.filter((host) => host.vlan === vlan).map((host): Station => ({ id: host.id, ports: host.attach.map((at) => portIndexOf(at.switch, at.port)) }));
      const all = stations.flatMap((from) => stations.flatMap((to): Pair[] => (from === to ? [] : [{ from, to, since: 0, cause: null }])));
      const pairs = all.slice(0, room);
      room -= pairs.length;
      left += all.length - pairs.length;
      return { vlan, stations, pairs, tables: switches.map(() => new Map()), storm: null };
    });
    this.unfollowed = left;
  }

  /** Begins to count outages at a moment; everything before is forgotten. */
  begin(t: Micros): void {
    this.start = t;
    for (const lan of this.lans) this.talk(lan);
    for (const lan of this.lans) for (const pair of lan.pairs) pair.cause = null;
    this.look(t);
  }

  /** A port forgets the addresses behind it, in the VLANs of a tree. */
  flush(port: number, tree: number): void {
    const s = this.sim.network.owner[port]!;
    for (const lan of this.lans) {
      if (this.sim.treeFor(s, lan.vlan) !== tree) continue;
      const table = lan.tables[s]!;
      for (const [host, at] of table) if (at === port) table.delete(host);
    }
  }

  /** Ports or tables have changed: who is cut off now, and what will be learnt soon. */
  look(t: Micros): void {
    this.noteAll(t);
    if (this.talking || this.lans.every((lan) => lan.pairs.length === 0)) return;
    this.talking = true;
    this.sim.at(t + TALK, () => {
      this.talking = false;
      let learnt = false;
      for (const lan of this.lans) if (this.talk(lan)) learnt = true;
      if (learnt) this.look(this.sim.now);
      else this.noteAll(this.sim.now);
    });
  }

  /** Closes what is open: it lasts to the end. */
  end(): Outage[] {
    for (const lan of this.lans) {
      for (const pair of lan.pairs) if (pair.cause) this.put(pair, lan.vlan, null);
      if (lan.storm) this.putStorm(lan, null);
    }
    return this.outages.sort((a, b) => a.start - b.start || a.vlan - b.vlan || a.from.localeCompare(b.from) || a.to.localeCompare(b.to));
  }

  private noteAll(t: Micros): void {
    for (const lan of this.lans) {
      const storm = this.drowned(lan, t);
      for (const pair of lan.pairs) this.note(pair, lan.vlan, this.fate(lan, pair, storm), t);
    }
  }

  private note(pair: Pair, vlan: number, cause: OutageCause | null, t: Micros): void {
    if (pair.cause === cause) return;
    if (pair.cause && t > pair.since) this.put(pair, vlan, t);
    pair.cause = cause;
    pair.since = t;
  }

  private put({ from, to, since, cause }: Pair, vlan: number, end: Micros | null): void {
    const seconds = (t: Micros): number => (t - this.start) / SECOND;
    this.outages.push({ from: from.id, to: to.id, vlan, start: seconds(since), end: end === null ? null : seconds(end), cause: cause! });
  }

  /** The port through which a host's frames enter: its first card that has a forwarding port. */
  private cardOf(lan: Lan, station: Station): number {
    return station.ports.find((p) => this.sim.passes(lan.vlan, p)) ?? -1;
  }

  /** What becomes of a frame as the tables stand; null where it arrives. */
  private fate(lan: Lan, { from, to }: Pair, storm: ReadonlySet<number>): OutageCause | null {
    const start = this.cardOf(lan, from);
    const goal = this.cardOf(lan, to);
    if (start < 0 || goal < 0) return 'no path';
    if (storm.has(this.sim.network.owner[start]!)) return 'storm';
    let misled = false;
    const exits = (s: number, ingress: number): readonly number[] => {
      const known = lan.tables[s]!.get(to.id);
      misled ||= known !== undefined;
      return known !== undefined && known !== ingress ? [known] : this.exits(lan.vlan, s, ingress);
    };
    for (const { outs } of this.spread(lan.vlan, start, exits)) if (outs.includes(goal)) return null;
    return misled && this.reachable(lan.vlan, start, goal) ? 'stale address' : 'no path';
  }

  /** The switches that circling frames come to: those in the loop, and all that hang together with it. */
  private drowned(lan: Lan, t: Micros): Set<number> {
    const found = circling(this.sim, lan.vlan);
    this.noteStorm(lan, found, t);
    const { design, switchIndex } = this.sim.network;
    const link = found && design.links.find((each) => each.id === found.links[0]);
    return link ? this.joined(lan.vlan, switchIndex.get(link.a.switch)!) : new Set();
  }

  private noteStorm(lan: Lan, found: Circling | null, t: Micros): void {
    const { storm } = lan;
    if ((storm?.found.links.join('\n') ?? null) === (found?.links.join('\n') ?? null)) return;
    if (storm && t > storm.since) this.putStorm(lan, t);
    lan.storm = found && { since: t, found };
  }

  private putStorm({ vlan, storm }: Lan, end: Micros | null): void {
    const { since, found } = storm!;
    this.storms.push({ vlan, start: (since - this.start) / SECOND, end: end === null ? null : (end - this.start) / SECOND, links: found.links, copies: found.copies.at(-1)! });
  }

  /** Where a frame gets to from the port by which it enters, switch by switch, each once: `exits` says where each sends it on. */
  private *spread(vlan: number, start: number, exits: (s: number, ingress: number) => readonly number[]): Generator<{ readonly s: number; readonly ingress: number; readonly outs: readonly number[] }> {
    const { owner } = this.sim.network;
    const seen = new Set<number>();
    const open = [start];
    for (const ingress of open) {
      const s = owner[ingress]!;
      if (seen.has(s)) continue;
      seen.add(s);
      const outs = exits(s, ingress);
      yield { s, ingress, outs };
      for (const out of outs) if (this.sim.passes(vlan, out)) this.next(vlan, out, (far) => open.push(far));
    }
  }

  /** The ports that a frame of a VLAN is flooded to. */
  private exits(vlan: number, s: number, ingress: number): number[] {
    const { firstPort } = this.sim.network;
    const found: number[] = [];
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) if (p !== ingress && this.sim.passes(vlan, p)) found.push(p);
    return found;
  }

  /** The port at the other end of a cable, where frames get there and are let in. */
  private next(vlan: number, out: number, visit: (ingress: number) => void): void {
    const far = this.sim.network.far[out]!;
    if (far >= 0 && this.sim.carries(out) && this.sim.passes(vlan, far)) visit(far);
  }

  private reachable(vlan: number, start: number, goal: number): boolean {
    const { owner } = this.sim.network;
    return this.joined(vlan, owner[start]!).has(owner[goal]!);
  }

  /** The switches that a VLAN's frames get to from one. */
  private joined(vlan: number, from: number): Set<number> {
    const { owner } = this.sim.network;
    const seen = new Set([from]);
    for (const s of seen) for (const out of this.exits(vlan, s, -1)) this.next(vlan, out, (far) => seen.add(owner[far]!));
    return seen;
  }

  /** Every host is heard once, everywhere that its frames come to; true where some table changed. */
  private talk(lan: Lan): boolean {
    let learnt = false;
    for (const station of lan.stations) {
      const start = this.cardOf(lan, station);
      if (start < 0) continue;
      for (const { s, ingress } of this.spread(lan.vlan, start, (at, by) => this.exits(lan.vlan, at, by))) {
        const table = lan.tables[s]!;
        if (table.get(station.id) === ingress) continue;
        table.set(station.id, ingress);
        learnt = true;
      }
    }
    return learnt;
  }
}
