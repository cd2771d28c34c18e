/** An hour of faults, sixty times as fast: every cut and every mend is told once, at both ends of the cable, and kept. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { createServer } from 'node:http';
import { createSocket } from 'node:dgram';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fernhollow } from '../core/demo/demos';
import { writeDesign } from '../core/model/derive/write';
import { clearFolder, file, folder } from './testing';

const env = { ...process.env, KNOT_PATH_CREDENTIALS_LOOK: JSON.stringify({ version: '2c', community: 'look' }) };
const demo = fernhollow();
const link = demo.links.find(({ a, b }) => a.switch === 'ridge-a' && b.switch === 'lodge')!;
const design = file('demo.knot.json', writeDesign(demo));
const ENDS = [link.a, link.b].map((end) => `${end.switch} port${end.port}`);
/** Ten seconds or ten minutes there from one to the next: readings five seconds apart see each, also where one is late. */
const CUTS = [0, 1, 2].map((n) => 150 + n * 1200);
const scenario = file(
  'hour.json',
  JSON.stringify({
    actions: CUTS.flatMap((at) => [
      { at, do: 'link-down', link: link.id },
      { at: at + 600, do: 'link-up', link: link.id },
    ]),
    until: 3600,
  }),
);
const children: ChildProcess[] = [];
const start = (...args: string[]): ChildProcess => {
  const child = spawn(process.execPath, ['dist/cli/knot-path.cjs', ...args], { env, stdio: ['pipe', 'pipe', 'pipe'] });
  children.push(child);
  return child;
};
afterAll(() => {
  for (const child of children) child.kill('SIGKILL');
  clearFolder();
});
const until = async (is: () => boolean, ms: number): Promise<void> => {
  const end = Date.now() + ms;
  while (!is() && Date.now() < end) await new Promise((done) => setTimeout(done, 100));
};

it('accounts for every event of an hour, by page, webhook and syslog', async () => {
  const posted: string[] = [];
  const hook = createServer((request, response) => {
    let body = '';
    request.on('data', (part: Buffer) => (body += part.toString()));
    request.on('end', () => {
      posted.push(body);
      response.end();
    });
  }).listen(0, '127.0.0.1');
  const logged: string[] = [];
  const collector = createSocket('udp4').on('message', (message) => logged.push(message.toString()));
  await new Promise<void>((done) => collector.bind(0, '127.0.0.1', done));
  const hookPort = (hook.address() as { port: number }).port;

  const agents = start(
    'agents',
    design,
    '--credentials',
    'look',
    '--first',
    '127.47.0.1',
    '--port',
    '21471',
    '--speed',
    '60',
    '--scenario',
    scenario,
  );
  let begun = false;
  agents.stdout!.on('data', (said: Buffer) => (begun ||= said.toString().includes('They answer')));
  await until(() => begun, 20_000);
  const kept = path.join(folder, 'kept.jsonl');
  const args = [
    ...['watch', '127.47.0.1', '--within', '127.47.0.0/16', '--port', '21471', '--credentials', 'look', '--every', '5'],
    ...['--keep', kept, '--webhook', `http://127.0.0.1:${hookPort}/knot`],
    ...['--syslog', `127.0.0.1:${collector.address().port}`, '--rule', 'more than 2 topology changes in an hour'],
  ];
  const watch = start(...args);
  let said = '';
  watch.stdout!.on('data', (part: Buffer) => (said += part.toString()));
  const count = (text: string, of = said): number => of.split(text).length - 1;
  await until(() => count(`${ENDS[0]!} has signal again.`) >= CUTS.length, 75_000);
  for (const end of ENDS) {
    expect([end, count(`${end} has lost its signal.`), count(`${end} has signal again.`)]).toEqual([
      end,
      CUTS.length,
      CUTS.length,
    ]);
    expect(count(`${end} sees `)).toBe(2 * CUTS.length);
  }
  expect(count('Rule: more than 2 topology changes in an hour.')).toBe(1);
  await until(() => count('has signal again', posted.join()) >= 2 * CUTS.length, 5000);
  expect(count('has lost its signal', posted.join())).toBe(2 * CUTS.length);
  expect(count('has lost its signal', logged.join('\n'))).toBe(2 * CUTS.length);
  expect(logged[0]).toMatch(/^<\d+>1 \S+ \S+ knot-path - \w+ \[event@32473 kind="/);

  // It ends, and says what it did not see once it goes on.
  watch.kill('SIGTERM');
  await until(() => watch.exitCode !== null, 10_000);
  const lines = readFileSync(kept, 'utf8');
  expect(count('has lost its signal', lines)).toBe(2 * CUTS.length);
  hook.close();
  collector.close();
  const broken = spawnSync(process.execPath, ['dist/cli/knot-path.cjs', ...args, '--rule', 'whatever'], {
    env,
    encoding: 'utf8',
  });
  expect([broken.status, broken.stderr]).toEqual([2, expect.stringContaining('--rule: found "whatever"; allowed:')]);
}, 150_000);
