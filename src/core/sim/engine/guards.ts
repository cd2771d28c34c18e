/**
 * The ports of a running network that BPDU guard and loop probe have stopped: a BPDU that comes in shuts its port, a switch's
 * own test frame stops the one at which it comes back, until somebody opens it, or it opens by itself after a time (trade practice).
 */
import { SHUT_BY } from '../../model/guard';
import type { Design } from '../../model/document';
import type { Bpdu } from '../../modes/bpdu';
import { halvesOf } from '../../topology/acting';
import { SECOND, type Micros } from '../../modes/entity';
import { compileNetwork } from '../../topology/network';
import { waitingIn } from '../../topology/pairs';
import { guardedPorts, probeCode, type ShutPort } from '../../topology/shut';
import type { Cause } from '../trace/recording';
import { probeLoops, type ProbedNetwork } from './loopProbe';

export interface GuardSurroundings extends ProbedNetwork {
  /** Ports have been shut, or have opened. */
  turned(): void;
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
    if (guardedPorts(this.around.network)[port] !== 1) return false;
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

  /** From now on loop probes go out. */
  probe(): void {
    probeLoops(this.around, (back) => {
      if (!this.caught.has(back)) this.caught.set(back, 'probe');
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
      const sw = design.switches.find(({ id }) => id === network.switches[network.home[p]!]!.id);
      const own = sw?.ports.find(({ id }) => id === network.ports[p]!.id);
      if (!sw?.up || own?.up === false) this.since.delete(p);
    }
    for (const { switch: sw, bundle, delay } of waitingIn(network.design, design))
      this.stop(network.portIndexOf(sw, bundle), SHUT_BY.pairWaits, delay);
    this.note();
  }

  private shutAll(all: ReadonlyMap<number, number>): void {
    const { network } = this.around;
    for (const [p, by] of all) this.stop(p, by, network.switches[network.home[p]!]!.recovery);
    this.note();
  }

  /** Until it opens by itself, after so many seconds. */
  private stop(p: number, by: number, opensAfter: number | undefined): void {
    const { now } = this.around;
    const stands = { t: now, by };
    this.since.set(p, stands);
    if (opensAfter !== undefined)
      this.around.at(now + opensAfter * SECOND, () => this.since.get(p) === stands && this.open(p));
  }

  private note(): void {
    const { network } = this.around;
    const { switches, home, ports } = network;
    this.shut = [...this.since].flatMap(([whole, { by }]) =>
      (by === SHUT_BY.pairWaits ? [whole] : halvesOf(network, whole)).map((p) => ({
        switch: switches[home[p]!]!.id,
        port: ports[p]!.id,
        by,
      })),
    );
  }
}
