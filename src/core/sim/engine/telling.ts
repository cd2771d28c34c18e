/** What a running network tells of the trees that are run, told of every tree that fares alike. */
import { treeVlan, type TreeId } from '../../model/ids';
import type { Bpdu } from '../../modes/bpdu';
import type { Micros } from '../../modes/entity';
import type { Vector } from '../../modes/vector';
import type { PortChange } from '../trace/recording';
import { raisedVector, Retold, type Alike } from './alikeTrees';
import type { Watch } from './watch';

export class Telling {
  /** By tree that is run, all that are told of. */
  private readonly toldAs: readonly (readonly number[])[];
  private readonly retold = new Retold();
  private readonly trees: readonly TreeId[];
  private readonly watch: Watch;

  constructor(trees: readonly TreeId[], alike: Alike, watch: Watch) {
    this.trees = trees;
    this.watch = watch;
    this.toldAs = trees.map((_, i) => (alike[i] === i ? trees.flatMap((__, j) => (alike[j] === i ? [j] : [])) : []));
  }

  changed(change: PortChange): void {
    if (!this.watch.changed) return;
    const all = this.toldAs[change.tree]!;
    for (const tree of all) this.watch.changed(tree === change.tree ? change : { ...change, tree });
  }

  flushed(t: Micros, tree: number, port: number): void {
    for (const told of this.toldAs[tree]!) this.watch.flushed?.(t, told, port);
  }

  /** Whether anybody wants to know what is sent. */
  get tellsSent(): boolean {
    return this.watch.sent !== undefined;
  }

  /** `held` gives what the port at the other end holds. */
  sent(
    t: Micros,
    tree: number,
    port: number,
    bpdu: Bpdu,
    origin: number,
    held: () => Vector | null,
    times = 1,
    period: Micros = 0,
  ): void {
    if (!this.watch.sent) return;
    const there = held();
    for (const told of this.toldAs[tree]!) {
      const by = told === tree ? 0 : treeVlan(this.trees[told]!)! - treeVlan(this.trees[tree]!)!;
      this.watch.sent(
        t,
        told,
        port,
        this.retold.bpdu(bpdu, by),
        origin,
        there && by !== 0 ? raisedVector(there, by) : there,
        times,
        period,
      );
    }
  }
}
