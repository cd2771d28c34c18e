/** A design as its network tells that it stands, in the form in which the solver's answer is drawn. */
import type { Design } from '../../model/document';
import type { SwitchId } from '../../model/ids';
import { bridgeId, compareBridgeIds } from '../../topology/bridgeId';
import { CODE, stateOf, type SettledTree, type Solution } from '../../tree/settled';
import { solve } from '../../tree/solve';
import { matchPorts, matchSwitches, type Place } from './match';
import { editAll } from '../../edit/edit';
import { mostFrequent } from './draw/mostFrequent';
import { compareObserved } from './compare/compare';
import { treeThere } from './compare/held';
import type { Observation, ObservedTree } from './observation';

/** Roles, states, costs and roots are those that were told; who was not read is as the design says it would be. */
export function asObserved(design: Design, observation: Observation): Solution {
  const { pairs } = matchSwitches(design, observation);
  const places = new Map(pairs.map((pair) => [pair.designed.id, matchPorts(design, pair)]));
  const seen = new Map(pairs.map((pair) => [pair.designed.id, pair]));
  const base = solve(litAsTold(setAsTold(design, observation), observation, places));
  const { network } = base;
  const byMac = new Map(
    pairs.flatMap(({ observed, designed }) => (observed.mac === null ? [] : [[observed.mac, designed.id] as const])),
  );
  const trees = base.trees.map((tree): SettledTree => {
    const told = { ...tree, root: tree.root.slice(), rootPathCost: tree.rootPathCost.slice() };
    const now = { ...told, rootPort: tree.rootPort.slice(), role: tree.role.slice(), cost: tree.cost.slice() };
    const all = { ...now, disputed: tree.disputed.slice(), rank: tree.rank.slice() };
    const ids = network.switches.map((sw) => bridgeId(sw, tree.id));
    network.switches.forEach((sw, s) => {
      const pair = seen.get(sw.id as SwitchId);
      const there = pair && treeThere(sw, pair, tree.id);
      if (!there || tree.root[s]! < 0) return;
      ids[s] = there.bridge;
      const root = byMac.get(there.root.mac);
      if (root !== undefined) all.root[s] = network.switchIndex.get(root) ?? all.root[s]!;
      all.rootPathCost[s] = there.rootPathCost;
      all.rootPort[s] = -1;
      takePorts(all, network, s, there, places.get(sw.id as SwitchId)!);
    });
    // Who was not read follows whom most tell of.
    const roots = all.root.filter((root, s) => root >= 0 && seen.has(network.switches[s]!.id as SwitchId));
    const most = mostFrequent([...roots]);
    if (most !== undefined)
      network.switches.forEach((sw, s) => {
        if (all.root[s]! >= 0 && !seen.has(sw.id as SwitchId)) all.root[s] = most;
      });
    // The election is between those identifiers.
    const bridges = ids.map((_, s) => s).filter((s) => tree.rank[s]! >= 0);
    bridges.sort((a, b) => compareBridgeIds(ids[a]!, ids[b]!)).forEach((s, place) => (all.rank[s] = place));
    return all;
  });
  return { network, trees };
}

/** Settings by which trees are explained. */
const EXPLAINS = new Set(['root', 'bridge priority', 'cost', 'port priority']);

/** With the priorities and costs that were told, so that what explains the trees is what is there. */
function setAsTold(design: Design, observation: Observation): Design {
  const { differences } = compareObserved(solve(design), observation);
  const commands = differences.flatMap(({ what, takeOver }) => (EXPLAINS.has(what) ? (takeOver?.() ?? []) : []));
  const edited = commands.length > 0 ? editAll(design, commands) : null;
  return edited?.ok ? edited.value.design : design;
}

function takePorts(
  { role, cost, disputed, rootPort }: SettledTree,
  network: Solution['network'],
  s: number,
  there: ObservedTree,
  places: ReadonlyMap<number, Place>,
): void {
  for (const port of there.ports) {
    const place = places.get(port.port);
    const p = place ? network.portIndexOf(network.switches[s]!.id, place.of.id) : -1;
    if (p < 0 || role[p] === CODE.absent) continue;
    role[p] = CODE[port.role];
    cost[p] = port.cost;
    // Drawn as it is told: a port that ought to forward and does not is kept from it by something.
    disputed[p] =
      port.role !== 'disabled' && stateOf(port.role) === 'forwarding' && port.state !== 'forwarding' ? 1 : 0;
    if (port.role === 'root') rootPort[s] = p;
  }
}

/** Cables without signal at an end that was read are cut. */
function litAsTold(
  design: Design,
  observation: Observation,
  places: ReadonlyMap<SwitchId, ReadonlyMap<number, Place>>,
): Design {
  const signal = new Map<string, boolean>();
  for (const { observed, designed } of matchSwitches(design, observation).pairs)
    for (const { number, signal: lit } of observed.ports) {
      const place = places.get(designed.id)!.get(number);
      if (place?.kind === 'port') signal.set(`${designed.id}\n${place.of.id}`, lit);
    }
  const links = design.links.map((link) => {
    const told = [link.a, link.b].flatMap((end) => signal.get(`${end.switch}\n${end.port}`) ?? []);
    const up = told.length === 0 ? link.up : told.every((lit) => lit);
    return up === link.up ? link : { ...link, up };
  });
  return links.every((link, i) => link === design.links[i]) ? design : { ...design, links };
}
