/** Writes in words, as the history would tell them. */
import type { Write } from '../../contract/api';
import { describeCommands } from '../../core/edit/describe';
import type { Design } from '../../core/model/document';

const MOST = 3;

/** The first few, on the design as it is; things that it does not have go by their ids. */
export function describeWrites(design: Design, writes: readonly Write[]): string {
  const told = writes
    .slice(0, MOST)
    .map((write) =>
      write.kind === 'edit'
        ? describeCommands(design, write.commands).slice(0, 120)
        : write.kind === 'restore'
          ? `restore revision ${write.target}`
          : write.kind === 'undo'
            ? 'a step back'
            : 'a step forward',
    );
  return told.join('; ') + (writes.length > MOST ? `; and ${writes.length - MOST} more` : '');
}
