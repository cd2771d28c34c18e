/** The real switches that a lab is built of: how one is started in its namespace, and what it says of itself. */
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { LabSystem } from '../../core/exchange/lab/labDesign';
import { readKernel } from '../../core/exchange/readings/linux';
import { readOpenSwitch } from '../../core/exchange/readings/openSwitch';
import type { SwitchReading } from '../../core/exchange/readings/reading';
import { bridgeName } from '../../core/exchange/settings/oneTree';
import type { Switch } from '../../core/model/document';
import { Failed, isThere, run, runIn } from './run';
import { clearNamespace } from './standing';

/** Of a switch, what its bridge is called by. */
type Named = { readonly id: string };

/** Where a switch lives. */
export interface Place {
  readonly namespace: string;
  /** A folder for what it needs. */
  readonly folder: string;
}

/** What kernels are built with, or without. */
export interface Abilities {
  /** Bridges that tell VLANs apart. */
  readonly vlans: boolean;
  readonly bonds: boolean;
  /** Hosts that put tags on their frames. */
  readonly tags: boolean;
}

/** With none of it: what every kernel that has bridges can do. */
export const NOTHING: Abilities = { vlans: false, bonds: false, tags: false };

export interface System {
  /** Programs that it needs. */
  readonly needs: readonly string[];
  /** Starts it, with no bridge as yet. */
  start(sw: Named, place: Place, able: Abilities): void;
  /** What its scripts have to find in their environment. */
  environment(place: Place, able: Abilities): Readonly<Record<string, string>>;
  /** What of it is there on this machine. */
  abilities(): Abilities;
  read(sw: Switch, place: Place, able: Abilities): SwitchReading;
}

const linux: System = {
  needs: ['ip', 'bridge'],
  start(_sw, { folder }, { vlans }) {
    if (vlans) return;
    // The same scripts, past what this kernel does not have.
    mkdirSync(folder, { recursive: true });
    for (const [name, text] of Object.entries(WITHOUT_VLANS)) {
      const real = run('sh', ['-c', `command -v ${name}`]).trim();
      writeFileSync(path.join(folder, name), text.replace('REAL', real), { mode: 0o755 });
    }
  },
  environment: ({ folder }, { vlans }): Record<string, string> =>
    vlans ? {} : { PATH: `${folder}${path.delimiter}${process.env.PATH ?? ''}` },
  abilities: once(() => ({ vlans: canMake(['type', 'bridge', 'vlan_filtering', '1']), ...ofHosts() })),
  read: (sw, { namespace }, { vlans }) =>
    readKernel(
      bridgeName(sw),
      JSON.parse(runIn(namespace, 'ip', ['-j', '-d', 'link', 'show'])),
      vlans ? JSON.parse(runIn(namespace, 'bridge', ['-j', 'vlan', 'show'])) : null,
    ),
};

/** In place of `ip` and `bridge` where the kernel's bridge does not tell VLANs apart. */
const WITHOUT_VLANS = {
  ip: `#!/bin/sh
for word do
  shift
  case $word in vlan_filtering|vlan_default_pvid) skip=1 ;; *) if [ "$skip" ]; then skip=; else set -- "$@" "$word"; fi ;; esac
done
exec REAL "$@"
`,
  bridge: `#!/bin/sh
[ "$1" = vlan ] || exec REAL "$@"
`,
};

const ofHosts = (): Omit<Abilities, 'vlans'> => ({
  bonds: canMake(['type', 'bond', 'mode', '802.3ad']),
  tags: canMake(['link', 'lo', 'type', 'vlan', 'id', '2']),
});

/** Whether this kernel makes such an interface, tried in a namespace of its own. */
function canMake(type: readonly string[]): boolean {
  const name = `knot-path-probe-${process.pid}`;
  run('ip', ['netns', 'add', name]);
  try {
    run('ip', ['-n', name, 'link', 'add', 'name', 'probe', ...type]);
    return true;
  } catch {
    return false;
  } finally {
    run('ip', ['netns', 'del', name]);
  }
}

function once<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

const SCHEMA = '/usr/share/openvswitch/vswitch.ovsschema';

/** Without its system service: a database and a daemon of its own for each switch, in its folder; frames go through the daemon, no module of the kernel is needed. */
const ovs: System = {
  needs: ['ip', 'ovsdb-tool', 'ovsdb-server', 'ovs-vswitchd', 'ovs-vsctl', 'ovs-appctl', 'ovs-ofctl'],
  start(sw, place, able) {
    const { namespace, folder } = place;
    mkdirSync(folder, { recursive: true });
    const in_ = (name: string): string => path.join(folder, name);
    const daemon = (name: string): string[] => [
      `--pidfile=${in_(`${name}.pid`)}`,
      `--unixctl=${in_(`${name}.ctl`)}`,
      `--log-file=${in_(`${name}.log`)}`,
      '-vconsole:off',
      '--detach',
      '--no-chdir',
    ];
    const env = ovs.environment(place, able);
    run('ovsdb-tool', ['create', in_('conf.db'), SCHEMA]);
    runIn(namespace, 'ovsdb-server', [in_('conf.db'), `--remote=punix:${in_('db.sock')}`, ...daemon('db')], { env });
    runIn(namespace, 'ovs-vsctl', ['--no-wait', 'init'], { env });
    runIn(namespace, 'ovs-vswitchd', [`unix:${in_('db.sock')}`, ...daemon('switch')], { env });
    // The script finds the bridge there: it says `--may-exist`, and what moves the frames is not its matter.
    const bridge = bridgeName(sw);
    runIn(namespace, 'ovs-vsctl', ['add-br', bridge, '--', 'set', 'bridge', bridge, 'datapath_type=netdev'], { env });
  },
  abilities: once(() => ({ vlans: true, ...ofHosts() })),
  environment: ({ folder }) => ({ OVS_RUNDIR: folder, OVS_DBDIR: folder, OVS_LOGDIR: folder }),
  read(sw, place, able) {
    const env = ovs.environment(place, able);
    const bridge = bridgeName(sw);
    const ask = (...args: string[]): string =>
      run('ovs-appctl', ['-t', path.join(place.folder, 'switch.ctl'), ...args], { env });
    const list = (table: string): unknown => JSON.parse(run('ovs-vsctl', ['--format=json', 'list', table], { env }));
    return readOpenSwitch(bridge, {
      trees: sw.dialect === 'off' ? null : ask(sw.dialect === 'stp' ? 'stp/show' : 'rstp/show', bridge),
      lacp: ask('lacp/show'),
      ports: list('port'),
      interfaces: list('interface'),
    });
  },
};

export const SYSTEMS: Readonly<Record<LabSystem, System>> = { linux, ovs };

/** Why no lab can be built here; null where one can: tried with one switch. */
export function unable(system: LabSystem): string | null {
  if (process.platform !== 'linux') return 'it needs Linux';
  if (process.getuid?.() !== 0) return 'it needs root, since it makes network namespaces';
  const missing = SYSTEMS[system].needs.filter((program) => !isThere(program) && !isThere(`/usr/sbin/${program}`));
  if (missing.length > 0) return `these programs are not here: ${missing.join(', ')}`;
  const namespace = `knot-path-try-${process.pid}`;
  const folder = mkdtempSync(path.join(tmpdir(), 'knot-path-try-'));
  try {
    run('ip', ['netns', 'add', namespace]);
    run('ip', ['-n', namespace, 'link', 'add', 'name', 'one', 'type', 'veth', 'peer', 'name', 'other']);
    SYSTEMS[system].start({ id: 'tried' }, { namespace, folder }, NOTHING);
    if (system === 'linux')
      run('ip', ['-n', namespace, 'link', 'add', 'name', 'tried', 'type', 'bridge', 'stp_state', '1']);
    return null;
  } catch (error) {
    if (error instanceof Failed) return error.message;
    throw error;
  } finally {
    clearNamespace(namespace);
    rmSync(folder, { recursive: true, force: true });
  }
}
