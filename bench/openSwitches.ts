/**
 * The same networks through real switches: Open vSwitch in virtual time, which needs neither its kernel module nor ports of the
 * machine. Left out where it is not installed.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { CIST } from '../src/core/model/ids';
import type { Design } from '../src/core/model/document';
import { readScenario } from '../src/core/sim/scenario/scenario';
import { simulate } from '../src/core/sim/simulate';
import { solve } from '../src/core/tree/solve';
import { benchNetwork } from './network';
import { report } from './report';

/** Nothing of theirs may keep the bench waiting. */
const PATIENCE_S = 120;
/** How long a network is given to settle, and each step of its clock: milliseconds, as their hellos go. */
const SETTLES = 60_000;
const STEP = 250;

const isInstalled = (): boolean => spawnSync('ovs-vswitchd', ['--version']).status === 0;

/** Where their package has put the schema of their settings. */
function schemaFile(): string {
  const found = readdirSync('/usr/share')
    .map((folder) => path.join('/usr/share', folder, 'vswitch.ovsschema'))
    .find(existsSync);
  if (!found) throw new Error('vswitch.ovsschema is nowhere under /usr/share');
  return found;
}

/** Runs a command to its end; throws with what it said. */
function command(name: string, args: readonly string[]): string {
  const { status, stdout, stderr, error } = spawnSync(name, args, { encoding: 'utf8', timeout: PATIENCE_S * 1000 });
  if (status !== 0) throw new Error(`${name} ${args[0]}: ${error?.message ?? stderr}`);
  return stdout;
}

/** Switches of a network under a folder of their own, until `work` is done. */
function withSwitches<T>(
  work: (set: (...args: string[]) => void, ask: (...args: string[]) => string) => T,
  folder: string,
): T {
  const file = (name: string): string => path.join(folder, name);
  const daemon = (name: string): string[] => [
    `--pidfile=${file(name)}`,
    '--detach',
    '--no-chdir',
    `--log-file=${file(`${name}.log`)}`,
  ];
  const socket = `unix:${file('db.sock')}`;
  try {
    command('ovsdb-tool', ['create', file('conf.db'), schemaFile()]);
    command('ovsdb-server', [
      file('conf.db'),
      `--remote=p${socket}`,
      `--unixctl=${file('db.ctl')}`,
      ...daemon('db.pid'),
    ]);
    command('ovs-vswitchd', [
      socket,
      '--enable-dummy',
      '--disable-system',
      `--unixctl=${file('sw.ctl')}`,
      ...daemon('sw.pid'),
    ]);
    return work(
      (...args) => void command('ovs-vsctl', [`--timeout=${PATIENCE_S}`, `--db=${socket}`, ...args]),
      (...args) => command('ovs-appctl', ['-T', String(PATIENCE_S), '-t', file('sw.ctl'), ...args]),
    );
  } finally {
    for (const name of ['sw.pid', 'db.pid'])
      try {
        process.kill(Number(readFileSync(file(name), 'utf8')));
      } catch {
        // It has ended, or never began.
      }
  }
}

/** Bridges and links of a design, as rapid ones. */
function settingsOf(design: Design, folder: string): string[] {
  const { network, trees } = solve(design);
  const { cost: costs } = trees[0]!;
  const bridges = design.switches.flatMap(({ id, mac, trees }) => [
    ...['--', 'add-br', id, '--', 'set', 'bridge', id, 'datapath_type=dummy', 'rstp_enable=true'],
    `other_config:hwaddr="${mac}"`,
    `other_config:rstp-priority=${trees[CIST]?.priority ?? 32768}`,
  ]);
  const port = (
    { switch: sw, port: id }: { readonly switch: string; readonly port: string },
    option: string,
  ): string[] => {
    const name = `${sw}.${id}`;
    const cost = costs[network.portIndexOf(sw as never, id as never)]!;
    return [
      ...['--', 'add-port', sw, name, '--', 'set', 'interface', name, 'type=dummy', option],
      ...['--', 'set', 'port', name, `other_config:rstp-port-num=${id}`, `other_config:rstp-path-cost=${cost}`],
    ];
  };
  const links = design.links.flatMap(({ id, a, b }) => {
    const cable = `unix:${path.join(folder, id)}`;
    return [...port(a, `options:pstream=p${cable}`), ...port(b, `options:stream=${cable}`)];
  });
  return [...bridges, ...links].slice(1);
}

/** What they say of each port: its role and state. */
function rolesOf(shown: string, sw: string): [string, string][] {
  return [...shown.matchAll(/^ *(sw-\d+\.\d+) +(\w+) +(\w+)/gm)].flatMap(([, name, role, state]) =>
    name!.startsWith(`${sw}.`) ? [[name!, `${role!.toLowerCase()} ${state!.toLowerCase()}`]] : [],
  );
}

function row(switches: number) {
  const design: Design = {
    ...benchNetwork(switches, switches * 3, 1),
    switches: benchNetwork(switches, switches * 3, 1).switches.map((sw) => ({ ...sw, dialect: 'rstp' })),
  };
  const root = design.switches[solve(design).trees[0]!.root[0]!]!.id;
  const scenario = readScenario({ actions: [{ at: 0, do: 'switch-down', switch: root }], until: 60 }, design);
  if (!scenario.ok) throw new Error(scenario.error[0]!.found);
  const ours = [0, 1].map(() => {
    const start = performance.now();
    const run = simulate(design, scenario.value);
    if (!run.ok) throw new Error(run.error);
    return { ms: performance.now() - start, ...run.value };
  });
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-open-'));
  try {
    const theirs = withSwitches((set, ask) => {
      set(...settingsOf(design, folder));
      ask('time/stop');
      ask('time/warp', String(SETTLES), String(STEP));
      const start = performance.now();
      // Its cables lose their signal at both ends.
      for (const { a, b } of design.links.filter((link) => [link.a.switch, link.b.switch].includes(root)))
        for (const end of [a, b]) ask('netdev-dummy/set-admin-state', `${end.switch}.${end.port}`, 'down');
      ask('time/warp', '60000', String(STEP));
      const ms = performance.now() - start;
      const roles = design.switches
        .filter(({ id }) => id !== root)
        .flatMap(({ id }) => rolesOf(ask('rstp/show', id), id));
      return { ms, roles: new Map(roles) };
    }, folder);
    const [tree] = ours[0]!.final.trees;
    const unlike = Object.entries(tree!.switches).flatMap(([sw, { ports }]) =>
      Object.entries(ports).filter(
        ([port, view]) =>
          'role' in view &&
          view.role !== 'disabled' &&
          theirs.roles.get(`${sw}.${port}`) !== `${view.role} ${view.state}`,
      ),
    );
    return {
      switches,
      links: design.links.length,
      'real switches (ms)': Math.round(theirs.ms),
      'ours, first (ms)': Math.round(ours[0]!.ms),
      'ours, again (ms)': Math.round(ours[1]!.ms),
      'ratio to real': (ours[1]!.ms / theirs.ms).toFixed(3),
      'ports that differ': unlike.length,
    };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

export function benchOpenSwitches(): void {
  if (!isInstalled()) {
    console.log('\nReal switches in virtual time: left out, Open vSwitch is not installed');
    return;
  }
  report(
    'A minute of a rapid network after its root has died, beside real switches in virtual time',
    [10, 20, 40].map(row),
  );
}
