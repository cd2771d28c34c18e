/** What each spanning tree mode costs a network: trees that a switch keeps, and BPDUs a second once all has settled. */
import { spokenAs } from '../regions/asDialect';
import { SPOKEN, isMultiple } from '../../model/document';
import { runsTrees, isPerVlan } from '../../model/document';
import { CIST, treeInstance, treeVlan, type SwitchId } from '../../model/ids';
import type { Design, Dialect } from '../../model/document';
import type { Network } from '../../topology/network';
import { CODE, type SettledTree, type Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';

export interface ControlCost {
  readonly dialect: Dialect;
  /** The most trees that one switch keeps. */
  readonly trees: number;
  /** BPDUs a second that all switches send. */
  readonly sent: number;
  /** The switch that sends and receives the most, BPDUs a second. */
  readonly busiest: { readonly switch: SwitchId; readonly sent: number; readonly received: number } | null;
  /** Whether some switch speaks it now. */
  readonly spoken: boolean;
}

/**
 * Every dialect in turn, spoken by all switches that run spanning tree. A designated port sends a BPDU each hello time
 * of its root (802.1D-1998 8.6.1, 802.1Q-2018 13.34); the tree of VLAN 1 of a per-VLAN dialect sends one
 * of the standard form besides. MSTP sends one for all instances from each port that is designated in any of them; its
 * instances are taken to be the VLAN trees that are set in different ways now.
 */
export const controlCosts = (design: Design): ControlCost[] =>
  SPOKEN.map((dialect) => ({
    dialect,
    spoken: design.switches.some((sw) => sw.dialect === dialect),
    ...controlOf(solve(spokenAs(design, dialect))),
  }));

/** What a network's trees cost it as they are. */
export function controlOf(solution: Solution): Omit<ControlCost, 'dialect' | 'spoken'> {
  const { network, trees } = solution;
  const { sent, received } = bpduRates(solution);
  const runs = network.switches.flatMap((sw, s) => (sw.up && runsTrees(sw) ? [s] : []));
  const kept = runs.map((s) => trees.filter((tree) => takesPart(network, tree, s)).length);
  const busiest = network.switches.reduce(
    (most, _, s) => (sent[s]! + received[s]! > sent[most]! + received[most]! ? s : most),
    0,
  );
  const sw = network.switches[busiest];
  return {
    trees: Math.max(0, ...kept),
    sent: sent.reduce((sum, each) => sum + each, 0),
    busiest: sw ? { switch: sw.id, sent: sent[busiest]!, received: received[busiest]! } : null,
  };
}

/** Whether a switch keeps a tree: one of its ports is in it. */
function takesPart({ firstPort }: Network, tree: SettledTree, s: number): boolean {
  return tree.role.subarray(firstPort[s], firstPort[s + 1]).some((code) => code !== CODE.absent);
}

/** BPDUs a second of each switch, sent and received. */
export interface Rates {
  readonly sent: Float64Array;
  readonly received: Float64Array;
}

/**
 * What a settled network's bridges send: a designated port one BPDU each hello time of its root for each tree; with MSTP one
 * for all instances from each port that is designated in any; the tree of VLAN 1 of a per-VLAN dialect one of the standard form besides.
 */
export function bpduRates({ network, trees }: Solution): Rates {
  const { switches, owner, ports } = network;
  const rates = { sent: new Float64Array(switches.length), received: new Float64Array(switches.length) };
  const told = new Set<string>();
  for (const tree of trees) {
    tree.designated.forEach((transmitPort, p) => {
      if (transmitPort < 0) return;
      const sender = switches[owner[transmitPort]!]!;
      if (isMultiple(sender)) {
        const key = `${transmitPort} ${p}`;
        if (treeInstance(tree.id) === null || told.has(key)) return;
        told.add(key);
      }
      const twice =
        isPerVlan(sender) &&
        (treeVlan(tree.id) === 1 || tree.id === CIST) &&
        ports[transmitPort]!.vlans.mode === 'trunk';
      const root = trees[0]!.root[owner[p]!]!;
      const rate = (twice ? 2 : 1) / (switches[root < 0 ? owner[p]! : root]!.timers.hello || 1);
      (p === transmitPort ? rates.sent : rates.received)[owner[p]!]! += rate;
    });
  }
  return rates;
}
