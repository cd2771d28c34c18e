/** `knot-path lab`, as people run it: on machines where it can be, with real switches. */
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { spawn, spawnSync } from 'node:child_process';
import path from 'node:path';
import { writeDesign } from '../../core/model/derive/write';
import { networkOf } from '../../core/testing/networks';
import { readObservation } from '../../core/exchange/observation/observation';
import { readLabResult } from '../../core/exchange/lab/result';
import { clearFolder, file, folder, knotPath } from '../testing';
import { standingLabs } from './standing';
import { isThere } from './run';
import { unable } from './systems';

// Labs of these tests alone, whatever else stands here.
const env = { ...process.env, TMPDIR: folder };
const lab = (args: string[]) => knotPath(['lab', ...args], '', env);
const standing = () => standingLabs(folder);
// One that is kept goes also where its test has failed.
afterAll(() => {
  for (const { id } of standing()) lab(['stop', id]);
  clearFolder();
});
const quick = { dialect: 'rstp', timers: { hello: 1, maxAge: 6, forwardDelay: 4 } };
const DESIGN = networkOf(
  { a: { ...quick, priority: 4096 }, b: quick, c: quick },
  ['a 1 = b 1', 'b 2 = c 2', 'c 3 = a 3'],
  { 'c 9': { vlans: { mode: 'access', vlan: 15 } } },
  { hosts: [{ id: 'h', mac: '02:00:00:00:01:01', vlan: 15, attach: [{ switch: 'c', port: '9' }] }] },
);
const design = file('ring.knot.json', writeDesign(DESIGN));
const real = unable('ovs') === null ? it : it.skip;
const namespaces = (): string => spawnSync('ip', ['netns'], { encoding: 'utf8' }).stdout;

real(
  'builds a ring, cuts a cable, finds all as we say, leaves a result and nothing else',
  () => {
    const scenario = file(
      'cut.json',
      JSON.stringify({
        until: 60,
        actions: [
          { at: 0, do: 'link-down', link: 'l0' },
          { at: 1, do: 'bridge-priority', switch: 'c', priority: 0 },
        ],
      }),
    );
    const out = path.join(folder, 'result.json');
    const { status, stdout, stderr } = lab([design, '--with', 'ovs', '--scenario', scenario, '--out', out]);
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).toMatch(/^Built, and powered on: after [\d.]+ s all \d+ things are as we say\.$/m);
    expect(stdout).toContain('0 s: The link a port 1 to b port 1 is cut.');
    const result = readLabResult(readFileSync(out, 'utf8'));
    expect(result).toMatchObject({
      ok: true,
      value: { with: 'ovs', rounds: [{ differences: [] }, { differences: [] }] },
    });
    expect(standing()).toEqual([]);
  },
  120_000,
);

const wired = unable('ovs') === null && isThere('socat') ? it : it.skip;
wired(
  'cables simulated switches to real ones, follows a scenario on both sides, and compares both',
  () => {
    const scenario = file(
      'cut-both.json',
      JSON.stringify({
        until: 60,
        actions: [
          { at: 0, do: 'link-down', link: 'l0' },
          { at: 1, do: 'bridge-priority', switch: 'b', priority: 0 },
        ],
      }),
    );
    const out = path.join(folder, 'joined.json');
    const { status, stdout, stderr } = lab([
      design,
      '--with',
      'ovs',
      '--join',
      'a,b',
      '--scenario',
      scenario,
      '--out',
      out,
    ]);
    expect([status, stderr]).toEqual([0, '']);
    expect(stdout).not.toContain('not understood');
    expect(readLabResult(readFileSync(out, 'utf8'))).toMatchObject({
      ok: true,
      value: { simulated: ['a', 'b'], rounds: [{ differences: [] }, { differences: [] }] },
    });
    expect(standing()).toEqual([]);
  },
  120_000,
);

/** What the switches of a lab print of themselves, read as an observation. */
function told(at: string): string {
  const files = path.join(folder, 'told');
  const print = (program: string, ...args: string[]): string => spawnSync(program, args, { encoding: 'utf8' }).stdout;
  for (const name of readdirSync(at).filter((each) => each.startsWith('switch'))) {
    const own = path.join(files, name);
    mkdirSync(own, { recursive: true });
    const vsctl = (...args: string[]) => print('ovs-vsctl', `--db=unix:${path.join(at, name, 'db.sock')}`, ...args);
    const appctl = (...args: string[]) => print('ovs-appctl', '-t', path.join(at, name, 'switch.ctl'), ...args);
    writeFileSync(path.join(own, 'ports.json'), vsctl('--format=json', 'list', 'port'));
    writeFileSync(path.join(own, 'interfaces.json'), vsctl('--format=json', 'list', 'interface'));
    writeFileSync(path.join(own, 'trees.txt'), appctl('rstp/show', vsctl('list-br').trim()));
    writeFileSync(path.join(own, 'bundles.txt'), appctl('lacp/show'));
  }
  const out = path.join(folder, 'told.json');
  const { stderr } = knotPath(['observe', '--files', files, '-o', out]);
  expect(stderr).toBe('');
  const read = readObservation(readFileSync(out, 'utf8'));
  expect(read.ok && read.value.switches.map(({ trees }) => trees.map(({ speaks }) => speaks))).toEqual([
    ['rstp'],
    ['rstp'],
    ['rstp'],
  ]);
  return out;
}

real(
  'leaves a lab standing that is kept, until it is stopped; what its switches print is read as what they do',
  () => {
    const { status, stdout } = lab([design, '--with', 'ovs', '--keep']);
    expect(status).toBe(0);
    const [, id] = /lab stop (\S+)$/m.exec(stdout)!;
    expect(stdout).toContain(`ip netns exec knot-path-${id}-host1 sh    # h`);
    const shell = spawnSync('ip', ['netns', 'exec', `knot-path-${id}-host1`, 'ip', '-6', 'addr'], { encoding: 'utf8' });
    expect(shell.stdout).toContain('2001:db8:0:f::1/64');
    const observed = told(path.join(folder, `knot-path-lab-${id}`));
    const compared = knotPath(['compare', design, observed]);
    expect(compared.stderr).toBe('');
    // Cables between namespaces are as fast as they say, whatever the design says of its ports.
    expect(compared.stdout.split('\n').filter((line) => line !== '' && !line.includes(': speed: '))).toEqual([
      expect.stringMatching(/^3 switches held against the design, \d\d+ things compared: \d+ differences\.$/),
    ]);
    expect(lab(['stop', id!])).toMatchObject({ status: 0, stdout: '1 lab taken away.\n' });
    expect(namespaces()).not.toContain(`knot-path-${id}`);
  },
  120_000,
);

real(
  'takes away what it made even where it is killed',
  async () => {
    const child = spawn(process.execPath, ['dist/cli/knot-path.cjs', 'lab', design, '--with', 'ovs'], {
      stdio: 'ignore',
      env,
    });
    const until = async (what: () => boolean): Promise<void> => {
      while (!what()) await new Promise((done) => setTimeout(done, 50));
    };
    await until(() => standing().some(({ id }) => namespaces().includes(`knot-path-${id}-`)));
    const [made] = standing();
    child.kill('SIGKILL');
    await until(() => !existsSync(made!.folder));
    expect(namespaces()).not.toContain(`knot-path-${made!.id}`);
  },
  120_000,
);

it('says what cannot be done', () => {
  const scenario = file('mute.json', JSON.stringify({ until: 60, actions: [{ at: 0, do: 'one-way', link: 'l0' }] }));
  for (const [args, found] of [
    [[design], '--with: found nothing; allowed: linux, ovs'],
    [[design, '--with', 'ovs', '--tree', 'vlan:7'], '--tree: found "vlan:7"; allowed: cst'],
    [[design, '--with', 'ovs', '--scenario', scenario], 'actions[0]: found one-way; allowed: what can be done to real'],
    [[design, '--with', 'ovs', '--join', 'a,z'], '--join: found "z"; allowed: a, b, c'],
    [[design, '--with', 'ovs', '--join', 'a,b,c'], '--join: found every switch'],
    [['stop', 'nobody'], 'lab stop: found "nobody"'],
  ] as const) {
    const { status, stderr } = lab([...args]);
    expect([status, stderr]).toEqual([2, expect.stringContaining(found)]);
  }
});
