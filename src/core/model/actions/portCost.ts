import { methodOf } from '../costMethod';
import { MAX_COST, pathCost } from '../legal';
import { action } from './kind';
import { portFaults, portFields } from './portFields';
import { aboutSwitch } from './switchFields';
import { firstFault, inTree, tree, treeFaults } from './treeFields';

export const portCost = action(
  'port-cost',
  { ...portFields, cost: pathCost, tree },
  {
    faults(action, topology, trees) {
      const sw = topology.switches.find((each) => each.id === action.switch);
      const gone = portFaults(action, topology);
      if (!sw) return gone;
      const most = MAX_COST[methodOf(topology, sw)];
      return firstFault(
        treeFaults(action.tree, trees),
        gone,
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
