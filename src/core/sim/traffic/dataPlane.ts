/** Frames between hosts while the trees move: addresses learnt, flooded for, stale, forwardingLoops; and how long each pair is cut off. */
import type { HostId, LinkId } from '../../model/ids';
import { DEFAULT_TALK } from '../../model/scenario';
import { SECOND, type Micros } from '../../modes/entity';
import { stormRate } from '../../model/guard';
import type { Network } from '../../topology/network';
import { BROADCAST, type Flow } from '../../topology/lag/hash';
import type { Host } from '../../model/document';
import { forwardingLoops, type Circling, type Flapping } from './loops';
import { wholeOf } from '../../topology/acting';
import { entryPortOf, farOf, reachesHost, socketFor, socketsOf } from './hop';
import { Reach, type HostPair, type OutageCause } from './reach';
import type { Simulation } from '../engine/simulation';

/** Frames from one host to another did not arrive. Seconds. */
export interface Outage extends HostPair {
  readonly start: number;
  /** Null where it lasts to the end of the run. */
  readonly end: number | null;
  readonly cause: OutageCause;
}

/** The order of outages. */
export const byStart = (a: Outage, b: Outage): number =>
  a.start - b.start || a.vlan - b.vlan || a.from.localeCompare(b.from) || a.to.localeCompare(b.to);

/** Broadcasts circled in a VLAN. Seconds. */
export interface Storm {
  readonly vlan: number;
  readonly start: number;
  readonly end: number | null;
  /** The links that they circled on. */
  readonly links: readonly LinkId[];
  /** False where copies come back or come twice, and then end. */
  readonly endless: boolean;
  /** What one broadcast had become after two dozen hops: frames at a time, a million at most; of one that ends, all its frames. */
  readonly copies: number;
  /** Frames a second that storm limits of its ports hold it to; null without one. */
  readonly heldTo: number | null;
  /** Where the addresses of hosts are learnt now at one port, now at another. */
  readonly flapping: readonly Flapping[];
}

/** How often every host speaks to each of its partners where nothing else is said: what is learnt anew is learnt within this time. */
export const TALK: Micros = DEFAULT_TALK * SECOND;
/** How long an address is kept unheard (802.1Q-2018 table 8-6, Ageing Time), unless a topology change has it forgotten sooner. */
export const AGEING: Micros = 300 * SECOND;
/** Most pairs that are followed; more would be counted, not looked at. */
export const MOST_PAIRS = 5000;

interface Station {
  readonly id: HostId;
  readonly host: Host;
}

/** Where a host was heard last, and when; `LIVE` where each of its words is heard there. */
interface Learnt {
  readonly port: number;
  heard: Micros;
}

const LIVE: Micros = Infinity;

interface Pair {
  /** Its place in `reach`. */
  readonly index: number;
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
  /** By switch. */
  readonly tables: Map<HostId, Learnt>[];
  /** The loop that frames circle in now. */
  storm: { readonly since: Micros; readonly found: Circling } | null;
}

export class DataPlane {
  readonly outages: Outage[] = [];
  readonly storms: Storm[] = [];
  /** Pairs that are not followed, since there are too many. */
  readonly unfollowed: number;
  private readonly lans: Lan[];
  private readonly pairs: readonly HostPair[];
  private recorded: Reach;
  private talking = false;
  private start: Micros = 0;
  /** When the next outdated address is forgotten, and when that is looked at. */
  private expiry: Micros = Infinity;
  private expecting: Micros = Infinity;

  private readonly sim: Simulation;
  private readonly talkEvery: Micros;

  /** `talkEvery`: hosts speak so often; `follows`: of which VLANs. */
  constructor(sim: Simulation, talkEvery: Micros = TALK, follows: (vlan: number) => boolean = () => true) {
    this.sim = sim;
    this.talkEvery = talkEvery;

    const { design, switches } = sim.network;
    const vlans = [...new Set(design.hosts.map((host) => host.vlan))].sort((a, b) => a - b);
    let room = MOST_PAIRS;
    let left = 0;
    const lans = vlans.map((vlan): Lan => {
      const stations = design.hosts
        .filter((host) => host.vlan === vlan)
        .map((host): Station => ({ id: host.id, host }));
      const all = stations.flatMap((from) =>
        stations.flatMap((to) => (from === to ? [] : [{ from, to, since: 0, cause: null }])),
      );
      const pairs = all.slice(0, room).map((pair, i): Pair => ({ ...pair, index: MOST_PAIRS - room + i }));
      room -= pairs.length;
      left += all.length - pairs.length;
      const tables = follows(vlan) ? switches.map(() => new Map<HostId, Learnt>()) : [];
      return { vlan, stations, pairs, tables, storm: null };
    });
    this.unfollowed = left;
    this.lans = lans.filter(({ vlan }) => follows(vlan));
    this.pairs = lans.flatMap(({ vlan, pairs }) => pairs.map(({ from, to }) => ({ from: from.id, to: to.id, vlan })));
    this.recorded = new Reach(
      this.pairs,
      this.pairs.map(() => null),
    );
  }

  /** Who reaches whom at any instant since the beginning. */
  get reach(): Reach {
    return this.recorded;
  }

  /** Begins to count outages at a moment; everything before is forgotten. */
  begin(t: Micros): void {
    this.start = t;
    for (const lan of this.lans) this.talk(lan);
    for (const lan of this.lans) for (const pair of lan.pairs) pair.cause = null;
    this.look(t);
    const causes: (OutageCause | null)[] = this.pairs.map(() => null);
    for (const lan of this.lans) for (const { index, cause } of lan.pairs) causes[index] = cause;
    this.recorded = new Reach(this.pairs, causes);
  }

  /** A port forgets the addresses behind it, in the VLANs of a tree. */
  flush(half: number, tree: number): void {
    const port = wholeOf(this.sim.network, half);
    const s = this.sim.network.owner[port]!;
    for (const lan of this.lans) {
      const table = lan.tables[s]!;
      if (table.size === 0 || this.sim.treeFor(port, lan.vlan) !== tree) continue;
      for (const [host, at] of table) if (at.port === port) table.delete(host);
    }
  }

  /** How long a switch keeps addresses is about to change: those that are too old by now are gone for good. */
  forgetAged(s: number): void {
    for (const lan of this.lans)
      for (const [host, known] of lan.tables[s]!)
        if (this.forgets(lan, s, known) <= this.sim.now) lan.tables[s]!.delete(host);
  }

  /** Ports or tables have changed: who is cut off now, and what will be learnt soon. */
  look(t: Micros): void {
    this.noteAll(t);
    if (this.talking || this.lans.every((lan) => lan.pairs.length === 0)) return;
    this.talking = true;
    this.sim.at(this.lastTalk(t) + this.talkEvery, () => {
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
    return this.outages.sort(byStart);
  }

  /** When hosts spoke last, at a moment or before. */
  private lastTalk(t: Micros): Micros {
    return this.start + Math.floor((t - this.start) / this.talkEvery) * this.talkEvery;
  }

  private noteAll(t: Micros): void {
    this.expiry = Infinity;
    for (const lan of this.lans) {
      const storm = this.drowned(lan, t);
      for (const pair of lan.pairs) this.note(pair, lan.vlan, this.fate(lan, pair, storm), t);
    }
    if (this.expiry === Infinity || this.expiry === this.expecting) return;
    const at = (this.expecting = this.expiry);
    this.sim.at(at, () => {
      if (this.expecting === at) this.noteAll(this.sim.now);
    });
  }

  private note(pair: Pair, vlan: number, cause: OutageCause | null, t: Micros): void {
    if (pair.cause === cause) return;
    if (pair.cause && t > pair.since) this.put(pair, vlan, t);
    pair.cause = cause;
    pair.since = t;
    this.recorded.add(t - this.start, pair.index, cause);
  }

  private put({ from, to, since, cause }: Pair, vlan: number, end: Micros | null): void {
    const seconds = (t: Micros): number => (t - this.start) / SECOND;
    this.outages.push({
      from: from.id,
      to: to.id,
      vlan,
      start: seconds(since),
      end: end === null ? null : seconds(end),
      cause: cause!,
    });
  }

  /** What becomes of a frame as the tables stand; null where it arrives. */
  private fate(lan: Lan, { from, to }: Pair, storm: ReadonlySet<number>): OutageCause | null {
    const flow = flowOf(from, to);
    const start = entryPortOf(this.sim, from.host, flow);
    if (start < 0 || entryPortOf(this.sim, to.host, flowOf(to, from)) < 0) return 'no path';
    if (storm.has(this.sim.network.owner[start]!)) return 'storm';
    let forgotten: Micros = Infinity;
    const exits = (s: number, ingress: number): readonly number[] => {
      const known = lan.tables[s]!.get(to.id);
      const until = known ? this.forgets(lan, s, known) : -Infinity;
      if (!known || until <= this.sim.now || known.port === ingress) return this.exits(lan.vlan, s, ingress); // flooded
      forgotten = Math.min(forgotten, until);
      return [known.port];
    };
    for (const { outs } of this.spread(lan.vlan, start, flow, exits))
      if (outs.some((out) => reachesHost(this.sim, to.host, out, flow))) return null;
    if (forgotten === Infinity || !this.reachable(lan.vlan, start, to)) return 'no path';
    this.expiry = Math.min(this.expiry, forgotten);
    return 'outdated address';
  }

  /** When a switch forgets an address, if it is not heard again. */
  private forgets(lan: Lan, s: number, { heard }: Learnt): Micros {
    return (heard === LIVE ? this.lastTalk(this.sim.now) : heard) + (this.sim.fastAgeing(s, lan.vlan) ?? AGEING);
  }

  /** The switches that forwardingLoops frames come to: those in the loop, and all that hang together with it. */
  private drowned(lan: Lan, t: Micros): Set<number> {
    const found = forwardingLoops(this.sim, lan.vlan);
    this.noteStorm(lan, found, t);
    const { design, switchIndex } = this.sim.network;
    const link = found?.endless && design.links.find((each) => each.id === found.links[0]);
    if (!link) return new Set();
    // A storm that is held down drowns only those whose addresses it moves about.
    if (heldTo(this.sim.network, found.links) !== null)
      return new Set(found.flapping.map(({ switch: sw }) => switchIndex.get(sw)!));
    return this.joined(lan.vlan, switchIndex.get(link.a.switch)!);
  }

  private noteStorm(lan: Lan, found: Circling | null, t: Micros): void {
    const { storm } = lan;
    if ((storm?.found.links.join('\n') ?? null) === (found?.links.join('\n') ?? null)) return;
    if (storm && t > storm.since) this.putStorm(lan, t);
    lan.storm = found && { since: t, found };
  }

  private putStorm({ vlan, storm }: Lan, end: Micros | null): void {
    const { since, found } = storm!;
    this.storms.push({
      vlan,
      start: (since - this.start) / SECOND,
      end: end === null ? null : (end - this.start) / SECOND,
      links: found.links,
      endless: found.endless,
      copies: found.copies.at(-1)!,
      heldTo: heldTo(this.sim.network, found.links),
      flapping: found.flapping,
    });
  }

  /** Where a frame gets to from the port by which it enters, each port by which it comes in once: `exits` says where each sends it on. */
  private *spread(
    vlan: number,
    start: number,
    flow: Flow,
    exits: (s: number, ingress: number) => readonly number[],
  ): Generator<{ readonly s: number; readonly ingress: number; readonly outs: readonly number[] }> {
    const { owner } = this.sim.network;
    const seen = new Set<number>();
    const open = [start];
    for (const ingress of open) {
      const s = owner[ingress]!;
      if (seen.has(ingress)) continue;
      seen.add(ingress);
      const outs = exits(s, ingress);
      yield { s, ingress, outs };
      for (const out of outs)
        if (this.sim.passes(vlan, out))
          this.next(vlan, socketFor(this.sim.network, out, flow), (far) => open.push(far));
    }
  }

  /** The ports that a frame of a VLAN is flooded to. */
  private exits(vlan: number, s: number, ingress: number): number[] {
    const { firstPort } = this.sim.network;
    const found: number[] = [];
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1)
      if (p !== ingress && this.sim.passes(vlan, p)) found.push(p);
    return found;
  }

  /** The bridge port at the other end of a cable, where frames get there and are let in. */
  private next(vlan: number, aggregationPort: number, visit: (ingress: number) => void): void {
    const far = farOf(this.sim, aggregationPort);
    if (far >= 0 && this.sim.passes(vlan, far)) visit(far);
  }

  private reachable(vlan: number, start: number, to: Station): boolean {
    const { owner, switchIndex } = this.sim.network;
    const joined = this.joined(vlan, owner[start]!);
    return to.host.attach.some((at) => joined.has(switchIndex.get(at.switch)!));
  }

  /** The switches that a VLAN's frames get to from one. */
  private joined(vlan: number, from: number): Set<number> {
    const { owner, ports } = this.sim.network;
    const seen = new Set([from]);
    for (const s of seen)
      for (const out of this.exits(vlan, s, -1))
        for (const aggregationPort of socketsOf(this.sim.network, out))
          this.next(vlan, aggregationPort, (far) => ports[far]!.stormLimit ?? seen.add(owner[far]!));
    return seen;
  }

  /** Every host is heard once, everywhere that its frames come to; true where some table changed. */
  private talk(lan: Lan): boolean {
    const { now } = this.sim;
    let learnt = false;
    for (const station of lan.stations) {
      const flow: Flow = { from: station.host.mac, to: BROADCAST };
      const start = entryPortOf(this.sim, station.host, flow);
      const heardAt = new Map<number, number>();
      if (start >= 0)
        for (const { s, ingress } of this.spread(lan.vlan, start, flow, (at, by) => this.exits(lan.vlan, at, by)))
          heardAt.set(s, ingress);
      lan.tables.forEach((table, s) => {
        const known = table.get(station.id);
        const port = heardAt.get(s);
        if (port === undefined) {
          if (known?.heard === LIVE) known.heard = now - this.talkEvery; // the time before was the last
        } else if (known?.port === port) known.heard = LIVE;
        else {
          table.set(station.id, { port, heard: LIVE });
          learnt = true;
        }
      });
    }
    return learnt;
  }
}

const flowOf = (from: Station, to: Station): Flow => ({ from: from.host.mac, to: to.host.mac });

/** Frames a second that the lowest storm limit on links lets in; null where no port there has one. */
function heldTo({ design, portIndexOf, ports, bundleOf }: Network, links: readonly LinkId[]): number | null {
  const on = new Set(links);
  const rates = design.links
    .filter(({ id }) => on.has(id))
    .flatMap(({ a, b }) => [a, b])
    .flatMap((end) => {
      const p = portIndexOf(end.switch, end.port);
      const { stormLimit, speed } = ports[bundleOf[p]! >= 0 ? bundleOf[p]! : p]!;
      return stormLimit ? [stormRate(stormLimit, speed)] : [];
    });
  return rates.length === 0 ? null : Math.min(...rates);
}
