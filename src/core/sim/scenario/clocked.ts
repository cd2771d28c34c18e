/** The actions of a scenario, on the clock of whatever runs. */
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import { actionKind } from '../../model/actions/actions';
import type { Happening } from '../../model/actions/kind';
import type { Design } from '../../model/document';
import { problemText } from '../../model/problem';
import type { Action, Scenario } from '../../model/scenario';
import { SECOND, type Micros } from '../../modes/entity';
import type { Simulation } from '../engine/simulation';
import { commandsOf } from './scenario';

/** What happens, and when: everything up to the scenario's end. */
export const happeningIn = ({ actions, until }: Scenario): readonly Action[] =>
  actions.filter((action) => action.at <= until);

export const momentOf = (action: Action, start: Micros): Micros => start + Math.round(action.at * SECOND);

/** The states that a design goes through; several simulations go through the same ones, each in its own time. */
export class States {
  /** Why an action cannot be done, a sentence; null where all could. */
  refused: string | null = null;
  private readonly designs: Design[];

  constructor(design: Design) {
    this.designs = [design];
  }

  /** Puts all actions on a simulation's clock. */
  schedule(sim: Simulation, actions: readonly Action[], start: Micros): void {
    let at = 0;
    const take = (commands: readonly Command[]): void => {
      const next = this.after(at, commands);
      if (!next) return;
      at += 1;
      sim.follow(next);
    };
    for (const action of actions) scheduleOne(sim, action, start, take);
  }

  private after(at: number, commands: readonly Command[]): Design | null {
    const known = this.designs[at + 1];
    if (known) return known;
    const edited = editAll(this.designs[at]!, commands);
    if (edited.ok) {
      this.designs.push(edited.value.design);
      return edited.value.design;
    }
    this.refused = problemText(edited.error);
    return null;
  }
}

function scheduleOne(
  sim: Simulation,
  action: Action,
  start: Micros,
  take: (commands: readonly Command[]) => void,
): void {
  const { after = 0, changes, mute, members, open } = actionKind(action).happens(action);
  const commands = commandsOf(changes);
  sim.at(momentOf(action, start) + Math.round(after * SECOND), () => {
    if (mute) {
      const { on, bpdus = false, lasts } = mute;
      for (const port of mutedPorts(sim, mute)) {
        sim.setMute(port, on, bpdus);
        if (lasts !== undefined) sim.at(sim.now + Math.round(lasts * SECOND), () => sim.setMute(port, !on, bpdus));
      }
    }
    if (members) sim.setBundle(members.bundle, members.ports);
    if (open) sim.guards.open(sim.network.portIndexOf(open.switch, open.port));
    if (commands.length > 0) take(commands);
  });
}

/** The aggregationPorts of a link by which nothing is to get through any more, or again. */
function mutedPorts({ network }: Simulation, { link: id, from }: NonNullable<Happening['mute']>): number[] {
  const { design, portIndexOf, switches, owner } = network;
  const link = design.links.find((each) => each.id === id);
  if (!link) return [];
  const [a, b] = [portIndexOf(link.a.switch, link.a.port), portIndexOf(link.b.switch, link.b.port)];
  if (from === null) return [a, b];
  return [from !== undefined && switches[owner[a]!]?.id !== from ? b : a];
}
