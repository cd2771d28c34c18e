/** The checks of a running network: BPDUs that hold a port at which VLANs or roots differ, or that are the bridge's own. */
import type { Bpdu } from '../../modes/bpdu';
import type { RunState } from '../../modes/entity';
import { OwnChecks } from './ownChecks';
import { RootChecks, type RootedNetwork } from './rootChecks';
import type { Running } from './running';
import { VlanChecks, type CheckedNetwork } from './vlanChecks';

export interface CheckedRun extends CheckedNetwork, RootedNetwork {
  readonly running: readonly (readonly (Running | null)[])[];
  placeOf(tree: number, port: number): number;
  /** Hellos that an entity was spared are run again. */
  rouse(running: Running): void;
  /** What an entity has changed is to be told. */
  after(running: Running): void;
}

export class Checks {
  private readonly run: CheckedRun;
  private readonly vlans: VlanChecks;
  private readonly roots: RootChecks;
  private readonly own: OwnChecks;

  constructor(run: CheckedRun) {
    this.run = run;
    this.vlans = new VlanChecks(run, (tree, port, on) => this.hold(tree, port, on));
    this.roots = new RootChecks(run, (port) => this.showAnew(port));
    this.own = new OwnChecks(run, (port) => this.showAnew(port));
  }

  /** A BPDU that switch `from` has sent comes in at a port: whether a check keeps it from the tree. */
  catches(tree: number, port: number, bpdu: Bpdu, from: number): boolean {
    if (this.vlans.catches(tree, port, bpdu)) return true;
    this.roots.hears(tree, port, bpdu);
    if (this.run.placeOf(tree, port) >= 0) this.own.hears(port, bpdu, from);
    return false;
  }

  /** What a port shows whose machines have this state. */
  shows(port: number, state: RunState, held: boolean): readonly [RunState, held: boolean] {
    return (this.roots.holds.has(port) || this.own.holds.has(port)) && state !== 'disabled'
      ? ['discarding', true]
      : [state, held];
  }

  /** Ports of a switch that begins anew are held by nothing. */
  forget(s: number): void {
    const { owner } = this.run.network;
    for (const { holds } of [this.vlans, this.roots, this.own]) holds.forget((port) => owner[port] === s);
  }

  /** A port of a tree may not forward any more, or may again. */
  private hold(tree: number, port: number, on: boolean): void {
    const { run } = this;
    const running = run.running[tree]![run.network.owner[port]!];
    const local = run.placeOf(tree, port);
    if (!running || local < 0) return;
    run.rouse(running);
    running.entity.setHeld(local, on);
    run.after(running);
  }

  /** A port shows another state than before, though its machines have not moved. */
  private showAnew(port: number): void {
    const { run } = this;
    for (const all of run.running) {
      const running = all[run.network.owner[port]!];
      const local = running ? run.placeOf(running.trees[0]!, port) : -1;
      if (!running || local < 0) continue;
      running.trees.forEach((_, own) => running.dirty.add(own * running.ports.length + local));
      run.after(running);
    }
  }
}
