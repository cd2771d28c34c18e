/** Ends of the server and of the power, full disks, two servers on one file. */
import { execFileSync, spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { addDemo, ask, kill, open, pause, renaming, start, type Server } from './server';
import { tally, type Tally } from './tally';
import { DEMO_SITES } from '../src/core/demo/sites';

/** Edits without a pause until the server is gone; gives the names that were acknowledged, by revision. */
async function hammer(server: Server, id: string, from: number, until: Promise<void>): Promise<Map<number, string>> {
  const acknowledged = new Map<number, string>();
  let over = false;
  void until.then(() => (over = true));
  for (let base = from; !over;) {
    const name = `name ${base + 1}`;
    const { status, body } = await ask(
      server,
      'POST',
      `/api/designs/${id}/revisions`,
      renaming(base, `write-${id}-${base}`, 'lodge', name),
      4000,
    );
    if (status !== 201) break;
    base = (body as { revision: number }).revision;
    acknowledged.set(base, name);
  }
  return acknowledged;
}

async function check(
  server: Server,
  id: string,
  acknowledged: ReadonlyMap<number, string>,
  into: Tally,
): Promise<number> {
  const there = await open(server, id);
  const last = Math.max(0, ...acknowledged.keys());
  if (!there || there.damage !== null || there.revision < last) into.lost += 1;
  else if (
    there.revision === last &&
    last > 0 &&
    there.design.switches.find((sw) => sw.id === 'lodge')?.name !== acknowledged.get(last)
  )
    into.lost += 1;
  return there?.revision ?? last;
}

/** The process is killed in the middle of traffic. */
export async function kills(folder: string, rounds: number): Promise<Tally> {
  const result = tally('killed in traffic (acknowledged edits)');
  const file = path.join(folder, 'kills.sqlite');
  let server = await start(file);
  const id = await addDemo(server);
  let head = 0;
  for (let n = 0; n < rounds; n += 1) {
    const until = pause(80 + Math.random() * 400).then(() => void server.process.kill('SIGKILL'));
    const acknowledged = await hammer(server, id, head, until);
    await server.ended;
    result.tried += acknowledged.size;
    server = await start(file);
    head = await check(server, id, acknowledged, result);
    // The write whose answer was lost comes again: it is there once.
    const again = await ask(
      server,
      'POST',
      `/api/designs/${id}/revisions`,
      renaming(Math.max(head - 1, 0), `write-${id}-${Math.max(head - 1, 0)}`, 'lodge', `name ${head}`),
    );
    if (head > 0 && (again.status !== 201 || (again.body as { revision: number }).revision !== head)) result.lost += 1;
  }
  await kill(server, 'SIGTERM');
  return result;
}

/** What the disk holds at an instant, as after a power cut: the files are copied while the process stands still. */
export async function powerCuts(folder: string, rounds: number): Promise<Tally> {
  const result = tally('power cut (files as they were at an instant)');
  const file = path.join(folder, 'power.sqlite');
  const server = await start(file);
  const id = await addDemo(server);
  let head = 0;
  for (let n = 0; n < rounds; n += 1) {
    const copy = path.join(folder, `power-${n}.sqlite`);
    const until = pause(40 + Math.random() * 200);
    const acknowledged = await hammer(server, id, head, until);
    const late = ask(
      server,
      'POST',
      `/api/designs/${id}/revisions`,
      renaming(Math.max(head, ...acknowledged.keys()), `late-write-${n}`, 'ridge-a', `late ${n}`),
      20_000,
    );
    await pause(Math.random() * 8);
    server.process.kill('SIGSTOP');
    for (const tail of ['', '-wal']) if (existsSync(file + tail)) copyFileSync(file + tail, copy + tail);
    server.process.kill('SIGCONT');
    head = ((await late).body as { revision: number }).revision;
    const after = await start(copy);
    result.tried += 1;
    await check(after, id, acknowledged, result);
    await kill(after, 'SIGTERM');
    for (const tail of ['', '-wal', '-shm', '.lock']) rmSync(copy + tail, { force: true });
  }
  await kill(server, 'SIGTERM');
  return result;
}

/** A disk that fills up while the server runs, and is cleared again. */
export async function fullDisk(folder: string, rounds: number): Promise<Tally> {
  const result = tally('disk full while running');
  const place = path.join(folder, 'small');
  mkdirSync(place);
  if (process.getuid?.() !== 0 || spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=4m', 'tmpfs', place]).status !== 0)
    return { ...result, note: 'left out: no small disk can be made here' };
  try {
    const server = await start(path.join(place, 'full.sqlite'));
    const id = await addDemo(server);
    const fill = path.join(place, 'fill');
    let head = 0;
    for (let n = 0; n < rounds; n += 1) {
      try {
        writeFileSync(fill, Buffer.alloc(8 * 1024 * 1024));
      } catch {
        // Full is what it should be.
      }
      let refused = 0;
      // The log may have room for some more.
      for (let m = 0; m < 200 && refused === 0; m += 1) {
        const answer = await ask(
          server,
          'POST',
          `/api/designs/${id}/revisions`,
          renaming(head, `full-${n}-${m}-write`, 'lodge', `${'x'.repeat(9000)} ${n} ${m}`),
        );
        result.tried += 1;
        if (answer.status === 201) head += 1;
        else if (answer.status === 507) refused = m + 1;
        else {
          result.crashed += 1;
          refused = m + 1;
        }
      }
      if ((await open(server, id))?.revision !== head) result.lost += 1;
      rmSync(fill);
      const again = await ask(
        server,
        'POST',
        `/api/designs/${id}/revisions`,
        renaming(head, `full-${n}-again-write`, 'lodge', `again ${n}`),
      );
      if (again.status === 201) head += 1;
      else result.lost += 1;
    }
    await kill(server, 'SIGTERM');
    const after = await start(path.join(place, 'full.sqlite'));
    if ((await open(after, id))?.revision !== head) result.lost += 1;
    await kill(after, 'SIGTERM');
  } finally {
    execFileSync('umount', [place]);
  }
  return result;
}

/** Two servers on one file: one of them says that it cannot. */
export async function twoServers(folder: string, rounds: number): Promise<Tally> {
  const result = tally('two servers on one file');
  for (let n = 0; n < rounds; n += 1) {
    const file = path.join(folder, `two-${n}.sqlite`);
    const both = await Promise.all([start(file), start(file)]);
    const serving = both.filter((server) => server.said().includes('serving on'));
    result.tried += 1;
    if (serving.length !== 1 || !both.some((server) => server.said().includes('another Knot Path server uses it')))
      result.crashed += 1;
    else if (
      ((await ask(serving[0]!, 'GET', '/api/designs')).body as { designs: unknown[] }).designs.length !==
      DEMO_SITES.length
    )
      result.lost += 1;
    for (const server of serving) await kill(server, 'SIGTERM');
  }
  return result;
}
