import { methodOf } from '../costMethod';
import { MAX_COST, pathCost } from '../legal';
import { action, among, ids } from './kind';
import { aboutSwitch, switchFaults, switchFields } from './switchFields';
import { firstFault, inTree, tree, treeFaults } from './treeFields';

export const portCost = action(
  'port-cost',
  { ...switchFields, port: ids.port, cost: pathCost, tree },
  {
    faults(action, topology, trees) {
      const sw = topology.switches.find((each) => each.id === action.switch);
      if (!sw) return switchFaults(action, topology);
      const bundled = topology.bundles.some((each) => each.switch === sw.id && each.id === String(action.port));
      const ports = sw.ports.map(({ id }) => id);
      const most = MAX_COST[methodOf(topology, sw)];
      return firstFault(
        treeFaults(action.tree, trees),
        bundled || ports.includes(action.port)
          ? []
          : [{ field: 'port', found: action.port, allowed: `a port of ${sw.id}: ${among(ports)}` }],
        action.cost <= most
          ? []
          : [{ field: 'cost', found: action.cost, allowed: `1 to ${most} by the ${methodOf(topology, sw)} method` }],
      );
    },
    happens: ({ switch: sw, port, cost, tree: of = null }) => ({
      changes: [{ do: 'set-port-cost', switch: sw, port, tree: of, cost }],
    }),
    text: ({ switch: sw, port, cost, tree: of }, names) =>
      `${names.end({ switch: sw, port })} gets path cost ${cost}${inTree(of)}`,
    about: aboutSwitch,
  },
);
