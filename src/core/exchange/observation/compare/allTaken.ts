/** Every difference taken over, as far as a setting can mend it. */
import { editAll } from '../../../edit/edit';
import type { Command } from '../../../edit/commands';
import type { Design } from '../../../model/document';
import { solve } from '../../../tree/solve';
import type { Observation } from '../observation';
import { compareObserved } from './compare';

/** What is left after so many rounds mends nothing. */
const ROUNDS = 8;

/** The commands that do it, in their order: rows that stand in each other's way come in the next round. */
export function allTakenOver(design: Design, observation: Observation): readonly Command[] {
  const done: Command[] = [];
  let now = design;
  for (let round = 0; round < ROUNDS; round += 1) {
    const before = now;
    for (const { takeOver } of compareObserved(solve(before), observation).differences) {
      const commands = takeOver?.() ?? [];
      const edited = commands.length > 0 ? editAll(now, commands) : null;
      if (!edited?.ok || edited.value.design === now) continue;
      now = edited.value.design;
      done.push(...commands);
    }
    if (now === before) break;
  }
  return done;
}
