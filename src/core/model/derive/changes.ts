/** What differs between two states of a design, field by field in the order of the document: what everything else is derived from. */
import equal from 'fast-deep-equal';
import { designNode, type Design } from '../document';
import { insideOf, type ListNode, type Node, type Place } from '../field';
import type { TreeId } from '../ids';

/** A field that differs, an item that came or went, or a group that did. */
export interface Change {
  /** The lists that lead to it, with the item in each: the later one, where both have it. */
  readonly within: readonly { readonly list: ListNode; readonly item: unknown; readonly at: Place }[];
  /** The field; of an item that came or went, the list. */
  readonly node: Node;
  /** The tree under whose name it stands. */
  readonly tree: TreeId | null;
  /** `item`: the whole item is new or gone; `group`: so is the group. */
  readonly kind: 'field' | 'item' | 'group';
  readonly before: unknown;
  readonly after: unknown;
}

/** Every difference. Parts that are the same value are not looked into, so after an edit this takes no longer than the edit. */
export function changesBetween(before: Design, after: Design): Change[] {
  const found: Change[] = [];
  walk(designNode, before, after, [], null);
  return found;

  function walk(node: Node, a: unknown, b: unknown, within: Change['within'], tree: TreeId | null): void {
    if (a === b) return;
    const note = (kind: Change['kind']): void => void found.push({ within, node, tree, kind, before: a, after: b });
    if (node.facts?.text || node.kind === 'leaf' || node.kind === 'union') {
      if (!equal(a, b)) note('field');
      return;
    }
    switch (node.kind) {
      case 'group': {
        // A group of which nothing is said stands for its defaults; otherwise it is a thing to say that it is there.
        if (node.facts && (a === undefined || b === undefined)) return note('group');
        for (const [key, field] of node.fields) walk(field, partOf(a, key, field), partOf(b, key, field), within, tree);
        return;
      }
      case 'record':
        for (const key of new Set([...Object.keys(a ?? {}), ...Object.keys(b ?? {})]))
          walk(node.value, partOf(a, key, node.value), partOf(b, key, node.value), within, key as TreeId);
        return;
      case 'list':
        return walkList(node, a as readonly Keyed[], b as readonly Keyed[], within);
    }
  }

  function walkList(list: ListNode, a: readonly Keyed[], b: readonly Keyed[], above: Change['within']): void {
    const inside = (item: Keyed): Change['within'] => [
      ...above,
      { list, item, at: { ...above.at(-1)?.at, ...list.facts?.at?.(item as never) } },
    ];
    const each = (x: Keyed | undefined, y: Keyed | undefined): void => {
      if (x && y) walk(list.item, x, y, inside(y), null);
      else found.push({ within: inside((y ?? x)!), node: list, tree: null, kind: 'item', before: x, after: y });
    };
    if (a.length === b.length && a.every((item, i) => item.id === b[i]!.id))
      return a.forEach((item, i) => each(item, b[i]));
    const later = new Map(b.map((item) => [item.id, item]));
    const earlier = new Set(a.map((item) => item.id));
    for (const item of a) if (item !== later.get(item.id)) each(item, later.get(item.id));
    for (const item of b) if (!earlier.has(item.id)) each(undefined, item);
  }
}

interface Keyed {
  readonly id: string | number;
}

/** A field of a value, or what is filled in where the whole is not there. */
const partOf = (value: unknown, key: string, field: Node): unknown =>
  value === undefined ? field.standard : (value as Record<string, unknown>)[key];

/** Every field that has something to say in a value, with the tree under whose name it stands. */
export function fieldsIn(
  node: Node,
  value: unknown,
  tree: TreeId | null = null,
): (readonly [Node, unknown, TreeId | null])[] {
  if (value === undefined && node.kind !== 'leaf') return [];
  if (node.facts?.text || node.kind === 'leaf') return node.facts ? [[node, value, tree]] : [];
  switch (node.kind) {
    case 'group':
    case 'record':
      return Object.entries(value as object).flatMap(([key, each]) => {
        const inside = insideOf(node, key);
        return inside ? fieldsIn(inside, each, node.kind === 'record' ? (key as TreeId) : tree) : [];
      });
    case 'list':
    case 'union':
      return [];
  }
}
