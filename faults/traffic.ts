/** Bodies that are slow or huge, and many windows at once. */
import { connect } from 'node:net';
import { addDemo, ask, open, pause, type Server } from './server';
import { tally, type Tally } from './tally';

/** How long an innocent request may take while others do their worst, milliseconds. */
const PATIENCE_MS = 1500;
/** A machine that stalls for a second stalls once; a server that keeps others waiting does so each time. */
const CHANCES = 4;

const bodies: readonly (readonly [string, () => string])[] = [
  ['8 MiB of empty switches', () => importing(`"switches":[${'{},'.repeat(2_600_000)}{}]`)],
  [
    '2000 regions of 64 instances',
    () =>
      importing(
        `"switches":[],"regions":[${Array.from({ length: 2000 }, () => `{"id":"r","instances":[${'{"id":1,"vlans":"1"},'.repeat(63)}{"id":1,"vlans":"1"}]}`).join(',')}]`,
      ),
  ],
  [
    '200 regions that overlap in everything',
    () =>
      importing(
        `"switches":[],"regions":[${Array.from({ length: 200 }, (_, i) => `{"id":"r${i}","instances":[${Array.from({ length: 64 }, (__, j) => `{"id":${j + 1},"vlans":"1-4094"}`).join(',')}]}`).join(',')}]`,
      ),
  ],
  [
    'fifty thousand ports',
    () =>
      importing(
        `"switches":[${Array.from({ length: 12 }, (_, i) => `{"id":"s${i}","mac":"02:00:00:00:00:01","ports":[${Array.from({ length: 4000 }, (__, j) => `{"id":"${j + 1}","number":${j + 1}}`).join(',')}]}`).join(',')}]`,
      ),
  ],
  ['a hundred thousand brackets', () => '['.repeat(100_000)],
  ['nothing but spaces', () => ' '.repeat(8_000_000)],
  [
    'twelve thousand commands',
    () =>
      JSON.stringify({
        kind: 'edit',
        base: 0,
        commands: Array.from({ length: 12_000 }, () => ({ do: 'rename-design', name: 'x' })),
      }),
  ],
  ['more than the limit', () => ' '.repeat(9 * 1024 * 1024)],
];
const importing = (more: string): string =>
  `{"do":"import","document":{"format":"knot-path-design","version":1,"name":"n","links":[],${more}}}`;

/** Sends the worst bodies together, and asks for the list of designs meanwhile; again where that took too long. */
export async function hugeBodies(server: Server, rounds: number): Promise<Tally> {
  const result = tally('bodies that are huge or hostile');
  // Made beforehand: this process also measures.
  const made = bodies.map(([, make]) => make());
  const slowest: number[] = [];
  const inTime = (): boolean => Math.min(...slowest) <= PATIENCE_MS;
  while (slowest.length < rounds || (!inTime() && slowest.length < rounds + CHANCES))
    slowest.push(await waitedBeside(server, made, result));
  if (!inTime()) result.hung += 1;
  return { ...result, note: `others waited ${slowest.join(', ')} ms at most` };
}

/** How long an innocent request took at most while these were sent, milliseconds. */
async function waitedBeside(server: Server, made: readonly string[], result: Tally): Promise<number> {
  let over = false;
  let slowest = 0;
  const watching = (async () => {
    while (!over) {
      const begun = performance.now();
      const { status } = await ask(server, 'GET', '/api/designs', undefined, 30_000);
      slowest = Math.max(slowest, Math.round(performance.now() - begun));
      if (status !== 200) result.crashed += 1;
      await pause(50);
    }
  })();
  await Promise.all(
    made.map(async (body) => {
      result.tried += 1;
      const { status } = await ask(server, 'POST', '/api/designs', body, 60_000);
      if (status === 0) result.hung += 1;
      else if (status >= 500 && status !== 503) result.crashed += 1;
    }),
  );
  over = true;
  await watching;
  return slowest;
}

/** Connections that send a header or a body an octet at a time, or nothing. */
export async function slowBodies(server: Server, count: number): Promise<Tally> {
  const result = tally('connections that send next to nothing');
  const { hostname, port } = new URL(server.base);
  const aggregationPorts = Array.from({ length: count }, (_, n) => {
    const aggregationPort = connect(Number(port), hostname, () => {
      if (n % 3 === 0) aggregationPort.write('POST /api/designs HTTP/1.1\r\n');
      else if (n % 3 === 1)
        aggregationPort.write(
          `POST /api/designs HTTP/1.1\r\nhost: ${hostname}:${port}\r\ncontent-type: application/json\r\ncontent-length: 1000\r\n\r\n{`,
        );
    });
    aggregationPort.on('error', () => undefined);
    return aggregationPort;
  });
  result.tried = count;
  let slowest = 0;
  for (let n = 0; n < 20; n += 1) {
    const begun = Date.now();
    const { status } = await ask(server, 'GET', '/api/designs', undefined, 5000);
    slowest = Math.max(slowest, Date.now() - begun);
    if (status !== 200) result.hung += 1;
    for (const [i, aggregationPort] of aggregationPorts.entries()) if (i % 3 !== 2) aggregationPort.write(' ');
    await pause(100);
  }
  for (const aggregationPort of aggregationPorts) aggregationPort.destroy();
  return { ...result, note: `others waited ${slowest} ms at most` };
}

/** Windows that all look at one design, hear of it, and edit each a port of its own, none knowing of the others. */
export async function windows(server: Server, count: number, edits: number): Promise<Tally> {
  const result = tally(`${count} windows on one design`);
  const id = await addDemo(server);
  const ports = Array.from({ length: count }, (_, n) => ({
    do: 'add-port',
    switch: 'lodge',
    port: { id: `w${n}`, number: 100 + n },
  }));
  await ask(server, 'POST', `/api/designs/${id}/revisions`, { kind: 'edit', base: 0, commands: ports });
  const heard = Array.from({ length: count }, () => 0);
  const stop = new AbortController();
  const streams = heard.map(async (_, n) => {
    try {
      const response = await fetch(`${server.base}/api/events`, { signal: stop.signal });
      for await (const chunk of response.body!)
        for (const [, number] of new TextDecoder()
          .decode(chunk)
          .matchAll(/"kind":"revision","design":"[^"]+","revision":(\d+)/g))
          heard[n] = Math.max(heard[n]!, Number(number));
    } catch {
      // Stopped.
    }
  });
  await pause(500);
  const present = await Promise.all(
    heard.map((_, n) =>
      ask(
        server,
        'POST',
        '/api/presence',
        { window: `window-${n}-of-many`, design: id, lens: 'Root', at: null },
        30_000,
      ),
    ),
  );
  if (present.some(({ status }) => status !== 200)) result.crashed += 1;
  await Promise.all(
    heard.map(async (_, n) => {
      let base = 1;
      for (let m = 0; m < edits; m += 1) {
        result.tried += 1;
        const { status, body } = await ask(
          server,
          'POST',
          `/api/designs/${id}/revisions`,
          {
            kind: 'edit',
            base,
            write: `window-${n}-${m}`,
            commands: [{ do: 'set-port-cost', switch: 'lodge', port: `w${n}`, tree: null, cost: 1 + m }],
          },
          60_000,
        );
        if (status === 0) result.hung += 1;
        else if (status !== 201) result.lost += 1;
        else base = (body as { revision: number }).revision;
      }
    }),
  );
  await pause(1000);
  const there = await open(server, id);
  if (there?.revision !== 1 + count * edits) result.lost += 1;
  if (heard.some((revision) => revision !== 1 + count * edits)) result.lost += 1;
  stop.abort();
  await Promise.all(streams);
  return result;
}
