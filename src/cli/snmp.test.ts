/** The command line reads a simulated network by real SNMP, and holds a design against it; Debian's own client reads it, too. */
import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { chmodSync, existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { readObservation, type Observation } from '../core/exchange/observation/observation';
import { compareNames } from '../core/exchange/observation/snmp/mib';
import { fernhollow } from '../core/demo/demos';
import { writeDesign } from '../core/model/derive/write';
import { clearFolder, file, folder, knotPath } from './testing';

const SECRETS = {
  plain: { version: '2c', community: 'Kestrel-Reads' },
  safe: {
    version: '3',
    user: 'reader',
    auth: { protocol: 'sha256', key: 'Heron-Signs' },
    priv: { protocol: 'aes', key: 'Osprey-Hides' },
  },
};
const credentials = file('credentials.json', JSON.stringify(SECRETS));
chmodSync(credentials, 0o600);
const env = { ...process.env, KNOT_PATH_CREDENTIALS: credentials };
const demo = fernhollow();
const design = file('demo.knot.json', writeDesign(demo));
const other = file(
  'other.knot.json',
  writeDesign({
    ...demo,
    switches: demo.switches.map((sw) =>
      sw.id === 'ridge-a' ? { ...sw, trees: { 'vlan:25': { priority: 4096 } } } : sw,
    ),
  }),
);
const running: ChildProcess[] = [];
afterAll(() => {
  for (const child of running) child.kill();
  clearFolder();
});

/** Stand-ins at ports of their own, once they answer. */
async function standIns(first: string, port: number, name: string): Promise<void> {
  const args = [
    'dist/cli/knot-path.cjs',
    'agents',
    design,
    '--credentials',
    name,
    '--first',
    first,
    '--port',
    `${port}`,
  ];
  const child = spawn(process.execPath, args, { env, stdio: ['ignore', 'pipe', 'inherit'] });
  running.push(child);
  await new Promise<void>((done) => {
    let said = '';
    child.stdout.on('data', (part: Buffer) => {
      said += part.toString();
      if (said.includes('They answer')) done();
    });
  });
}
const observe = (name: string, port: number, ...more: string[]) =>
  knotPath(['observe', '--credentials', name, '--port', String(port), ...more], '', env);
const observed = (at: string): Observation => {
  const read = readObservation(readFileSync(at, 'utf8'));
  if (!read.ok) throw new Error(read.error);
  return read.value;
};

it.each(['plain', 'safe'])(
  'reads a network from one address, %s, and finds the wrong root',
  async (name) => {
    const [first, port] = name === 'plain' ? ['127.7.1.1', 21_161] : ['127.7.2.1', 21_162];
    await standIns(first!, port as number, name);
    const out = path.join(folder, `${name}.json`);
    const within = (first as string).replace(/1$/, '0/24');
    const read = observe(name, port as number, first as string, '--within', within, '-o', out);
    expect(read.stdout).toBe('8 switches read.\n');
    const { switches, leftOut } = observed(out);
    expect(leftOut).toEqual([]);
    expect(switches.map((sw) => [sw.trees.length, sw.missing])).toEqual(switches.map(() => [7, []]));
    const same = knotPath(['compare', design, out], '', env);
    expect([same.status, same.stdout]).toEqual([0, expect.stringContaining('all as designed')]);
    const wrong = knotPath(['compare', other, out], '', env);
    expect(wrong.status).toBe(1);
    expect(wrong.stdout).toMatch(/^root: .*ridge-a is set to 32768, the design says 4096/);
    // Nothing that was written or said holds a secret.
    const all = `${readFileSync(out, 'utf8')}${read.stdout}${read.stderr}${wrong.stdout}`;
    for (const secret of ['Kestrel-Reads', 'Heron-Signs', 'Osprey-Hides']) expect(all).not.toContain(secret);
    // Without networks named, nobody else is asked.
    const alone = path.join(folder, `${name}-alone.json`);
    expect(observe(name, port as number, first as string, '-o', alone).stdout).toMatch(
      /^1 switch read, \d left out\.\n$/,
    );
    expect(observed(alone).leftOut[0]).toContain('it is outside of what was named, and was not asked');
  },
  60_000,
);

const client = spawnSync('snmpbulkwalk', ['-V']).error ? it.skip : it;
client(
  'is read by an independent client: every name once and in order, contexts as well',
  async () => {
    await standIns('127.7.3.1', 21_163, 'safe');
    const user = [
      '-v3',
      '-u',
      'reader',
      '-l',
      'authPriv',
      '-a',
      'SHA-256',
      '-A',
      'Heron-Signs',
      '-x',
      'AES',
      '-X',
      'Osprey-Hides',
    ];
    for (const [walk, args] of [
      ['snmpwalk', []],
      ['snmpbulkwalk', []],
      ['snmpbulkwalk', ['-n', 'vlan-25']],
    ] as const) {
      const { stdout, stderr } = spawnSync(walk, [...user, ...args, '-On', '127.7.3.1:21163', '.1'], {
        encoding: 'utf8',
      });
      expect(stderr).toBe('');
      const names = [...stdout.matchAll(/^\.([\d.]+) = (?!No more)/gm)].map(([, name]) => name!.split('.').map(Number));
      expect(names.length).toBeGreaterThan(50);
      for (let i = 1; i < names.length; i += 1) expect(compareNames(names[i - 1]!, names[i]!)).toBeLessThan(0);
    }
    const set = spawnSync('snmpset', [...user, '127.7.3.1:21163', '1.3.6.1.2.1.1.5.0', 's', 'x'], { encoding: 'utf8' });
    expect(set.stderr).toMatch(/notWritable/);
  },
  60_000,
);

client(
  'what an independent client walks is, as files, what our reader reads: names, types, values',
  async () => {
    await standIns('127.7.4.1', 21_164, 'plain');
    const directory = path.join(folder, 'walked');
    mkdirSync(path.join(directory, 'one'), { recursive: true });
    const walked = (walk: string, community: string): string => {
      const args = ['-v2c', '-c', community, '-On', '127.7.4.1:21164', '.1'];
      const { stdout, stderr } = spawnSync(walk, args, { encoding: 'utf8' });
      expect(stderr).toBe('');
      return stdout;
    };
    // How long it has been up, and since when nothing has changed, goes on meanwhile.
    const still = (text: string): string => text.replaceAll(/Timeticks: .*/g, '');
    const own = walked('snmpwalk', 'Kestrel-Reads');
    expect(still(walked('snmpbulkwalk', 'Kestrel-Reads'))).toBe(still(own));
    writeFileSync(path.join(directory, 'one', 'own.txt'), own);
    for (const vlan of [1, ...demo.vlans.map(({ id }) => id)])
      writeFileSync(path.join(directory, 'one', `vlan-${vlan}.txt`), walked('snmpwalk', `Kestrel-Reads.vlan-${vlan}`));
    const [files, asked] = [path.join(folder, 'files.json'), path.join(folder, 'asked.json')];
    expect(knotPath(['observe', '--files', directory, '-o', files], '', env).stderr).toBe('');
    observe('plain', 21_164, '127.7.4.1', '-o', asked);
    const bare = ({ switches: [sw] }: Observation) => ({
      ...sw,
      source: '',
      trees: sw!.trees.map((tree) => ({ ...tree, sinceTopologyChange: 0 })),
    });
    expect(bare(observed(files))).toEqual(bare(observed(asked)));
  },
  60_000,
);

it('keeps secrets from others, and says who does not answer', () => {
  const open = file('open.json', JSON.stringify(SECRETS));
  chmodSync(open, 0o644);
  const out = path.join(folder, 'none.json');
  for (const [more, args, found] of [
    [{ KNOT_PATH_CREDENTIALS: open }, ['127.7.9.1', '--credentials', 'plain'], 'others may read it'],
    [{}, ['127.7.9.1', '--credentials', 'nobody'], '--credentials: found "nobody"; allowed: plain, safe'],
    [
      { KNOT_PATH_CREDENTIALS_ODD: '{"version":"3"}' },
      ['127.7.9.1', '--credentials', 'odd'],
      'KNOT_PATH_CREDENTIALS_ODD: user',
    ],
    [{}, ['127.7.9.1', '--credentials', 'plain', '--timeout', '100'], '127.7.9.1: it does not answer.'],
    [{}, ['127.7.9.1', '--credentials', 'plain', '--within', '127.7'], '--within: found "127.7"'],
  ] as const) {
    const { status, stderr } = knotPath(['observe', ...args, '-o', out], '', { ...env, ...more });
    expect([status, stderr]).toEqual([2, expect.stringContaining(found)]);
    expect(stderr).not.toContain('Kestrel');
  }
  expect(existsSync(out)).toBe(false);
  const no = path.join(folder, 'no.json');
  writeFileSync(no, '{"format":"knot-path-lab"}');
  expect(knotPath(['compare', design, no], '', env)).toMatchObject({
    status: 2,
    stderr: expect.stringContaining('This is no observation') as string,
  });
});
