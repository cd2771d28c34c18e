/** BPDU guards of a running network: a BPDU that comes in shuts its port, until somebody opens it, or it opens by itself after a time (trade practice). */
import { SHUT_BY } from '../../model/guard';
import type { Design } from '../../model/document';
import type { Bpdu } from '../../modes/bpdu';
import { SECOND, type Micros } from '../../modes/entity';
import type { Network } from '../../topology/network';
import { guardsActing, isGuarded, type ShutPort } from '../../topology/shut';
import type { Cause } from '../trace/recording';

export interface GuardSurroundings {
  readonly network: Network;
  readonly now: Micros;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
  /** Ports have been shut, or have opened. */
  turned(): void;
}

export class Guards {
  private readonly around: GuardSurroundings;
  /** What came in at this moment, by port. */
  private readonly caught = new Map<number, Bpdu>();
  /** Since when each port is shut. */
  private readonly since = new Map<number, Micros>();
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

  /** Shuts the ports that have heard a BPDU at this moment. */
  act(): void {
    this.shutAll([...this.caught.keys()]);
    this.around.turned();
    this.caught.clear();
  }

  /** The network is put where it comes to rest: shuts the ports that come to it. */
  actAtRest(): void {
    const { network } = this.around;
    const acting = guardsActing(network).map(({ switch: sw, port }) => network.portIndexOf(sw, port));
    if (acting.length === 0) return;
    this.shutAll(acting);
    this.around.turned();
  }

  /** What shut a port at this moment. */
  causeOf(port: number): Cause | null {
    const bpdu = this.caught.get(port);
    return bpdu ? { kind: 'guard', port, bpdu } : null;
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

  private shutAll(ports: readonly number[]): void {
    const { network, now } = this.around;
    for (const p of ports) {
      this.since.set(p, now);
      const { recovery } = network.switches[network.owner[p]!]!;
      if (recovery !== undefined)
        this.around.at(now + recovery * SECOND, () => this.since.get(p) === now && this.open(p));
    }
    this.note();
  }

  private note(): void {
    const { switches, owner, ports } = this.around.network;
    this.shut = [...this.since.keys()].map((p) => ({
      switch: switches[owner[p]!]!.id,
      port: ports[p]!.id,
      by: SHUT_BY.bpduGuard,
    }));
  }
}
