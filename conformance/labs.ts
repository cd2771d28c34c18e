/**
 * `npm run conformance:linux`, `npm run conformance:ovs`: random networks built of real switches from the files that we export,
 * then a cable cut, then settings changed by the scripts that lead there; after each, what the switches say is held against what
 * we say: roots, costs, roles, states, VLANs, bundles, neighbours. In some of them half of the switches stay in our simulator, on
 * cables to the real ones. Needs root, iproute2, Open vSwitch, socat, lldpd; says so and ends well otherwise.
 */
import fc from 'fast-check';
import { RunningLab } from '../src/cli/lab/lab';
import { newLab, takeAway, type Lab } from '../src/cli/lab/standing';
import { NOTHING, SYSTEMS, unable, type Abilities } from '../src/cli/lab/systems';
import { fernhollow, townOffice, valleyStation } from '../src/core/demo/demos';
import { differenceText } from '../src/core/exchange/lab/judge';
import { LAB_SYSTEMS, labTree, type LabSystem } from '../src/core/exchange/lab/labDesign';
import type { Carriage, Design } from '../src/core/model/document';
import type { SwitchId } from '../src/core/model/ids';
import { meshDesign, networkOf } from '../src/core/testing/networks';

/** The shortest that keep to 802.1Q-2018 13.25: what has to be waited for. */
const TIMERS = { hello: 1, maxAge: 6, forwardDelay: 4 };
/** How much later a busy machine may be. */
const LATE_MS = 60_000;
/** Labs that stand at once. */
const AT_ONCE = 6;
const CLI = 'dist/cli/knot-path.cjs';

interface Case {
  readonly name: string;
  /** As it is built, and what it becomes. */
  readonly states: readonly (readonly [what: string, design: Design])[];
  /** Switches that stay in our simulator, on cables to the real ones. */
  readonly joined?: ReadonlySet<SwitchId>;
}

const hurried = (design: Design): Design => ({
  ...design,
  switches: design.switches.map((sw) => ({ ...sw, timers: { ...sw.timers, ...TIMERS } })),
});

const carriage: fc.Arbitrary<Carriage> = fc.constantFrom<Carriage[]>(
  { mode: 'trunk', native: 1 as never, allowed: '1-4094' },
  { mode: 'trunk', native: 15 as never, allowed: '1,15,25-29' },
  { mode: 'trunk', native: 99 as never, allowed: '2-4,1000-1003' },
  { mode: 'access', vlan: 25 as never },
);

/** A network, one of its cables cut, and then priorities, costs and VLANs others at one of its switches. */
const randomCase: fc.Arbitrary<Omit<Case, 'name'>> = fc
  .record({
    mesh: meshDesign,
    carried: fc.array(carriage, { minLength: 12, maxLength: 12 }),
    cut: fc.nat(),
    at: fc.nat(),
    priority: fc.constantFrom(0, 8192, 61_440),
    cost: fc.constantFrom(1, 7, 400, 65_535),
    portPriority: fc.constantFrom(0, 64, 240),
  })
  .map(({ mesh, carried, cut, at, priority, cost, portPriority }) => {
    const whole = withPorts(hurried(mesh), (port, s, p) => ({ ...port, vlans: carried[(3 * s + p) % 12]! }));
    const gone = cut % whole.links.length;
    const broken = { ...whole, links: whole.links.map((link, l) => (l === gone ? { ...link, up: false } : link)) };
    const one = at % whole.switches.length;
    const changed = withPorts(
      { ...broken, switches: broken.switches.map((sw, s) => (s === one ? { ...sw, priority } : sw)) },
      (port, s, p) =>
        s === one && p === 0 ? { ...port, cost, priority: portPriority, vlans: carried[(at + 1) % 12]! } : port,
    );
    return {
      states: [
        ['whole', whole],
        [`link ${whole.links[gone]!.id} cut`, broken],
        [`${whole.switches[one]!.id} set anew`, changed],
      ],
    };
  });

type Port = Design['switches'][number]['ports'][number];
const withPorts = (design: Design, map: (port: Port, s: number, p: number) => Port): Design => ({
  ...design,
  switches: design.switches.map((sw, s) => ({ ...sw, ports: sw.ports.map((port, p) => map(port, s, p)) })),
});

/** Bundles between two switches without a tree: all members; one cable less; the other end's LACP asleep as well; static. */
function bundleCase(): Case {
  const bundled = (modes: readonly [string, string], up = true): Design =>
    networkOf(
      { a: { dialect: 'off' }, b: { dialect: 'off' } },
      ['a 1 = b 1', 'a 2 = b 2', 'a 3 = b 3'],
      { 'a 2': { up } },
      {
        bundles: [
          { id: 'x', number: 1, switch: 'a', ports: ['1', '2', '3'], mode: modes[0], timeout: 'fast' },
          { id: 'y', number: 1, switch: 'b', ports: ['1', '2', '3'], mode: modes[1], timeout: 'fast' },
        ],
      },
    );
  return {
    name: 'bundles',
    states: [
      ['active and passive', bundled(['active', 'passive'])],
      ['a member down', bundled(['active', 'passive'], false)],
      ['static', bundled(['static', 'static'], false)],
      ['active again', bundled(['active', 'active'])],
    ],
  };
}

/** With every other switch in our simulator, from the first or the second on. */
function halfSimulated(each: Case, from: number): Case {
  const [, { switches }] = each.states[0]!;
  const joined = new Set(switches.filter((_, s) => s % 2 === from % 2).map(({ id }) => id));
  return { ...each, name: `${each.name}, half simulated`, joined };
}

const wholeCase = (design: Design): Case => ({ name: design.name, states: [['whole', hurried(design)]] });
const random = (seed: number, numRuns: number): Case[] =>
  fc.sample(randomCase, { seed, numRuns }).map((each, i) => ({ ...each, name: `random ${i}` }));

function cases(small: boolean): Case[] {
  const demos = small ? [fernhollow()] : [fernhollow(), townOffice(), valleyStation()];
  return [
    ...demos.map(wholeCase),
    bundleCase(),
    ...random(4, small ? 3 : 40),
    ...[bundleCase(), ...demos.map(wholeCase), ...random(5, small ? 1 : 20)].map(halfSimulated),
  ];
}

const sleep = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

interface Standing {
  readonly each: Case;
  readonly lab: Lab;
  readonly running: RunningLab;
}

/** Things that are otherwise than we say, once even a busy machine has had time. */
async function lasting(all: readonly Standing[], round: number): Promise<{ wrong: string[]; compared: number }> {
  const left = new Set(all.filter(({ each }) => each.states.length > round));
  let [compared, wrong]: [number, string[]] = [0, []];
  const end = Date.now() + LATE_MS;
  for (;;) {
    wrong = [];
    for (const standing of left) {
      const verdict = standing.running.judge();
      if (verdict.differences.length === 0) {
        compared += verdict.compared;
        left.delete(standing);
      }
      const { name, states } = standing.each;
      wrong.push(...verdict.differences.map((each) => `${name}, ${states[round]![0]}: ${differenceText(each)}`));
    }
    if (left.size === 0 || Date.now() > end) return { wrong, compared };
    await sleep(1000);
  }
}

async function hold(
  kind: LabSystem,
  able: Abilities,
  all: readonly Case[],
): Promise<{ wrong: string[]; compared: number }> {
  const labs: Lab[] = [];
  const clear = (): void => labs.splice(0).forEach(takeAway);
  const interrupted = (): void => (clear(), process.exit(1));
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, interrupted);
  try {
    const standing = all.map((each): Standing => {
      const lab = newLab(CLI);
      labs.push(lab);
      const [, design] = each.states[0]!;
      const running = new RunningLab(lab, design, kind, labTree(design), {
        able,
        ...(each.joined ? { joined: each.joined } : {}),
      });
      running.build();
      return { each, lab, running };
    });
    const [found, longest] = [
      { wrong: [] as string[], compared: 0 },
      Math.max(...all.map(({ states }) => states.length)),
    ];
    for (let round = 0; round < longest; round += 1) {
      if (round > 0)
        for (const { each, running } of standing) if (each.states[round]) running.follow(each.states[round]![1]);
      const { wrong, compared } = await lasting(standing, round);
      found.wrong.push(...wrong);
      found.compared += compared;
    }
    return found;
  } finally {
    for (const signal of ['SIGINT', 'SIGTERM'] as const) process.removeListener(signal, interrupted);
    clear();
  }
}

async function main(): Promise<void> {
  const kind = LAB_SYSTEMS.find((each) => process.argv.includes(each))!;
  const why = unable(kind);
  if (why) {
    console.log(`conformance:${kind} is left out: ${why}.`);
    return;
  }
  const small = process.argv.includes('--small');
  // What not every kernel has is for the whole run: the small one compares the same everywhere.
  const able = small && kind === 'linux' ? NOTHING : SYSTEMS[kind].abilities();
  // Without bonds there would be nothing but loops without a tree.
  const all = cases(small).filter(({ name }) => !name.startsWith('bundles') || kind === 'ovs' || able.bonds);
  const wrong: string[] = [];
  let compared = 0;
  for (let i = 0; i < all.length; i += AT_ONCE) {
    const found = await hold(kind, able, all.slice(i, i + AT_ONCE));
    wrong.push(...found.wrong);
    compared += found.compared;
  }
  for (const line of wrong) console.log(line);
  const without = [...(able.vlans ? [] : ['VLANs']), ...(able.bonds || kind === 'ovs' ? [] : ['bonds'])];
  console.log(
    `${all.length} networks of ${kind}${without.length > 0 ? `, without ${without.join(' and ')}` : ''}, whole, with a cable cut and set anew: ${compared} things are as we say, ${wrong.length} are not.`,
  );
  process.exitCode = wrong.length === 0 ? 0 : 1;
}

void main();
