/**
 * Labs that stand: each has a folder that says which namespaces and daemons are its own, so that it can be taken away by whoever
 * comes later, and nothing else is. A lab whose program is gone is taken away by a watcher of its own.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const PREFIX = 'knot-path-lab-';
/** Says that a lab stays after its program has ended. */
const KEPT = 'kept';
/** Names of its namespaces, a line each. */
const NAMESPACES = 'namespaces';

export interface Lab {
  /** What people call it. */
  readonly id: string;
  readonly folder: string;
}

/** One that is being made. */
export interface NewLab extends Lab {
  /** The program whose verbs it is run by. */
  readonly cli: string;
}

/** Makes a folder for a lab, and has it watched: however this program ends, `cli` takes away what it has made. */
export function newLab(cli = process.argv[1]!): NewLab {
  const folder = mkdtempSync(path.join(tmpdir(), PREFIX));
  writeFileSync(path.join(folder, NAMESPACES), '');
  const lab = { id: path.basename(folder).slice(PREFIX.length), folder, cli };
  // Its standard input ends with us.
  const watcher = spawn(
    'sh',
    [
      '-c',
      'cat >/dev/null; test -e "$1/kept" || exec "$2" "$3" lab stop "$4"',
      'sh',
      folder,
      process.execPath,
      cli,
      lab.id,
    ],
    { detached: true, stdio: ['pipe', 'ignore', 'ignore'] },
  );
  watcher.unref();
  return lab;
}

/** Notes a namespace before it is made. */
export function noteNamespace({ folder }: Lab, name: string): void {
  writeFileSync(path.join(folder, NAMESPACES), `${name}\n`, { flag: 'a' });
}

export const keep = ({ folder }: Lab): void => writeFileSync(path.join(folder, KEPT), '');

export const isKept = ({ folder }: Lab): boolean => existsSync(path.join(folder, KEPT));

/** The labs that stand, whose folders are in this one. */
export const standingLabs = (within = tmpdir()): Lab[] =>
  readdirSync(within)
    .filter((name) => name.startsWith(PREFIX) && existsSync(path.join(within, name, NAMESPACES)))
    .map((name) => ({ id: name.slice(PREFIX.length), folder: path.join(within, name) }));

/** Takes a lab away: its daemons, its namespaces with all that is in them, its folder. */
export function takeAway({ folder }: Lab): void {
  if (!existsSync(folder)) return;
  const namespaces = readFileSync(path.join(folder, NAMESPACES), 'utf8').split('\n').filter(Boolean);
  namespaces.forEach(clearNamespace);
  rmSync(folder, { recursive: true, force: true });
}

/** Ends what runs in a namespace of ours, a daemon or a shell that somebody has left open, and takes it away with all that is in it. */
export function clearNamespace(name: string): void {
  const { stdout } = spawnSync('ip', ['netns', 'pids', name], { encoding: 'utf8' });
  for (const pid of stdout.split('\n').filter(Boolean)) end(Number(pid));
  spawnSync('ip', ['netns', 'del', name], { stdio: 'ignore' });
}

function end(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // It has ended by itself.
  }
}
