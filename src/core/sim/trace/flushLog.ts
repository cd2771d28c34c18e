/** Where addresses of a tree's VLANs were forgotten, as numbers: a busy run has hundreds of thousands. */
import type { Micros } from '../../modes/entity';

/** Addresses of a tree's VLANs behind a port were forgotten. Microseconds since the start. */
export interface Flush {
  readonly t: Micros;
  readonly tree: number;
  readonly port: number;
}

/** A log as plain data. */
export interface FlushData {
  readonly times: Float64Array;
  readonly trees: Uint16Array;
  readonly ports: Uint32Array;
}

/** Grows in the order of time. */
export class FlushLog implements Iterable<Flush> {
  private readonly moments: Micros[] = [];
  private readonly trees: number[] = [];
  private readonly ports: number[] = [];

  get count(): number {
    return this.moments.length;
  }

  add(t: Micros, tree: number, port: number): void {
    this.moments.push(t);
    this.trees.push(tree);
    this.ports.push(port);
  }

  at(i: number): Flush {
    return { t: this.moments[i]!, tree: this.trees[i]!, port: this.ports[i]! };
  }
  timeOf(i: number): Micros {
    return this.moments[i]!;
  }
  treeOf(i: number): number {
    return this.trees[i]!;
  }
  portOf(i: number): number {
    return this.ports[i]!;
  }
  *[Symbol.iterator](): Iterator<Flush> {
    for (let i = 0; i < this.count; i += 1) yield this.at(i);
  }

  data(): FlushData {
    return {
      times: Float64Array.from(this.moments),
      trees: Uint16Array.from(this.trees),
      ports: Uint32Array.from(this.ports),
    };
  }
  static from({ times, trees, ports }: FlushData): FlushLog {
    const log = new FlushLog();
    times.forEach((t, i) => log.add(t, trees[i]!, ports[i]!));
    return log;
  }
}
