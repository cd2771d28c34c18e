/** A design that runs by the clock, and the agents of its switches. */
import { observeRun, type Changes } from '../../core/exchange/observation/ofRun';
import { agentOf, type Agent } from '../../core/exchange/observation/snmp/write';
import type { ObservedSwitch } from '../../core/exchange/observation/observation';
import type { Design } from '../../core/model/document';
import type { SwitchId } from '../../core/model/ids';
import type { Scenario } from '../../core/model/scenario';
import { SECOND, type Micros } from '../../core/modes/entity';
import { actionText, afterAction } from '../../core/sim/scenario/scenario';
import { Simulation } from '../../core/sim/engine/simulation';
import { compileNetwork } from '../../core/topology/network';
import { treesOf } from '../../core/topology/trees';
import { communityWithin } from './standIn';

/** Milliseconds for which what was told stands: a walk's requests come one after the other. */
const FRESH = 250;
/** What a network is given to come to rest before its clock begins. */
const SETTLE: Micros = 120 * SECOND;

export class Stage {
  private readonly simulation: Simulation;
  private design: Design;
  private readonly changes = new Map<string, Changes>();
  private readonly addressOf: (id: SwitchId) => string;
  private readonly community: string | null;
  private readonly speed: number;
  private readonly start = Date.now();
  private told: { readonly at: number; readonly agents: ReadonlyMap<SwitchId, Agent> } = { at: 0, agents: new Map() };

  /** `speed`: seconds of the network in one of ours. */
  constructor(design: Design, addressOf: (id: SwitchId) => string, community: string | null, speed: number) {
    this.design = design;
    this.addressOf = addressOf;
    this.community = community;
    this.speed = speed;
    this.simulation = new Simulation(compileNetwork(design), treesOf(design), 1, {
      flushed: (t, tree, port) => this.count(t, tree, port),
    });
    this.simulation.boot();
    this.simulation.runTo(SETTLE);
  }

  /** Seconds since it began. */
  get seconds(): number {
    return ((Date.now() - this.start) / 1000) * this.speed;
  }

  /** Does what is due of a scenario up to now; gives what it did, in words. */
  follow(scenario: Scenario, done: number): readonly string[] {
    const said: string[] = [];
    for (const action of scenario.actions.slice(done)) {
      if (action.at > this.seconds) break;
      this.simulation.runTo(SETTLE + action.at * SECOND);
      said.push(`${action.at} s: ${actionText(this.design, action)}`);
      this.design = afterAction(this.design, action);
      this.simulation.follow(this.design);
    }
    this.simulation.runTo(SETTLE + this.seconds * SECOND);
    return said;
  }

  /** What a switch answers now; nothing where it has no power. */
  agent(id: SwitchId): Agent {
    if (Date.now() - this.told.at > FRESH) {
      this.simulation.runTo(Math.max(this.simulation.now, SETTLE + this.seconds * SECOND));
      const upTime = Math.round(this.simulation.now / (SECOND / 100));
      const communityOf = (context: string): string | null =>
        this.community === null ? null : communityWithin(this.community, context);
      const agents = this.observed().map((sw) => [sw.source as SwitchId, agentOf(sw, upTime, communityOf)] as const);
      this.told = { at: Date.now(), agents: new Map(agents) };
    }
    return this.told.agents.get(id) ?? NOTHING;
  }

  /** As its switches stand now. */
  observed(): ObservedSwitch[] {
    const byMac = new Map(this.design.switches.map((sw) => [sw.mac, this.addressOf(sw.id)]));
    const nobody: Changes = { count: 0, at: 0 };
    const all = observeRun(this.simulation, this.design, (t, s) => this.changes.get(`${t} ${s}`) ?? nobody);
    return all.map((sw) => ({
      ...sw,
      neighbours: sw.neighbours.map((each) => ({ ...each, address: byMac.get(each.chassis) ?? null })),
    }));
  }

  /** A topology change is told once a bridge and moment, at however many ports it forgets addresses. */
  private count(t: Micros, tree: number, port: number): void {
    const key = `${tree} ${this.simulation.network.owner[port]!}`;
    const before = this.changes.get(key);
    if (before?.at !== t) this.changes.set(key, { count: (before?.count ?? 0) + 1, at: t });
  }
}

const NOTHING: Agent = { own: [], bridges: new Map() };
