/**
 * `npm run faults`: does to a server what happens to servers, and prints what was tried, lost, crashed and hung. All zeros, or
 * the exit code is 1. With --small a part of it: a minute alone, up to three beside other work.
 */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fullDisk, kills, powerCuts, twoServers } from './files';
import { mutants } from './mutants';
import { kill, start } from './server';
import { harmed, table, type Tally } from './tally';
import { hugeBodies, slowBodies, windows } from './traffic';

const small = process.argv.includes('--small');
const much = (large: number, little: number): number => (small ? little : large);

async function main(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-faults-'));
  const tallies: Tally[] = [];
  const note = async (work: Promise<Tally>): Promise<void> => {
    const done = await work;
    tallies.push(done);
    process.stdout.write(`${done.what}: ${done.tried} tried\n`);
  };
  try {
    await note(kills(folder, much(60, 3)));
    await note(powerCuts(folder, much(40, 2)));
    await note(fullDisk(folder, much(10, 1)));
    await note(twoServers(folder, much(10, 1)));
    const server = await start(path.join(folder, 'traffic.sqlite'));
    await note(slowBodies(server, much(150, 30)));
    await note(windows(server, much(200, 20), much(5, 2)));
    await note(hugeBodies(server, much(3, 1)));
    await kill(server, 'SIGTERM');
    const seed = small ? 1 : Date.now() % 1_000_000_000;
    await note(mutants('documents', much(60_000, 600), seed));
    await note(mutants('commands', much(40_000, 400), seed));
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
  process.stdout.write(`\n${table(tallies)}\n`);
  process.exitCode = harmed(tallies) ? 1 : 0;
}

void main();
