/** What each dialect costs a network: trees that a switch keeps, and BPDUs a second once all has settled. */
import { treeVlan, type SwitchId } from '../design/ids';
import type { Design, Dialect } from '../design/schema';
import type { Network } from '../tree/network';
import { CODE, type SettledTree } from '../tree/settled';
import { solve } from '../tree/solve';
import { setAlike } from './shapes';

export interface ControlCost {
  readonly dialect: Exclude<Dialect, 'off'>;
  /** The most trees that one switch keeps. */
  readonly trees: number;
  /** BPDUs a second that all switches send. */
  readonly sent: number;
  /** The switch that sends and receives the most, BPDUs a second. */
  readonly busiest: { readonly switch: SwitchId; readonly sent: number; readonly received: number } | null;
  /** Whether some switch speaks it now. */
  readonly spoken: boolean;
}

export const COMPARED: readonly ControlCost['dialect'][] = ['stp', 'rstp', 'mstp', 'per-vlan-stp', 'per-vlan-rstp'];

/**
 * Every dialect in turn, spoken by all switches that run spanning tree. A designated port sends a BPDU each hello time
 * of its root (802.1D-1998 8.6.1, 802.1Q-2018 13.34); the tree of VLAN 1 of a per-VLAN dialect sends one
 * of the standard form besides. MSTP sends one for all instances from each port that is designated in any of them; its
 * instances are taken to be the VLAN trees that are set in different ways now.
 */
export function controlCosts(design: Design): ControlCost[] {
  return COMPARED.flatMap((dialect): ControlCost[] => {
    const spoken = design.switches.some((sw) => sw.dialect === dialect);
    const counted = dialect === 'mstp' ? instances(design) : solvedAs(design, dialect);
    if (!counted) return [];
    const { network, trees } = counted;
    const [sent, received] = dialect === 'mstp' ? onceForAll(network, trees) : everyTree(network, trees, dialect);
    const runs = network.switches.flatMap((sw, s) => (sw.up && sw.dialect !== 'off' ? [s] : []));
    const kept = runs.map((s) => counted.kept ?? trees.filter((tree) => takesPart(network, tree, s)).length);
    const busiest = network.switches.reduce((most, _, s) => (sent[s]! + received[s]! > sent[most]! + received[most]! ? s : most), 0);
    const sw = network.switches[busiest];
    return [{ dialect, spoken, trees: Math.max(0, ...kept), sent: sent.reduce((sum, each) => sum + each, 0), busiest: sw ? { switch: sw.id, sent: sent[busiest]!, received: received[busiest]! } : null }];
  });
}

interface Counted {
  readonly network: Network;
  readonly trees: readonly SettledTree[];
  /** How many trees every switch keeps, where that does not depend on its ports. */
  readonly kept: number | null;
}

function solvedAs(design: Design, dialect: Dialect): Counted | null {
  const solution = solve({ ...design, switches: design.switches.map((sw) => (sw.dialect === 'off' ? sw : { ...sw, dialect })) });
  return solution.ok ? { ...solution.value, kept: null } : null;
}

/** The IST, and one instance for each way in which the VLANs' trees are set, where there are several. */
function instances(design: Design): Counted | null {
  const ist = solvedAs(design, 'rstp');
  const vlans = solvedAs(design, 'per-vlan-rstp');
  if (!ist || !vlans) return null;
  const shapes = setAlike(vlans.trees);
  return shapes.length > 1 ? { network: ist.network, trees: [...ist.trees, ...shapes.map((alike) => alike[0]!)], kept: shapes.length + 1 } : { ...ist, kept: 1 };
}

/** Whether a switch keeps a tree: one of its ports is in it. */
function takesPart({ firstPort }: Network, tree: SettledTree, s: number): boolean {
  return tree.role.subarray(firstPort[s], firstPort[s + 1]).some((code) => code !== CODE.absent);
}

type Rates = [sent: Float64Array, received: Float64Array];

/** One BPDU each hello for each tree and designated port. */
function everyTree(network: Network, trees: readonly SettledTree[], dialect: Dialect): Rates {
  const rates: Rates = [new Float64Array(network.switches.length), new Float64Array(network.switches.length)];
  for (const tree of trees) {
    const twice = dialect.startsWith('per-vlan') && treeVlan(tree.id) === 1;
    tree.designated.forEach((speaker, p) => speaker >= 0 && count(network, tree, p, speaker, rates, twice && network.ports[speaker]!.vlans.mode === 'trunk' ? 2 : 1));
  }
  return rates;
}

/** One BPDU each hello of the first tree for each port that is designated in any of them. */
function onceForAll(network: Network, trees: readonly SettledTree[]): Rates {
  const rates: Rates = [new Float64Array(network.switches.length), new Float64Array(network.switches.length)];
  const heard = new Set<string>();
  for (const tree of trees) {
    tree.designated.forEach((speaker, p) => {
      const key = `${speaker} ${p}`;
      if (speaker < 0 || heard.has(key)) return;
      heard.add(key);
      count(network, trees[0]!, p, speaker, rates, 1);
    });
  }
  return rates;
}

/** A port that is its segment's speaker sends; any other one hears it. */
function count({ switches, owner }: Network, tree: SettledTree, p: number, speaker: number, [sent, received]: Rates, times: number): void {
  const s = owner[p]!;
  const root = tree.root[s]!;
  const rate = times / (switches[root < 0 ? s : root]!.timers.hello || 1);
  if (p === speaker) sent[s]! += rate;
  else received[s]! += rate;
}
