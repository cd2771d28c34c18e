/** State and role of every port in every tree, now. */
import type { RunRole, RunState } from '../../modes/entity';

export class PortStates {
  private readonly states: RunState[][];
  private readonly roles: RunRole[][];

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

  /** Gives the state before; null where both are as they were. */
  set(tree: number, port: number, to: RunState, role: RunRole): RunState | null {
    const from = this.states[tree]![port]!;
    if (from === to && this.roles[tree]![port] === role) return null;
    this.states[tree]![port] = to;
    this.roles[tree]![port] = role;
    return from;
  }
}
