/** Findings about networks that mix dialects, by switch or by port: BPDUs that ride through strangers, and loops that no tree sees whole. */
import type { Command } from '../../edit/commands';
import { isInterop, passesOn, runsTrees } from '../../model/document';
import { treesName, treeVlan, type TreeId } from '../../model/ids';
import { vlansText } from '../../model/vlanSet';
import { bpduWay, wayPhrase } from '../../tree/explain/bpduWay';
import { label } from '../../tree/explain/phrases';
import { passing } from '../../tree/passing';
import { CODE, OWN_HEARD, type Solution } from '../../tree/settled';
import { isBundle, type Network } from '../../topology/network';
import { closingPorts } from '../parts';
import type { Finding } from './finding';

/** Bridges that block a port of their own, since switches without part in a VLAN's tree pass its BPDUs on and around. */
export function returningBpduFindings(solution: Solution): Finding[] {
  const { network, trees } = solution;
  const rides = (way: readonly number[]): boolean => way.some((q) => runsTrees(network.switches[network.owner[q]!]!));
  const isHeld = (p: number): boolean => trees.some(({ disputed }) => disputed[p] === OWN_HEARD);
  const found = new Map<number, { readonly way: readonly number[]; readonly trees: TreeId[] }>();
  for (const tree of trees) {
    if (treeVlan(tree.id) === null) continue;
    for (const [p, role] of tree.role.entries()) {
      if (role !== CODE.backup) continue;
      const way = bpduWay(solution, tree.id, tree.designated[p]!, p) ?? [];
      if (!rides(way) && tree.disputed[p] !== OWN_HEARD) continue;
      const known = found.get(p);
      if (known) known.trees.push(tree.id);
      else found.set(p, { way, trees: [tree.id] });
    }
  }
  return [...found].map(([p, { way, trees: own }]): Finding => {
    const sw = network.switches[network.owner[p]!]!;
    const port = network.ports[p]!;
    return {
      rule: 'own-bpdu-returns',
      text: `${label(network, p)} is ${isHeld(p) ? 'held in all VLANs' : `blocked in ${treesName(own)}`}: the switch hears its own BPDUs there${isHeld(p) ? ` in ${treesName(own)}` : ''}${way.length > 0 ? `, through ${wayPhrase(network, way)}` : ''}`,
      why: `${rides(way) ? 'Those switches have no part in the VLAN’s tree and pass its BPDUs on, so that the loop through them is opened at this switch.' : 'Two of its ports are on one segment.'}${isHeld(p) ? ' Its own BPDU check keeps every VLAN from this port until none has come for three hellos.' : ''}`,
      at: { switch: sw.id, port: port.id, trees: own },
      remedies: rides(way) ? [{ label: 'have trees of VLANs on that way', commands: speakThere(network, way) }] : [],
    };
  });
}

/** Every port on a way has trees of VLANs, at switches of the standard dialects. */
const speakThere = (network: Network, way: readonly number[]): Command[] =>
  way.flatMap((q): Command[] => {
    const sw = network.switches[network.owner[q]!]!;
    return runsTrees(sw)
      ? [{ do: 'set-port', switch: sw.id, port: network.ports[q]!.id, speaks: 'per-vlan-rstp', speaksFor: null }]
      : [];
  });

/** Links over which frames circle once all trees have settled: ports that speak otherwise than their switches let no tree see the loop whole. */
export function openLoopFindings(solution: Solution): Finding[] {
  const { network } = solution;
  const { design, switches, ports, owner, far, link } = network;
  if (!ports.some((port, p) => passesOn(port) || isInterop(switches[owner[p]!]!, port))) return [];
  const closing = new Map<number, number[]>();
  const runs = (p: number): boolean => runsTrees(switches[owner[p]!]!);
  for (const vid of new Set([1, ...design.vlans.map(({ id }) => id)])) {
    const passes = passing(solution, vid);
    for (const p of closingPorts(network, (q) => passes[q] === 1))
      if (runs(p) || runs(far[p]!)) closing.set(p, [...(closing.get(p) ?? []), vid]); // else a finding of its own tells it
  }
  return [...closing].map(([p, vids]): Finding => {
    const { id } = design.links[link[p]!]!;
    return {
      rule: 'frames-circle',
      text: `frames of VLAN ${vlansText(vids)} circle: nothing blocks in a loop that ${label(network, p)} to ${label(network, far[p]!)} closes`,
      why: 'Some of its ports speak otherwise than their switches, so that no tree sees the loop whole; the first broadcast never ends.',
      at: { link: id },
      // Of a bundle one cable is not all.
      remedies: isBundle(network, p)
        ? []
        : [{ label: 'cut this link', commands: [{ do: 'set-link', link: id, up: false }] }],
    };
  });
}
