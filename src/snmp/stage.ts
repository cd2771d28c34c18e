/** A design that runs by the clock, and the agents of its switches. */
import { observerOf, type Changes, type Observe } from '../core/exchange/observation/ofRun';
import { agentOf, type Agent } from '../core/exchange/observation/snmp/write';
import type { ObservedSwitch } from '../core/exchange/observation/observation';
import type { Design } from '../core/model/document';
import type { SwitchId } from '../core/model/ids';
import type { Action, Scenario } from '../core/model/scenario';
import { SECOND, type Micros } from '../core/modes/entity';
import { actionText, afterAction } from '../core/sim/scenario/scenario';
import { Simulation } from '../core/sim/engine/simulation';
import { compileNetwork } from '../core/topology/network';
import { treesOf } from '../core/topology/trees';
import { communityWithin } from './standIn';

/** Milliseconds for which what was told stands: a walk's requests come one after the other. */
const FRESH = 1000;
/** What a network is given to come to rest before its clock begins. */
const SETTLE: Micros = 120 * SECOND;

export class Stage {
  private readonly simulation: Simulation;
  private readonly first: Design;
  private design: Design;
  private playing: { readonly actions: readonly Action[]; readonly from: number; done: number } | null = null;
  private readonly changes = new Map<string, Changes>();
  /** By tree, switch and port: how often it has begun to forward. */
  private readonly begun = new Map<string, number>();
  /** By MAC address, where it answers. */
  private readonly addresses: ReadonlyMap<string, string>;
  private readonly community: string | null;
  private readonly speed: number;
  private readonly start = Date.now();
  private readonly told = new Map<SwitchId, { readonly at: number; readonly agent: Agent | null }>();
  private observe: Observe;

  /** `speed`: seconds of the network in one of ours. */
  constructor(design: Design, addressOf: (id: SwitchId) => string, community: string | null, speed: number) {
    this.first = design;
    this.design = design;
    this.addresses = new Map(design.switches.map((sw) => [sw.mac, addressOf(sw.id)]));
    this.community = community;
    this.speed = speed;
    this.simulation = new Simulation(compileNetwork(design), treesOf(design), 1, {
      flushed: (t, tree, port) => this.count(t, tree, port),
      changed: ({ tree, port, to }) => to === 'forwarding' && this.began(tree, port),
    });
    this.simulation.boot();
    this.simulation.runTo(SETTLE);
    this.observe = this.observer();
  }

  /** Seconds since it began. */
  get seconds(): number {
    return ((Date.now() - this.start) / 1000) * this.speed;
  }

  /** A scenario begins now, in place of one that goes on. */
  play({ actions }: Pick<Scenario, 'actions'>): void {
    this.playing = { actions: [...actions].sort((x, y) => x.at - y.at), from: this.seconds, done: 0 };
  }

  /** Everything is as it was at first. */
  restore(): void {
    this.playing = null;
    this.become(this.first, this.seconds);
  }

  /** Does what is due of the scenario up to now; gives what it did, in words. */
  tick(): readonly string[] {
    const said: string[] = [];
    const { playing } = this;
    for (const action of playing?.actions.slice(playing.done) ?? []) {
      if (playing!.from + action.at > this.seconds) break;
      said.push(`${action.at} s: ${actionText(this.design, action)}`);
      this.become(afterAction(this.design, action), playing!.from + action.at);
      playing!.done += 1;
    }
    this.runTo(this.seconds);
    return said;
  }

  private become(design: Design, at: number): void {
    this.runTo(at);
    this.design = design;
    this.simulation.follow(design);
    this.observe = this.observer();
    this.told.clear();
  }

  /** Time does not go back. */
  private runTo(seconds: number): void {
    this.simulation.runTo(Math.max(this.simulation.now, SETTLE + seconds * SECOND));
  }

  /** What a switch answers now; null where it has no power. */
  agent(id: SwitchId): Agent | null {
    const known = this.told.get(id);
    if (known && Date.now() - known.at < FRESH) return known.agent;
    this.runTo(this.seconds);
    const upTime = Math.round(this.simulation.now / (SECOND / 100));
    const communityOf = (context: string): string | null =>
      this.community === null ? null : communityWithin(this.community, context);
    const sw = this.observed(id);
    const agent = sw && agentOf(sw, upTime, communityOf);
    this.told.set(id, { at: Date.now(), agent });
    return agent;
  }

  /** A switch as it stands now, its neighbours with where they answer; null without power. */
  observed(id: SwitchId): ObservedSwitch | null {
    const sw = this.observe(id);
    return (
      sw && {
        ...sw,
        neighbours: sw.neighbours.map((each) => ({ ...each, address: this.addresses.get(each.chassis) ?? null })),
      }
    );
  }

  private observer(): Observe {
    const nobody: Changes = { count: 0, at: 0 };
    return observerOf(this.simulation, this.design, (t, s) => {
      const forwards = (port: number): number => this.begun.get(this.keyOf(t, port)) ?? 0;
      return { ...(this.changes.get(`${t} ${s}`) ?? nobody), forwards };
    });
  }

  /** A port begins to forward in a tree (RFC 4188, dot1dStpPortForwardTransitions). */
  private began(tree: number, port: number): void {
    const key = this.keyOf(tree, port);
    this.begun.set(key, (this.begun.get(key) ?? 0) + 1);
  }

  /** A port by its own switch, also where that is one bridge with another; places are others once there are more ports. */
  private keyOf(tree: number, port: number): string {
    const { switches, home, ports } = this.simulation.physical;
    return `${tree} ${switches[home[port]!]!.id} ${ports[port]!.id}`;
  }

  /** A topology change is told once a bridge and moment, at however many ports it forgets addresses. */
  private count(t: Micros, tree: number, port: number): void {
    const key = `${tree} ${this.simulation.network.owner[port]!}`;
    const before = this.changes.get(key);
    if (before?.at !== t) this.changes.set(key, { count: (before?.count ?? 0) + 1, at: t });
  }
}
