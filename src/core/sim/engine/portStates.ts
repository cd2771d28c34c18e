/** State and role of every port in every tree, now. */
import type { RunRole, RunState } from '../../modes/entity';

export class PortStates {
  private readonly states: RunState[][];
  private readonly roles: RunRole[][];
  /** Places that loop guard holds: tree x ports + port. */
  private readonly held = new Set<number>();

  constructor(trees: number, ports: number) {
    this.states = Array.from({ length: trees }, () => new Array<RunState>(ports).fill('disabled'));
    this.roles = Array.from({ length: trees }, () => new Array<RunRole>(ports).fill('disabled'));
  }

  state(tree: number, port: number): RunState {
    return this.states[tree]![port]!;
  }
  role(tree: number, port: number): RunRole {
    return this.roles[tree]![port]!;
  }

  isHeld(tree: number, port: number): boolean {
    return this.held.has(tree * this.states[tree]!.length + port);
  }

  /** Gives the state before; null where both are as they were. */
  set(tree: number, port: number, to: RunState, role: RunRole, held: boolean): RunState | null {
    const from = this.states[tree]![port]!;
    const place = tree * this.states[tree]!.length + port;
    if (from === to && this.roles[tree]![port] === role && this.held.has(place) === held) return null;
    if (held) this.held.add(place);
    else this.held.delete(place);
    this.states[tree]![port] = to;
    this.roles[tree]![port] = role;
    return from;
  }
}
