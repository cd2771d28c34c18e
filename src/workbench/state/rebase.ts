/** Unsent writes on top of what others did: the same edits on a newer document, with their numbers moved on. */
import type { OpenDesign, Step, Write } from '../../contract/api';
import { describeCommands } from '../../core/edit/describe';
import { applyChange, editAll } from '../../core/edit/edit';
import { problemText } from '../../core/model/problem';
import type { Design } from '../../core/model/document';
import { fail, ok, type Result } from '../../core/base/result';

export interface Rebased {
  readonly design: Design;
  /** What the document will be once everything is sent. */
  readonly revision: number;
  readonly undoSteps: readonly Step[];
  readonly redoSteps: readonly Step[];
  readonly writes: readonly Write[];
  /** Undos and redos that no longer are the next in line: left out. */
  readonly dropped: number;
}

/** `renamed` has the numbers that the page had given to revisions, and what they are on the server. The error is a sentence. */
export function rebase(
  open: OpenDesign,
  unsent: readonly Write[],
  renamed: ReadonlyMap<number, number>,
): Result<Rebased, string> {
  const numbers = new Map(renamed);
  let [design, revision] = [open.design, open.revision];
  let undoSteps = [...open.undo];
  let redoSteps = [...open.redo];
  const writes: Write[] = [];
  let dropped = 0;
  for (const write of unsent) {
    if (write.kind === 'edit') {
      const edited = editAll(design, write.commands);
      if (!edited.ok)
        return fail(
          `"${describeCommands(design, write.commands).slice(0, 200)}" no longer fits: ${problemText(edited.error)}`,
        );
      const { patches, inverse } = edited.value;
      writes.push({ ...write, base: revision });
      if (patches.length === 0) continue;
      undoSteps.push({ number: revision + 1, label: describeCommands(design, write.commands), patches, inverse });
      redoSteps = [];
      design = edited.value.design;
    } else {
      const target = numbers.get(write.target) ?? write.target;
      const step = write.kind === 'undo' ? undoSteps.at(-1) : write.kind === 'redo' ? redoSteps.at(-1) : undefined;
      if (step?.number !== target) {
        dropped += 1;
        continue;
      }
      writes.push({ ...write, base: revision, target });
      if (write.kind === 'undo') [undoSteps, redoSteps] = [undoSteps.slice(0, -1), [...redoSteps, step]];
      else [undoSteps, redoSteps] = [[...undoSteps, step], redoSteps.slice(0, -1)];
      design = applyChange(design, write.kind === 'undo' ? step.inverse : step.patches);
    }
    numbers.set(write.base + 1, revision + 1);
    revision += 1;
  }
  return ok({ design, revision, undoSteps, redoSteps, writes, dropped });
}
