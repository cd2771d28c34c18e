import { bridgePriority as legal } from '../legal';
import { action } from './kind';
import { aboutSwitch, switchFaults, switchFields } from './switchFields';
import { firstFault, inTree, tree, treeFaults } from './treeFields';

export const bridgePriority = action(
  'bridge-priority',
  { ...switchFields, priority: legal, tree },
  {
    faults: (action, topology, trees) => firstFault(switchFaults(action, topology), treeFaults(action.tree, trees)),
    happens: ({ switch: sw, priority, tree: of = null }) => ({
      changes: [{ do: 'set-bridge-priority', switch: sw, tree: of, priority }],
    }),
    text: ({ switch: sw, priority, tree: of }, names) =>
      `${names.switch(sw)} gets bridge priority ${priority}${inTree(of)}`,
    about: aboutSwitch,
  },
);
