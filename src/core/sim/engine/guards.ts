/**
 * BPDU guards and loop probes of a running network: a BPDU that comes in shuts its port, a switch's own test frame that comes
 * back stops the one at which it does, until somebody opens it, or it opens by itself after a time (trade practice).
 */
import { SHUT_BY } from '../../model/guard';
import type { Design } from '../../model/document';
import type { Bpdu } from '../../modes/bpdu';
import { SECOND, type Micros } from '../../modes/entity';
import { compileNetwork, type Network } from '../../topology/network';
import { isGuarded, probeCode, probeReturn, probes, probeVlan, type ShutPort } from '../../topology/shut';
import type { Cause } from '../trace/recording';

export interface GuardSurroundings {
  readonly network: Network;
  readonly now: Micros;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
  /** Ports have been shut, or have opened. */
  turned(): void;
  /** Whether frames of a VLAN pass a port now, and whether what it sends gets there. */
  passes(vid: number, port: number): boolean;
  carries(port: number): boolean;
}

export class Guards {
  private readonly around: GuardSurroundings;
  /** What came in at this moment, by port: a BPDU, or a test frame of its own switch. */
  private readonly caught = new Map<number, Bpdu | 'probe'>();
  /** Since when each port is shut, and what did it. */
  private readonly since = new Map<number, { readonly t: Micros; readonly by: number }>();
  /** The ports that are shut. */
  shut: readonly ShutPort[] = [];

  constructor(around: GuardSurroundings) {
    this.around = around;
  }

  /** A BPDU comes in at a port: whether a guard keeps it from the trees. */
  catches(port: number, bpdu: Bpdu): boolean {
    if (!isGuarded(this.around.network, port)) return false;
    if (!this.caught.has(port)) this.caught.set(port, bpdu);
    return true;
  }

  /** Whether there is something to do at the end of this moment. */
  get due(): boolean {
    return this.caught.size > 0;
  }

  /** Shuts the ports that have heard something at this moment. */
  act(): void {
    this.shutAll(
      new Map([...this.caught].map(([p, heard]) => [p, heard === 'probe' ? this.probeCode(p) : SHUT_BY.bpduGuard])),
    );
    this.around.turned();
    this.caught.clear();
  }

  /** The network is put where it comes to rest: shuts the ports that come to it. */
  actAtRest(): void {
    const { network } = this.around;
    const { shut } = compileNetwork(network.design, network.use);
    const acting = new Map([...shut.entries()].filter(([, by]) => by !== SHUT_BY.nothing));
    if (acting.size === 0) return;
    this.shutAll(acting);
    this.around.turned();
  }

  /** Test frames go out of the ports of each switch that has loop probes, at its interval. */
  probe(): void {
    const { network } = this.around;
    for (const [s, sw] of network.switches.entries()) {
      const own = sw.ports.map((_, i) => network.firstPort[s]! + i).filter((p) => probes(network, p));
      if (own.length > 0) this.probeLater(own, sw.probeInterval * SECOND);
    }
  }

  private probeLater(own: readonly number[], interval: Micros): void {
    const { around } = this;
    around.at(around.now + interval, () => {
      const { network } = around;
      for (const p of own) {
        const vid = probeVlan(network.ports[p]!);
        const back = probeReturn(network, p, (q) => around.passes(vid, q) && around.carries(q));
        if (back < 0) continue;
        if (!this.caught.has(back)) this.caught.set(back, 'probe');
        break; // with this one stopped, the others may have no loop
      }
      this.probeLater(own, interval);
    });
  }

  private probeCode(p: number): number {
    const { switches, owner } = this.around.network;
    return probeCode(switches[owner[p]!]!);
  }

  /** What shut a port at this moment. */
  causeOf(port: number): Cause | null {
    const heard = this.caught.get(port);
    if (heard === undefined) return null;
    return heard === 'probe' ? { kind: 'probe', port } : { kind: 'guard', port, bpdu: heard };
  }

  /** Somebody opens a port. */
  open(port: number): void {
    if (!this.since.delete(port)) return;
    this.note();
    this.around.turned();
  }

  /** The design is another one: who sets a port down opens it, and a switch without power forgets. */
  follow(design: Design): void {
    const { network } = this.around;
    for (const p of this.since.keys()) {
      const sw = design.switches.find(({ id }) => id === network.switches[network.owner[p]!]!.id);
      const own = sw?.ports.find(({ id }) => id === network.ports[p]!.id);
      if (!sw?.up || own?.up === false) this.since.delete(p);
    }
    this.note();
  }

  private shutAll(all: ReadonlyMap<number, number>): void {
    const { network, now } = this.around;
    for (const [p, by] of all) {
      const stands = { t: now, by };
      this.since.set(p, stands);
      const { recovery } = network.switches[network.owner[p]!]!;
      if (recovery !== undefined)
        this.around.at(now + recovery * SECOND, () => this.since.get(p) === stands && this.open(p));
    }
    this.note();
  }

  private note(): void {
    const { switches, owner, ports } = this.around.network;
    this.shut = [...this.since].map(([p, { by }]) => ({ switch: switches[owner[p]!]!.id, port: ports[p]!.id, by }));
  }
}
