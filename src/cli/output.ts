/** Writing several files: all of them or none, and nothing that is there already unless that is wanted. */
import { existsSync, mkdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Unusable } from './input';

/** Writes files into a directory; it and folders in it are made where they are not there. `force`: those of the same names are replaced. */
export function writeAll(directory: string, files: ReadonlyMap<string, string | Uint8Array>, force: boolean): void {
  const taken = [...files.keys()].filter((name) => existsSync(path.join(directory, name)));
  if (taken.length > 0 && !force)
    throw new Unusable(
      `${path.join(directory, taken[0]!)}${taken.length > 1 ? ` and ${taken.length - 1} more` : ''}: there already; --force replaces them`,
    );
  // What is made here, and so can be taken away again.
  const made: string[] = [];
  const makeFolder = (folder: string): void => {
    const first = mkdirSync(folder, { recursive: true });
    if (first !== undefined) made.push(first);
  };
  const drafts: string[] = [];
  try {
    makeFolder(directory);
    for (const [name, text] of files) {
      makeFolder(path.dirname(path.join(directory, name)));
      const draft = path.join(directory, `.knot-path-${process.pid}-${drafts.length}`);
      drafts.push(draft);
      writeFileSync(draft, text, { flag: 'wx', mode: name.endsWith('.sh') ? 0o755 : 0o644 });
    }
    // Only renaming is left, which either was never possible here or is for all of them.
    [...files.keys()].forEach((name, i) => renameSync(drafts[i]!, path.join(directory, name)));
  } catch (error) {
    for (const draft of drafts) rmSync(draft, { force: true });
    for (const folder of made) rmSync(folder, { recursive: true, force: true });
    throw new Unusable(`${directory}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'unknown'})`);
  }
}
