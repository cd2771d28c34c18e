/**
 * A design as real switches of one kind can be it: one tree, costs that they take, nothing that they do not have. What the lab is
 * built from, and what it is held against; what is left out of the design itself is told.
 */
import { LeftOut } from '../settings/form';
import { MAX_KERNEL_COST } from '../settings/linux';
import { protocolOf } from '../settings/openSwitch';
import {
  DEFAULT_TIMERS,
  runsTrees,
  traitsOf,
  type Bundle,
  type Design,
  type LinkEnd,
  type Port,
  type Switch,
} from '../../model/document';
import { methodOf } from '../../model/costMethod';
import { hasBpduGuard } from '../../model/guard';
import { nameOf } from '../../model/names';
import { treeName, type SwitchId, type TreeId } from '../../model/ids';
import { portIdentifier, setBridgePriority, setPathCost } from '../../topology/bridgeId';
import { pathCostOf, shortPathCost } from '../../topology/pathCost';
import { commonTree, treesOf } from '../../topology/trees';

/** What a lab is built with. */
export const LAB_SYSTEMS = ['linux', 'ovs'] as const;
export type LabSystem = (typeof LAB_SYSTEMS)[number];

export interface LabDesign {
  readonly design: Design;
  /** Sentences. */
  readonly leftOut: readonly string[];
}

/** The tree that is built where none is named: the one that is common to all. */
export function labTree(design: Design): TreeId | null {
  const trees = treesOf(design);
  return trees[commonTree(trees)] ?? trees[0] ?? null;
}

export interface LabOptions {
  /** Whether the kernel has bonds. */
  readonly bonds?: boolean;
  /** Switches that stay in the simulator: they can what it can, with the one tree. */
  readonly joined?: ReadonlySet<SwitchId>;
}

/** `tree`: whose costs and priorities are set; null where no switch runs one. */
export function labDesign(
  design: Design,
  system: LabSystem,
  tree: TreeId | null,
  { bonds = true, joined = new Set() }: LabOptions = {},
): LabDesign {
  const left = new LeftOut();
  if (tree !== null && treesOf(design).length > 1)
    left.note(`There is one tree for all VLANs, with the costs and priorities of ${treeName(tree)}`);
  const cost = costsFor(design, system, tree, left, joined);
  const set = (sw: Switch, port: Port | Bundle, speed: number) => ({
    cost: cost(sw, port, speed),
    priority: tree === null ? port.priority : portIdentifier(port as never, tree, sw.dialect).priority,
    trees: {},
    ...(joined.has(sw.id)
      ? { bpduGuard: hasBpduGuard(port, sw) }
      : {
          edge: system === 'ovs' && port.edge,
          autoEdge: system === 'ovs' && port.autoEdge,
          bpduGuard: system === 'linux' && hasBpduGuard(port, sw),
          rootGuard: system === 'linux' && port.rootGuard,
          loopGuard: false,
          restrictedTcn: false,
          bpduRx: true,
          bpduTx: true,
        }),
    // A probe is a frame of its own, which nobody else sends back as ours do.
    loopProbe: false,
  });
  const kindOf = (sw: Switch): Kind => (joined.has(sw.id) ? 'ours' : system);
  for (const sw of design.switches) noteSwitch(sw, kindOf(sw), left);
  const built: Design = {
    ...design,
    pathCost: 'long',
    regions: [],
    switches: design.switches.map((sw) => ({
      ...labSwitch(sw, kindOf(sw), tree),
      ports: sw.ports.map((port) => ({ ...without(port, PORT_LACKS), ...set(sw, port, port.speed) })),
    })),
    bundles: design.bundles.map((bundle) => {
      const sw = design.switches.find(({ id }) => id === bundle.switch)!;
      return {
        ...without(bundle, [...PORT_LACKS, 'key', 'pairNumber']),
        ...set(sw, bundle, speedOf(sw, bundle)),
        mode: bundle.mode === 'initiate' || bundle.mode === 'answer' ? 'static' : bundle.mode,
        maxActive: Math.max(bundle.maxActive, bundle.ports.length),
      };
    }),
  };
  if (system === 'ovs') {
    const cabled = bonds ? built : withoutHostBonds(built, left);
    const why = 'Open vSwitch runs no spanning tree on a bond, and no LACP beside one';
    return {
      design: withoutBundles(cabled, why, (sw) => !joined.has(sw.id) && runsTrees(sw), left),
      leftOut: left.sentences,
    };
  }
  return {
    design: bonds
      ? built
      : withoutHostBonds(
          withoutBundles(built, 'This kernel has no bonds', (sw) => !joined.has(sw.id), left),
          left,
        ),
    leftOut: left.sentences,
  };
}

function withoutHostBonds(design: Design, left: LeftOut): Design {
  for (const host of design.hosts)
    if (host.bundle) left.note('This kernel has no bonds: what has several cards is not plugged in', nameOf(host));
  return { ...design, hosts: design.hosts.map((host) => (host.bundle ? { ...host, attach: [] } : host)) };
}

/** What no system here has at a port. */
const PORT_LACKS = ['speaks', 'speaksFor', 'externalCost', 'stormLimit', 'lacp', 'stackMember'] as const;

const without = <T extends object>(of: T, keys: readonly string[]): T =>
  Object.fromEntries(Object.entries(of).filter(([key]) => !keys.includes(key))) as T;

const speedOf = (sw: Switch, { ports }: Bundle): number =>
  sw.ports.reduce((sum, { id, speed }) => sum + (ports.includes(id) ? speed : 0), 0);

/** What a switch of a lab is: a real one, or one of ours. */
type Kind = LabSystem | 'ours';

function noteSwitch(sw: Switch, system: Kind, left: LeftOut): void {
  const name = nameOf(sw);
  const dialect = dialectThere(sw, system);
  if (dialect !== sw.dialect) left.note(`${traitsOf(sw.dialect).name} is ${traitsOf(dialect).name} there`, name);
  if (sw.stack) left.note('A stack is one bridge without members', name);
  if (sw.pair) left.note('A pair of switches is two switches', name);
  if (sw.vlanCheck || sw.rootCheck || sw.ownCheck) left.note('There are no checks of VLANs, roots or own BPDUs', name);
  if (sw.timers.ageIncrement !== DEFAULT_TIMERS.ageIncrement)
    left.note('The message age rises by one second there', name);
  for (const port of sw.ports) {
    const lost = PORT_LACKS.filter(
      (key) => key !== 'stackMember' && key !== 'stormLimit' && key in port && port[key] !== undefined,
    );
    if (lost.length > 0 || (system !== 'ours' && (!port.bpduRx || !port.bpduTx)))
      left.note(
        'What is set otherwise at a port (how it speaks, LACP of a member, an external cost) is not',
        `${name} port ${port.id}`,
      );
    if (
      port.loopProbe === true ||
      (system !== 'ours' && (port.loopGuard || port.restrictedTcn)) ||
      (system === 'ovs' && (port.rootGuard || hasBpduGuard(port, sw)))
    )
      left.note('Guards that it does not have are not set', `${name} port ${port.id}`);
  }
}

const dialectThere = (sw: Switch, system: Kind): 'off' | 'stp' | 'rstp' =>
  !runsTrees(sw) ? 'off' : system !== 'linux' && protocolOf(sw.dialect) === 'rstp' ? 'rstp' : 'stp';

function labSwitch(sw: Switch, system: Kind, tree: TreeId | null): Switch {
  return {
    ...without(sw, ['region', 'stack', 'pair', 'recovery', 'pathCost']),
    dialect: dialectThere(sw, system),
    priority: tree === null ? sw.priority : setBridgePriority(sw, tree),
    trees: {},
    timers: { ...sw.timers, ageIncrement: DEFAULT_TIMERS.ageIncrement },
    edgeBpduGuard: false,
    edgeLoopProbe: false,
    vlanCheck: false,
    rootCheck: false,
    ownCheck: false,
  };
}

type CostOf = (sw: Switch, port: Port | Bundle, speed: number) => number;

/** Costs as they are in the design; where they are larger than the system takes, all divided by the same, or by the short method. */
function costsFor(
  design: Design,
  system: LabSystem,
  tree: TreeId | null,
  left: LeftOut,
  joined: ReadonlySet<SwitchId>,
): CostOf {
  const set = (sw: Switch, port: Port | Bundle): number | undefined =>
    tree === null ? port.cost : setPathCost(port as never, tree, sw.dialect);
  const own: CostOf = (sw, port, speed) => set(sw, port) ?? pathCostOf(speed, methodOf(design, sw));
  const kindOf = (sw: Switch): Kind => (joined.has(sw.id) ? 'ours' : system);
  const classic = design.switches.some((sw) => kindOf(sw) === 'linux' || dialectThere(sw, kindOf(sw)) === 'stp');
  const all = [
    ...design.switches.flatMap((sw) => sw.ports.map((port) => own(sw, port, port.speed))),
    ...design.bundles.map((bundle) => {
      const sw = design.switches.find(({ id }) => id === bundle.switch)!;
      return own(sw, bundle, speedOf(sw, bundle));
    }),
  ];
  const most = all.reduce((max, cost) => Math.max(max, cost), 0);
  if (!classic || most <= MAX_KERNEL_COST) return own;
  const by = all.reduce(greatestCommonDivisor, 0);
  if (most / by <= MAX_KERNEL_COST) {
    left.note(`Costs above ${MAX_KERNEL_COST} are too large there: all are divided by ${by}, which changes no tree`);
    return (sw, port, speed) => own(sw, port, speed) / by;
  }
  left.note(
    `Costs above ${MAX_KERNEL_COST} are too large there: they are those of the short method, or ${MAX_KERNEL_COST}`,
  );
  return (sw, port, speed) => Math.min(MAX_KERNEL_COST, set(sw, port) ?? shortPathCost(speed));
}

const greatestCommonDivisor = (a: number, b: number): number => (b === 0 ? a : greatestCommonDivisor(b, a % b));

/** At these switches a bundle is its first member that has a cable, a port of its own that is set as the bundle is; the rest is unplugged. */
function withoutBundles(design: Design, why: string, at: (sw: Switch) => boolean, left: LeftOut): Design {
  const out = new Set<string>();
  const inside = new Map<string, Bundle>();
  const plugged = new Map(
    design.links.flatMap((link) => [link.a, link.b].map((end) => [`${end.switch} ${end.port}`, link] as const)),
  );
  const isAt = (id: SwitchId): boolean => at(design.switches.find((sw) => sw.id === id)!);
  for (const bundle of design.bundles) {
    if (!isAt(bundle.switch)) continue;
    // Both ends keep the same cable, whatever is cut: the one that comes first in the design.
    const cables = bundle.ports
      .flatMap((port) => {
        const link = plugged.get(`${bundle.switch} ${port}`);
        return link ? [{ port, link }] : [];
      })
      .sort((a, b) => design.links.indexOf(a.link) - design.links.indexOf(b.link));
    const kept = cables[0]?.port ?? bundle.ports[0]!;
    inside.set(`${bundle.switch} ${kept}`, bundle);
    for (const port of bundle.ports) if (port !== kept) out.add(`${bundle.switch} ${port}`);
    left.note(`${why}: a bundle is its first member alone`, `${bundle.switch} ${bundle.id}`);
  }
  const isOut = (end: LinkEnd): boolean => out.has(`${end.switch} ${end.port}`);
  return {
    ...design,
    bundles: design.bundles.filter((bundle) => !isAt(bundle.switch)),
    links: design.links.filter(({ a, b }) => !isOut(a) && !isOut(b)),
    hosts: design.hosts.map((host) => ({
      ...(host.attach.some((end) => isAt(end.switch)) ? without(host, ['bundle']) : host),
      attach: host.attach.filter((end) => !isOut(end)),
    })),
    switches: design.switches.map((sw) => ({
      ...sw,
      ports: sw.ports.map((port) => {
        if (isOut({ switch: sw.id, port: port.id })) return { ...port, up: false };
        const bundle = inside.get(`${sw.id} ${port.id}`);
        if (!bundle) return port;
        const { vlans, cost, priority, edge, autoEdge, bpduGuard, rootGuard } = bundle;
        return { ...port, vlans, cost, priority, edge, autoEdge, bpduGuard, rootGuard };
      }),
    })),
  };
}
