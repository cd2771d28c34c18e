/** Writing several files: all of them or none, and nothing that is there already unless that is wanted. */
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { Unusable } from './input';

/** Writes files into a directory, which is made where it is not there. `force`: those of the same names are replaced. */
export function writeAll(directory: string, files: ReadonlyMap<string, string>, force: boolean): void {
  const there = existsSync(directory) ? new Set(readdirSync(directory)) : null;
  const taken = [...files.keys()].filter((name) => there?.has(name));
  if (taken.length > 0 && !force)
    throw new Unusable(
      `${path.join(directory, taken[0]!)}${taken.length > 1 ? ` and ${taken.length - 1} more` : ''}: there already; --force replaces them`,
    );
  const mark = `.knot-path-${process.pid}`;
  const written: string[] = [];
  try {
    mkdirSync(directory, { recursive: true });
    for (const [name, text] of files) {
      const draft = path.join(directory, `${mark}-${written.length}`);
      written.push(draft);
      writeFileSync(draft, text, { flag: 'wx', mode: name.endsWith('.sh') ? 0o755 : 0o644 });
    }
    // Only renaming is left, which either was never possible here or is for all of them.
    [...files.keys()].forEach((name, i) => renameSync(written[i]!, path.join(directory, name)));
  } catch (error) {
    for (const draft of written) if (existsSync(draft)) rmSync(draft);
    if (there === null && existsSync(directory)) rmSync(directory, { recursive: true, force: true });
    throw new Unusable(`${directory}: cannot be written (${(error as NodeJS.ErrnoException).code ?? 'unknown'})`);
  }
}
