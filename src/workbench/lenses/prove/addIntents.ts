/** New intents as commands. */
import type { Command } from '../../../core/edit/commands';
import type { Suggestion } from '../../../core/analysis/intents/sets';
import type { Design } from '../../../core/model/document';

/** `all`: lines as the design keeps them. */
export function addIntents(design: Design, all: readonly Suggestion[]): Command[] {
  const taken = new Set(design.intents.map(({ id }) => id));
  let next = 1;
  const fresh = (): string => {
    while (taken.has(`i${next}`)) next += 1;
    taken.add(`i${next}`);
    return `i${next}`;
  };
  return all.map(({ line, severity }) => ({ do: 'add-intent', intent: { id: fresh(), line, severity, note: '' } }));
}
