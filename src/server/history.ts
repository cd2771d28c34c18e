/** Undo and redo, read off the log: an append-only log with two stacks in it. */
import type { LogEntry } from './db/designStore';

export interface Stacks {
  /** Revision numbers that can be taken back, the next one last. */
  readonly undo: number[];
  /** Revision numbers that can be done again, the next one last. */
  readonly redo: number[];
}

/** Follows the log: an edit ends what could be redone, an undo moves a revision over, a redo moves it back; nothing before a mending can be taken back. */
export function stacksOf(log: readonly Pick<LogEntry, 'number' | 'kind' | 'target'>[]): Stacks {
  const undo: number[] = [];
  let redo: number[] = [];
  for (const { number, kind, target } of log) {
    if (kind === 'edit') {
      undo.push(number);
      redo = [];
    } else if (kind === 'mend') {
      undo.length = 0;
      redo = [];
    } else if (kind === 'undo') {
      undo.pop();
      redo.push(target ?? number);
    } else {
      redo.pop();
      undo.push(target ?? number);
    }
  }
  return { undo, redo };
}
