/**
 * `npm run conformance:linux`: builds networks of the Linux kernel's own bridges, waits until its classic spanning tree
 * has settled, and compares every port with what we say; then one link is cut, and again. Needs root, iproute2 and leave
 * to make network namespaces; says so and ends well otherwise. Touches only the namespaces that it makes.
 */
import { spawnSync } from 'node:child_process';
import fc from 'fast-check';
import { fernhollow } from '../src/core/demo/demos';
import type { Design } from '../src/core/model/document';
import { meshDesign, solutionOf } from '../src/core/testing/networks';
import { setBridgePriority, setPathCost } from '../src/core/topology/bridgeId';
import { methodOf } from '../src/core/model/costMethod';
import { pathCostOf } from '../src/core/topology/pathCost';
import { roleOf, stateOf } from '../src/core/tree/settled';
import { CST } from '../src/core/model/ids';

/** The kernel's shortest legal timers: hello 1 s, max age 6 s, forward delay 2 s. */
const TIMERS = ['hello_time', '100', 'max_age', '600', 'forward_delay', '200'];
/** Two forward delays, after the oldest information has died. */
const BOOT_MS = 7_000;
const CUT_MS = 14_000;
/** How much later a busy machine may be. */
const LATE_MS = 45_000;

const ip = (args: readonly string[], input?: string): string => {
  const { status, stdout, stderr, error } = spawnSync('ip', args, {
    encoding: 'utf8',
    ...(input === undefined ? {} : { input }),
  });
  if (error || status !== 0) throw new Error(`ip ${args.join(' ')}: ${error?.message ?? stderr.trim()}`);
  return stdout;
};

interface Case {
  readonly name: string;
  readonly design: Design;
  readonly namespace: string;
  /** The index of the link that is cut. */
  readonly cut: number;
}

/** One tree, and nothing that the kernel's bridge does not have: classic, all VLANs everywhere. */
const classic = (design: Design): Design => ({
  ...design,
  hosts: [],
  vlans: [],
  switches: design.switches.map((sw) => ({
    ...sw,
    dialect: 'stp',
    ports: sw.ports.map((port) => ({ ...port, vlans: { mode: 'trunk', native: 1, allowed: '1-4094' } })),
  })) as Design['switches'],
});

/** What each port should do: by `switch port`, whether it forwards. */
function expected(design: Design): Map<string, boolean> {
  const { network, trees } = solutionOf(design);
  const found = new Map<string, boolean>();
  network.ports.forEach((port, p) => {
    const role = network.link[p]! >= 0 ? roleOf(trees[0]!, p) : null;
    if (role !== null && role !== 'disabled')
      found.set(`${network.switches[network.owner[p]!]!.id} ${port.id}`, stateOf(role) === 'forwarding');
  });
  return found;
}

const bridgeName = (s: number): string => `br${s}`;
const portName = (l: number, side: 'a' | 'b'): string => `l${l}${side}`;

/** Makes the bridges and cables of a design in its namespace. */
function build({ design, namespace }: Case): void {
  ip(['netns', 'add', namespace]);
  const lines: string[] = [];
  const index = new Map(design.switches.map((sw, s) => [sw.id, s]));
  design.switches.forEach((sw, s) => {
    lines.push(
      `link add ${bridgeName(s)} address ${sw.mac} type bridge stp_state 1 priority ${setBridgePriority(sw, CST)} ${TIMERS.join(' ')}`,
    );
  });
  design.links.forEach((_, l) => lines.push(`link add ${portName(l, 'a')} type veth peer name ${portName(l, 'b')}`));
  const bridgeLines: string[] = [];
  design.switches.forEach((sw) => {
    const method = methodOf(design, sw);
    // The kernel numbers ports as they are plugged in.
    for (const port of [...sw.ports].sort((x, y) => x.number - y.number)) {
      const l = design.links.findIndex(({ a, b }) =>
        [a, b].some((end) => end.switch === sw.id && end.port === port.id),
      );
      if (l < 0) continue;
      const { a } = design.links[l]!;
      const name = portName(l, a.switch === sw.id && a.port === port.id ? 'a' : 'b');
      lines.push(`link set ${name} master ${bridgeName(index.get(sw.id)!)}`);
      bridgeLines.push(
        `link set dev ${name} cost ${Math.min(65_535, setPathCost(port, CST, sw.dialect) ?? pathCostOf(port.speed, method))} priority ${port.priority / 4}`,
      );
    }
  });
  lines.push(
    ...design.links.flatMap((_, l) => [`link set ${portName(l, 'a')} up`, `link set ${portName(l, 'b')} up`]),
    ...design.switches.map((_, s) => `link set ${bridgeName(s)} up`),
  );
  ip(['-n', namespace, '-batch', '-'], `${lines.join('\n')}\n`);
  const { status, stderr } = spawnSync('bridge', ['-n', namespace, '-batch', '-'], {
    encoding: 'utf8',
    input: `${bridgeLines.join('\n')}\n`,
  });
  if (status !== 0) throw new Error(`bridge: ${stderr.trim()}`);
}

/** What the kernel's ports do: by `switch port`, whether they forward; their state beside. */
function observed({ design, namespace }: Case): Map<string, { readonly forwards: boolean; readonly state: string }> {
  const links = JSON.parse(ip(['-n', namespace, '-j', '-d', 'link', 'show'])) as {
    ifname: string;
    linkinfo?: { info_slave_data?: { state?: string } };
  }[];
  const states = new Map(links.map((link) => [link.ifname, link.linkinfo?.info_slave_data?.state]));
  return new Map(
    design.links.flatMap(({ a, b }, l) =>
      (
        [
          ['a', a],
          ['b', b],
        ] as const
      ).map(([side, end]) => {
        const state = states.get(portName(l, side)) ?? 'unknown';
        return [`${end.switch} ${end.port}`, { forwards: state === 'forwarding', state }] as const;
      }),
    ),
  );
}

function compare(each: Case, what: string, design: Design): string[] {
  const kernel = observed(each);
  return [...expected(design)].flatMap(([end, forwards]) => {
    const there = kernel.get(end);
    return there?.forwards === forwards
      ? []
      : [
          `${each.name}, ${what}: ${end} is ${there?.state ?? 'missing'} in the kernel; we say ${forwards ? 'forwarding' : 'blocking'}`,
        ];
  });
}

const sleep = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Differences that are still there once a busy machine's bridges have had time as well. */
async function lasting(differences: () => string[]): Promise<string[]> {
  for (let left = LATE_MS; ; left -= 1000) {
    const found = differences();
    if (found.length === 0 || left <= 0) return found;
    await sleep(1000);
  }
}

/** Costs that sixteen bits hold: the kernel's bridge takes no larger ones. */
const short = (design: Design): Design => ({
  ...design,
  pathCost: 'short',
  switches: design.switches.map((sw) => ({
    ...sw,
    pathCost: undefined,
    ports: sw.ports.map((port) => ({
      ...port,
      ...(port.cost === undefined ? {} : { cost: Math.min(65_535, port.cost) }),
    })),
  })) as Design['switches'],
});

function cases(small: boolean): Case[] {
  const random = fc.sample(meshDesign, { seed: 4, numRuns: small ? 4 : 24 });
  return [['demo', fernhollow()] as const, ...random.map((design, i) => [`random ${i}`, design] as const)].map(
    ([name, design], i) => ({
      name,
      design: short(classic(design)),
      namespace: `knot-path-${process.pid}-${i}`,
      cut: (i * 7) % design.links.length,
    }),
  );
}

/** Why nothing can be compared here; null where it can. */
function unable(): string | null {
  if (process.platform !== 'linux' || process.getuid?.() !== 0) return 'it needs Linux and root';
  if (spawnSync('ip', ['-V']).error || spawnSync('bridge', ['-V']).error) return 'it needs iproute2';
  const probe = `knot-path-${process.pid}-probe`;
  try {
    ip(['netns', 'add', probe]);
    ip(['-n', probe, 'link', 'add', 'br0', 'type', 'bridge', 'stp_state', '1']);
    return null;
  } catch (error) {
    return `no bridges can be made here (${(error as Error).message})`;
  } finally {
    spawnSync('ip', ['netns', 'del', probe]);
  }
}

async function main(): Promise<void> {
  const why = unable();
  if (why) {
    console.log(`conformance:linux is left out: ${why}.`);
    return;
  }
  const all = cases(process.argv.includes('--small'));
  const made: string[] = [];
  const clear = (): void => {
    for (const namespace of made.splice(0)) spawnSync('ip', ['netns', 'del', namespace]);
  };
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => (clear(), process.exit(1)));
  try {
    for (const each of all) {
      made.push(each.namespace);
      build(each);
    }
    await sleep(BOOT_MS);
    const wrong = await lasting(() => all.flatMap((each) => compare(each, 'whole', each.design)));
    for (const { namespace, cut } of all) ip(['-n', namespace, 'link', 'set', portName(cut, 'a'), 'down']);
    await sleep(CUT_MS);
    wrong.push(
      ...(await lasting(() =>
        all.flatMap((each) =>
          compare(each, `link ${each.design.links[each.cut]!.id} cut`, {
            ...each.design,
            links: each.design.links.map((link, l) => ({ ...link, up: l !== each.cut })),
          }),
        ),
      )),
    );
    const ports = all.reduce((sum, { design }) => sum + 2 * design.links.length, 0);
    for (const line of wrong) console.log(line);
    console.log(
      `${all.length} networks, ${ports} ports, each whole and with a link cut: ${wrong.length === 0 ? 'the kernel does what we say' : `${wrong.length} differences`}.`,
    );
    process.exitCode = wrong.length === 0 ? 0 : 1;
  } finally {
    clear();
  }
}

void main();
