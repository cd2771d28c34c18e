/**
 * A design as tables, and tables read back as edits: each list of the document is one, its columns are its fields, as the document
 * itself says them; costs and priorities of trees are tables of their own, with a column for each tree.
 */
import { namesOf } from '../../model/derive/names';
import { designNode, type Design } from '../../model/document';
import type { GroupNode, ListNode, Node, RecordNode } from '../../model/field';
import type { Names } from '../../model/names';
import { shownRoots } from './roots';
import { treesOf } from '../../topology/trees';
import { cellOf, type Cell } from './cells';
import type { Column, DesignTable, Row } from './table';

/** A list of the document as a table. */
interface Listed {
  readonly key: string;
  readonly name: string;
  /** The lists that lead to it, the outer first. */
  readonly lists: readonly string[];
  /** What the columns are called that say which item it is. */
  readonly keys: readonly string[];
}

const LISTS: readonly Listed[] = [
  { key: 'switches', name: 'Switches', lists: ['switches'], keys: ['switch'] },
  { key: 'ports', name: 'Ports', lists: ['switches', 'ports'], keys: ['switch', 'port'] },
  { key: 'cables', name: 'Cables', lists: ['links'], keys: ['link'] },
  { key: 'bundles', name: 'Bundles', lists: ['bundles'], keys: ['bundle'] },
  { key: 'hosts', name: 'Hosts', lists: ['hosts'], keys: ['host'] },
  { key: 'vlans', name: 'VLANs', lists: ['vlans'], keys: ['VLAN'] },
  { key: 'groups', name: 'Groups', lists: ['groups'], keys: ['group'] },
];

/** Every table of a design. */
export const tablesOf = (design: Design): DesignTable[] => [
  ...LISTS.map((listed) => listTable(design, listed)),
  ...treeTables(design),
  shownRoots(design),
];

interface Item {
  readonly id: string;
}

function listTable(design: Design, { key, name, lists, keys }: Listed): DesignTable {
  let node: Node = designNode;
  for (const list of lists) node = ((node as GroupNode).fields.get(list) as ListNode).item;
  const columns = columnsOf(node as GroupNode, namesOf(design));
  const rows: Row[] = [];
  const walk = (
    holder: object,
    [list, ...deeper]: readonly string[],
    place: readonly string[],
    ids: readonly string[],
  ): void => {
    for (const item of (holder as Record<string, readonly Item[]>)[list!]!) {
      const here = [...place, list!, String(item.id)];
      const named = [...ids, String(item.id)];
      if (deeper.length > 0) walk(item, deeper, here, named);
      else rows.push({ place: here, cells: [...named, ...columns.map((column) => cellAt(item, column))] });
    }
  };
  walk(design, lists, [], []);
  return {
    key,
    name,
    keys: keys.length,
    columns: [...keys.map(keyColumn), ...columns],
    rows,
  };
}

/** The value of a column in an item. */
export const partAt = (item: unknown, path: readonly string[]): unknown =>
  path.reduce<unknown>((at, key) => (at as Record<string, unknown> | undefined)?.[key], item);

const cellAt = (item: object, { path, node, tells }: Column): Cell =>
  path && node ? cellOf(partAt(item, path), node) : (tells?.(item) ?? null);

/** The fields of a thing that fit into cells: plain ones, and those of groups of plain ones. */
function columnsOf(group: GroupNode, names: Names): Column[] {
  const found: Column[] = [];
  for (const [key, node] of group.fields) {
    const text = node.kind === 'list' ? node.facts?.text : undefined;
    if (text)
      found.push({
        head: headOf(node, key)!,
        path: null,
        node: null,
        tells: (item) => text((item as Record<string, readonly unknown[]>)[key]!, names),
      });
    if (key === 'id' || node.kind === 'list' || node.kind === 'record') continue;
    if (node.kind === 'group') {
      const parts = [...node.fields];
      if (parts.some(([, part]) => part.kind !== 'leaf')) continue;
      for (const [inner, part] of parts)
        found.push({
          head: [node.facts?.label, headOf(part, node.facts ? inner : null) ?? inner].filter(Boolean).join(', '),
          path: [key, inner],
          node: node.optional ? { ...part, optional: true } : part,
        });
    } else found.push({ head: headOf(node, key)!, path: [key], node });
  }
  return found;
}

const headOf = ({ facts }: Node, key: string | null): string | null =>
  facts ? `${facts.label}${facts.unit === undefined ? '' : ` (${facts.unit})`}` : key;

/** Things in whose `trees` something is set, with what says which they are. */
interface Held {
  readonly of: object;
  readonly ids: readonly string[];
  readonly place: readonly string[];
}

/** Priorities of switches, and costs and priorities of ports and bundles, with a column for each tree. */
function treeTables(design: Design): DesignTable[] {
  const trees = treesOf(design);
  const switchNode = itemOf(designNode as GroupNode, 'switches');
  const portNode = itemOf(switchNode, 'ports');
  const table = (
    key: string,
    name: string,
    keys: readonly string[],
    holder: GroupNode,
    field: string,
    items: readonly Held[],
  ): DesignTable => {
    const inTree = (holder.fields.get('trees') as RecordNode).value as GroupNode;
    const own: Column[] = [
      { head: 'all trees', path: [field], node: holder.fields.get(field)! },
      ...trees.map((tree) => ({
        head: tree as string,
        path: ['trees', tree, field],
        node: { ...inTree.fields.get(field)!, optional: true },
      })),
    ];
    return {
      key,
      name,
      keys: keys.length,
      columns: [...keys.map(keyColumn), ...own],
      rows: items.map(({ of, ids, place }) => ({ place, cells: [...ids, ...own.map((column) => cellAt(of, column))] })),
    };
  };
  const switches = design.switches.map((sw): Held => ({ of: sw, ids: [sw.id], place: ['switches', sw.id] }));
  const ends = [
    ...design.switches.flatMap((sw) =>
      sw.ports.map((port): Held => ({ of: port, ids: [sw.id, port.id], place: ['switches', sw.id, 'ports', port.id] })),
    ),
    ...design.bundles.map((bundle): Held => ({
      of: bundle,
      ids: [bundle.switch, bundle.id],
      place: ['bundles', bundle.id],
    })),
  ];
  return [
    table('priorities', 'Priorities', ['switch'], switchNode, 'priority', switches),
    table('costs', 'Costs', ['switch', 'port'], portNode, 'cost', ends),
    table('port-priorities', 'Port priorities', ['switch', 'port'], portNode, 'priority', ends),
  ];
}

const keyColumn = (head: string): Column => ({ head, path: null, node: null });
const itemOf = (group: GroupNode, key: string): GroupNode => (group.fields.get(key) as ListNode).item as GroupNode;
