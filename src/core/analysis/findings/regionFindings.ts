/** Findings about MST regions: switches outside by a slip, regions in pieces, trunks that break an instance's tree for a VLAN. */
import { instanceTree, type TreeId } from '../../model/ids';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import { treeOf, type Solution, forwards } from '../../tree/settled';
import type { Network } from '../../topology/network';
import { switchName } from '../../tree/explain/phrases';
import { regionsOf } from '../../topology/region';
import type { Finding, Rule } from './finding';
import { listedVlans } from '../regions/mapping';
import { partsOf } from '../parts';
import { regionsIn, misconfigurationsOf, type Region, type Misconfiguration } from '../regions/regions';
import { membersByVlan } from './vlanFindings';

const RULES: Readonly<Record<Misconfiguration['field'], Rule>> = {
  name: 'region-name-slip',
  revision: 'region-revision-alone',
  map: 'region-map-differs',
  none: 'region-without-settings',
};

/** Everything about regions of a network in which some switch speaks MSTP. */
export function regionFindings(solution: Solution): Finding[] {
  const { network } = solution;
  const regions = regionsIn(network);
  if (regions.length === 0) return [];
  return [...slips(network, regions), ...splits(network, regions), ...brokenTrunks(solution)];
}

/** One finding for each region that is another by a slip, however many switches have it. */
function slips(network: Network, regions: readonly Region[]): Finding[] {
  const byText = new Map<string, Misconfiguration[]>();
  for (const slip of misconfigurationsOf(network, regions)) {
    const odd = regions.findIndex((region) => region.switches.includes(slip.switch));
    byText.set(`${odd} ${slip.field}`, [...(byText.get(`${odd} ${slip.field}`) ?? []), slip]);
  }
  return [...byText.values()].map((alike): Finding => {
    const [{ switch: id, field, region, settings, text }] = alike as [Misconfiguration, ...Misconfiguration[]];
    const name = nameOf(network.design, id);
    const who = alike.length === 1 ? name : `${name} and ${alike.length - 1} more`;
    return {
      rule: RULES[field],
      text: `${text}${alike.length === 1 ? '' : `, and ${alike.length - 1} more like it`}: a boundary runs through what should be the one region ${region.map.configurationId.name || 'without a name'}`,
      why: 'Across the boundary there is no instance, only the CIST: every VLAN takes the same way there, whatever the instances’ roots and costs say.',
      at: { switch: id },
      remedies: [
        {
          label: `give ${who} the region settings of the others`,
          commands: alike.map((slip): Command => ({ do: 'set-switch', switch: slip.switch, region: settings })),
        },
      ],
    };
  });
}

function splits({ design }: Network, regions: readonly Region[]): Finding[] {
  return regions.flatMap(({ map, given, pieces }): Finding[] => {
    const [main, ...others] = pieces;
    if (!given || !main || others.length === 0) return [];
    const listed = (ids: Region['switches']): string =>
      ids
        .slice(0, 3)
        .map((id) => nameOf(design, id))
        .join(', ') + (ids.length > 3 ? ` and ${ids.length - 3} more` : '');
    return [
      {
        rule: 'region-split',
        text: `Region ${map.configurationId.name || 'without a name'} is in ${pieces.length} pieces: ${others.map(listed).join('; ')} ${others.length === 1 && others[0]!.length === 1 ? 'hangs' : 'hang'} on the others only through switches of no or another region`,
        why: 'Each piece is a region by itself, with instance roots of its own; between them every VLAN goes the way of the CIST.',
        at: { switch: others[0]![0]! },
        remedies: [],
      },
    ];
  });
}

/**
 * VLANs that an instance's tree takes over a trunk which does not carry them, where somebody is on both sides: the instance
 * forwards there and blocks the other ways, so the VLAN is cut (802.1Q-2018 8.8.10 against 13.12).
 */
function brokenTrunks(solution: Solution): Finding[] {
  const { network } = solution;
  const { design, switches, owner, far, live, carried, ports, bundleOf } = network;
  const regionOf = regionsOf(design);
  const members = membersByVlan(network);
  const found = new Map<string, { p: number; q: number; tree: TreeId; vids: number[] }>();
  for (const vid of listedVlans(design)) {
    const trees = switches.map((sw) => {
      const map = sw.up ? regionOf(sw) : null;
      return map ? treeOf(solution, instanceTree(map.instanceOf(vid))) : undefined;
    });
    const on = (p: number): boolean => {
      const tree = trees[owner[p]!];
      return tree !== undefined && forwards(tree, p);
    };
    for (let p = 0; p < ports.length; p += 1) {
      const q = far[p]!;
      if (q <= p || !live[p] || !on(p) || !on(q) || (carried[p]!.has(vid) && carried[q]!.has(vid))) continue;
      const parts = partsOf(network, (r) => r !== p && r !== q && on(r));
      const [near, beyond] = [parts[owner[p]!]!, parts[owner[q]!]!];
      if (near === beyond || !needed(near) || !needed(beyond)) continue;
      const tree = trees[owner[p]!]!.id;
      const key = `${p} ${tree}`;
      found.set(key, { p, q, tree, vids: [...(found.get(key)?.vids ?? []), vid] });

      function needed(part: number): boolean {
        return [...(members.get(vid) ?? [])].some((s) => parts[s] === part);
      }
    }
  }
  return [...found.values()].map(({ p, q, tree, vids }): Finding => {
    const vlan = vids.length === 1 ? `VLAN ${vids[0]}` : `VLANs ${vids.join(', ')}`;
    const at = (r: number): string => `${switchName(switches[owner[r]!]!)} port ${ports[r]!.id}`;
    const commands = [p, q].flatMap((r): Command[] => {
      const { vlans } = ports[r]!;
      if (vlans.mode !== 'trunk' || vids.every((vid) => carried[r]!.has(vid))) return [];
      return [
        {
          do: 'set-port',
          switch: switches[owner[r]!]!.id,
          port: ports[bundleOf[r]! < 0 ? r : bundleOf[r]!]!.id,
          vlans: { ...vlans, allowed: carried[r]!.with(vids).format() },
        },
      ];
    });
    const fixable = [p, q].every((r) => ports[r]!.vlans.mode === 'trunk');
    return {
      rule: 'instance-off-trunk',
      text: `${vlan} ${vids.length === 1 ? 'goes' : 'go'} with ${tree === 'mst:0' ? 'the IST' : `instance ${tree.slice(4)}`}, whose tree takes ${at(p)} to ${at(q)}; that trunk does not carry ${vids.length === 1 ? 'it' : 'them'}`,
      why: 'An instance blocks its other ways for all of its VLANs, carried or not: what the trunk leaves out is cut there.',
      at: { switch: switches[owner[p]!]!.id, port: ports[p]!.id, trees: [tree] },
      remedies: fixable && commands.length > 0 ? [{ label: `carry ${vlan} there`, commands }] : [],
    };
  });
}

const nameOf = (design: Design, id: string): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
