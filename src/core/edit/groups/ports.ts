import { bundleSchema, portSchema } from '../../model/document';
import { nodeOf, type GroupNode } from '../../model/field';
import { pathCost, portPriority } from '../../model/legal';
import { command } from '../command';
import { copyOf, findBridgePort, findPort, findSwitch, setOnPort } from '../draft';
import { did, say } from '../phrase';
import { applySettings, settingsOf, settingsText } from '../settings';
import { bridgePortId, portId, switchId, treeOrAll } from './ids';

const [ownNode, bundleNode] = [nodeOf(portSchema) as GroupNode, nodeOf(bundleSchema) as GroupNode];
const plain = portSchema.omit({ id: true, cost: true, externalCost: true, priority: true, trees: true }).shape;
/** Of a bundle what it has in common with ports can be set so. */
const fitsBundle = (settings: object): boolean =>
  Object.entries(settings).every(
    ([key, value]) => value === undefined || bundleNode.fields.get(key) === ownNode.fields.get(key),
  );

const bridgePort = { switch: switchId, port: bridgePortId };

export const portCommands = [
  command(
    'add-port',
    { switch: switchId, port: portSchema },
    {
      apply: (draft, { switch: sw, port }) => void findSwitch(draft, sw).ports.push(copyOf(port)),
      say: ({ names }, { switch: sw, port }) => did('added', '', `${names.switch(sw)} port ${port.id}`),
    },
  ),
  /** Or a bundle by its id. */
  command(
    'set-port',
    { ...bridgePort, ...settingsOf(plain) },
    {
      apply(draft, { do: _, switch: sw, port, ...settings }) {
        const found = fitsBundle(settings) ? findBridgePort(draft, sw, port) : findPort(draft, sw, port);
        applySettings(ownNode, found, settings);
      },
      say: (naming, { do: _, switch: sw, port, ...settings }) =>
        say(
          '',
          naming.names.end({ switch: sw, port }),
          `: ${settingsText(ownNode, naming.bridgePort(sw, port), settings, naming.names)}`,
        ),
    },
  ),
  command(
    'set-port-cost',
    { ...bridgePort, tree: treeOrAll, cost: pathCost.nullable() },
    {
      apply: (draft, { switch: sw, port, tree, cost }) =>
        setOnPort(findBridgePort(draft, sw, port), tree, 'cost', cost),
      say(naming, { switch: sw, port, tree, cost }) {
        const own = naming.bridgePort(sw, port);
        const before = (tree === null ? undefined : own?.trees[tree]?.cost) ?? own?.cost;
        const end = naming.names.end({ switch: sw, port });
        return say('cost of ', end, `: ${before ?? 'from speed'} to ${cost ?? 'none of its own'}`, [tree]);
      },
    },
  ),
  /** Of an MSTP port: what it costs toward bridges outside of its region; null: as `cost`, or the speed. */
  command(
    'set-external-cost',
    { ...bridgePort, cost: pathCost.nullable() },
    {
      apply: (draft, { switch: sw, port, cost: externalCost }) =>
        applySettings(ownNode, findBridgePort(draft, sw, port), { externalCost }),
      say(naming, { switch: sw, port, cost }) {
        const before = naming.bridgePort(sw, port)?.externalCost;
        const end = naming.names.end({ switch: sw, port });
        return say('external cost of ', end, `: ${before ?? 'as its cost'} to ${cost ?? 'as its cost'}`);
      },
    },
  ),
  command(
    'set-port-priority',
    { ...bridgePort, tree: treeOrAll, priority: portPriority.nullable() },
    {
      apply: (draft, { switch: sw, port, tree, priority }) =>
        setOnPort(findBridgePort(draft, sw, port), tree, 'priority', priority),
      say(naming, { switch: sw, port, tree, priority }) {
        const own = naming.bridgePort(sw, port);
        const before = (tree === null ? undefined : own?.trees[tree]?.priority) ?? own?.priority;
        const end = naming.names.end({ switch: sw, port });
        return say('port priority of ', end, `: ${before} to ${priority ?? 'none of its own'}`, [tree]);
      },
    },
  ),
  /** It leaves with its cable, its place in a bundle, and the plug of a host. */
  command(
    'remove-port',
    { switch: switchId, port: portId },
    {
      apply(draft, { switch: sw, port: id }) {
        findPort(draft, sw, id);
        const here = (at: { switch: string; port: string }) => at.switch === sw && at.port === id;
        const owner = findSwitch(draft, sw);
        owner.ports = owner.ports.filter((port) => port.id !== id);
        draft.links = draft.links.filter((link) => !here(link.a) && !here(link.b));
        for (const bundle of draft.bundles)
          if (bundle.switch === sw && bundle.ports.includes(id))
            bundle.ports = bundle.ports.filter((port) => port !== id);
        if (draft.bundles.some((bundle) => bundle.ports.length === 0))
          draft.bundles = draft.bundles.filter((bundle) => bundle.ports.length > 0);
        for (const host of draft.hosts) if (host.attach.some(here)) host.attach = host.attach.filter((at) => !here(at));
      },
      say: ({ names }, { switch: sw, port }) => did('removed', '', names.end({ switch: sw, port })),
    },
  ),
] as const;
