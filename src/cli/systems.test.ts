/** Real systems are read: lldpd's own SNMP agent through snmpd, wrong keys told apart from silence, and Linux bridges by their tools. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readObservation, type Observation } from '../core/exchange/observation/observation';
import { clearFolder, folder } from './testing';

const [A, B] = [`kpt-a${process.pid}`, `kpt-b${process.pid}`];
const run = (...args: string[]) => spawnSync(args[0]!, args.slice(1), { encoding: 'utf8' });
const isThere = (name: string): boolean =>
  ['/usr/sbin', '/usr/bin', '/sbin'].some((at) => existsSync(path.join(at, name)));
const children: ChildProcess[] = [];

/** Whether namespaces can be made here: as root, on Linux. */
const hasNamespaces =
  isThere('ip') && run('ip', 'netns', 'add', A).status === 0 && run('ip', 'netns', 'add', B).status === 0;
const whereNamespaces = hasNamespaces ? it : it.skip;
const whereAgents = hasNamespaces && isThere('snmpd') && isThere('lldpd') ? it : it.skip;

beforeAll(() => {
  if (!hasNamespaces) return;
  for (const at of [A, B]) run('ip', '-n', at, 'link', 'set', 'lo', 'up');
  for (const n of ['1', '2']) {
    run('ip', 'link', 'add', `cable${n}`, 'netns', A, 'type', 'veth', 'peer', 'name', `cable${n}`, 'netns', B);
    for (const at of [A, B]) run('ip', '-n', at, 'link', 'set', `cable${n}`, 'up');
  }
});
afterAll(async () => {
  for (const child of children) child.kill('SIGKILL');
  await new Promise((done) => setTimeout(done, 200));
  for (const at of [A, B]) run('ip', 'netns', 'delete', at);
  clearFolder();
});

function start(at: string, ...args: string[]): void {
  children.push(
    spawn('ip', ['netns', 'exec', at, ...args], {
      stdio: 'ignore',
      env: { ...process.env, SNMP_PERSISTENT_DIR: folder },
    }),
  );
}
const observationIn = (file: string): Observation => {
  const read = readObservation(readFileSync(file, 'utf8'));
  if (!read.ok) throw new Error(read.error);
  return read.value;
};
const user = (name: string, authKey: string, privKey: string): string =>
  JSON.stringify({
    ...{ version: '3', user: name, auth: { protocol: 'sha256', key: authKey } },
    priv: { protocol: 'aes', key: privKey },
  });
const credentials = {
  KNOT_PATH_CREDENTIALS_LOOK: JSON.stringify({ version: '2c', community: 'look' }),
  KNOT_PATH_CREDENTIALS_RIGHT: user('reader', 'Heron-Signs', 'Osprey-Hides'),
  KNOT_PATH_CREDENTIALS_WRONG: user('reader', 'Heron-Signt', 'Osprey-Hides'),
  KNOT_PATH_CREDENTIALS_HIDDEN: user('reader', 'Heron-Signs', 'Osprey-Hidex'),
  KNOT_PATH_CREDENTIALS_WHO: user('nobody', 'Heron-Signs', 'Osprey-Hides'),
};
/** Within the first namespace. */
const observe = (by: string, out: string, address = '127.0.0.1') =>
  spawnSync(
    'ip',
    [
      ...['netns', 'exec', A, process.execPath, 'dist/cli/knot-path.cjs', 'observe', address, '--port', '1161'],
      ...['--timeout', '1000', '--credentials', by, '-o', out, '--force'],
    ],
    { encoding: 'utf8', env: { ...process.env, ...credentials } },
  );

whereAgents(
  'lldpd is read through the agent that it is part of, and a wrong key is told apart from silence',
  async () => {
    chmodSync(folder, 0o755); // lldpd is nobody in particular once it has begun
    const config = path.join(folder, 'snmpd.conf');
    const socket = path.join(folder, 'agentx');
    writeFileSync(
      config,
      [
        'agentaddress udp:127.0.0.1:1161',
        'rocommunity look 127.0.0.1',
        'createUser reader SHA-256 "Heron-Signs" AES "Osprey-Hides"',
        'rouser reader authpriv',
        'master agentx',
        `agentXSocket ${socket}`,
        'sysName debian-bridge',
      ].join('\n'),
    );
    start(A, 'snmpd', '-f', '-Lo', '-C', '-c', config, '-p', path.join(folder, 'snmpd.pid'));
    const out = path.join(folder, 'debian.json');
    const until = Date.now() + 40_000;
    const soon = async (is: () => boolean): Promise<void> => {
      while (!is() && Date.now() < until) await new Promise((done) => setTimeout(done, 500));
    };
    await soon(() => existsSync(socket));
    start(A, 'lldpd', '-d', '-x', '-X', socket, '-u', path.join(folder, 'a.sock'));
    start(B, 'lldpd', '-d', '-u', path.join(folder, 'b.sock'));
    await soon(() => observe('look', out).status === 0 && observationIn(out).switches[0]!.neighbours.length >= 2);
    const [sw] = observationIn(out).switches;
    expect(sw).toMatchObject({ name: 'debian-bridge', source: '127.0.0.1' });
    expect(sw!.ports.map((port) => port.interface)).toEqual(expect.arrayContaining(['cable1', 'cable2']) as string[]);
    expect(sw!.neighbours).toHaveLength(2);
    expect(sw!.missing).toContain('It tells of no bridge (BRIDGE-MIB).');

    expect(observe('right', out).status).toBe(0);
    expect(observe('wrong', out).stderr).toContain('it does not take the key');
    expect(observe('hidden', out).stderr).toContain('it is there, and does not take the user or a key');
    expect(observe('who', out).stderr).toContain('it does not know the user');
    expect(observe('right', out, '127.0.0.9').stderr).toContain('it does not answer');
  },
  90_000,
);

whereNamespaces(
  'Linux bridges are read by what their tools print',
  async () => {
    const bridges = [A, B].map((at, i) => {
      const mac = `02:00:00:00:00:0${i + 1}`;
      const made = run(
        'ip',
        '-n',
        at,
        'link',
        'add',
        'br0',
        'address',
        mac,
        'type',
        'bridge',
        'stp_state',
        '1',
        'forward_delay',
        '400',
      );
      for (const n of ['1', '2']) run('ip', '-n', at, 'link', 'set', `cable${n}`, 'master', 'br0');
      run('ip', '-n', at, 'link', 'set', 'br0', 'up');
      return made.status;
    });
    expect(bridges).toEqual([0, 0]);
    const outputs = {
      links: ['ip', '-j', '-d', 'link'],
      ports: ['bridge', '-j', 'link'],
      fdb: ['bridge', '-j', 'fdb'],
    };
    const files = path.join(folder, 'told');
    const out = path.join(folder, 'linux.json');
    const write = (): Observation => {
      for (const [at, name] of [
        [A, 'one'],
        [B, 'two'],
      ] as const) {
        mkdirSync(path.join(files, name), { recursive: true });
        for (const [file, [tool, ...args]] of Object.entries(outputs))
          writeFileSync(path.join(files, name, `${file}.json`), run(tool!, '-n', at, ...args).stdout);
      }
      const read = run(process.execPath, 'dist/cli/knot-path.cjs', 'observe', '--files', files, '-o', out, '--force');
      expect(read.stderr).toBe('');
      return observationIn(out);
    };
    const roles = ({ switches }: Observation): string[] =>
      switches.map((sw) => `${sw.name}: ${sw.trees[0]!.ports.map(({ role, state }) => `${role} ${state}`).join(', ')}`);
    const until = Date.now() + 40_000;
    let told = write();
    while (!roles(told).join().includes('root forwarding') && Date.now() < until) {
      await new Promise((done) => setTimeout(done, 1000));
      told = write();
    }
    expect(roles(told)).toEqual([
      'one: designated forwarding, designated forwarding',
      'two: root forwarding, alternate discarding',
    ]);
    expect(told.switches.map(({ mac }) => mac)).toEqual(['02:00:00:00:00:01', '02:00:00:00:00:02']);
    expect(told.switches[1]!.trees[0]).toMatchObject({
      ...{ speaks: 'stp', forwardDelay: 4, root: { mac: '02:00:00:00:00:01', priority: 32_768 } },
    });
    expect(told.leftOut).toEqual([]);
  },
  90_000,
);
