/** Everything that is set on a switch, its ports and its bundles, as lines that can be read and copied. */
import { designNode, type Design } from '../document';
import { valueText, type ListNode, type Node } from '../field';
import type { SwitchId } from '../ids';
import { fieldsIn } from './changes';
import { settingName } from './compare';
import { namesOf } from './names';

const listOf = (node: Node | undefined): ListNode => node as ListNode;
const SWITCHES = listOf(designNode.fields.get('switches'));
const PORTS = listOf((SWITCHES.item as typeof designNode).fields.get('ports'));
const BUNDLES = listOf(designNode.fields.get('bundles'));

/** The lines of a switch: its settings, then each port and each bundle with theirs below it, indented. */
export function switchLines(design: Design, id: SwitchId): string[] {
  const sw = design.switches.find((each) => each.id === id);
  if (!sw) return [];
  const names = namesOf(design);
  const plugs = new Map<string, string>();
  for (const { a, b } of design.links)
    for (const [here, there] of [
      [a, b],
      [b, a],
    ] as const)
      if (here.switch === id) plugs.set(here.port, names.end(there));
  for (const host of design.hosts)
    for (const at of host.attach) if (at.switch === id) plugs.set(at.port, `host ${names.host(host.id)}`);
  const told = (node: Node, value: unknown, skip: readonly string[] = []): string[] =>
    fieldsIn(node, value).flatMap(([field, own, tree]) => {
      const text = valueText(field, own, names);
      const name = settingName(field.facts, tree);
      return text === null || text === '' || skip.includes(name) ? [] : [`  ${name}: ${text}`];
    });
  return [
    `switch ${names.switch(id)}`,
    ...told(SWITCHES.item, sw, ['name']),
    ...sw.ports.flatMap((port) => {
      const to = plugs.get(port.id);
      return [`port ${port.id}${to ? `, to ${to}` : ''}`, ...told(PORTS.item, port)];
    }),
    ...design.bundles
      .filter((bundle) => bundle.switch === id)
      .flatMap((bundle) => [`bundle ${names.bundle(bundle.id)}`, ...told(BUNDLES.item, bundle, ['switch', 'name'])]),
  ];
}
