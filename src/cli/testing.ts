/** For tests of the command line: the bundle that the set-up builds, and a folder for its files. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

export const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-cli-'));
export const clearFolder = (): void => rmSync(folder, { recursive: true, force: true });

/** Writes a file into the folder. */
export function file(name: string, text: string): string {
  writeFileSync(path.join(folder, name), text);
  return path.join(folder, name);
}

export function knotPath(args: string[], input = '', env: NodeJS.ProcessEnv = process.env) {
  const { status, stdout, stderr } = spawnSync(process.execPath, ['dist/cli/knot-path.cjs', ...args], {
    encoding: 'utf8',
    input,
    env,
  });
  return { status, stdout, stderr };
}
