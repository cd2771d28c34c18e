/** Two states of a design side by side: every field that differs, in words. */
import type { Design } from '../document';
import { valueText, type Facts, type Node, type Place } from '../field';
import { treeName, treesName, type TreeId } from '../ids';
import type { Names } from '../names';
import { changesBetween, fieldsIn, type Change } from './changes';
import { namesOf } from './names';

/** One setting that differs; null where one of the two has no such thing. */
export interface Difference {
  /** What it is on: `ridge-a`, `ridge-a port 1`, `VLAN 15`. */
  readonly on: string;
  readonly setting: string;
  readonly before: string | null;
  readonly after: string | null;
  readonly at: Place;
}

/** Settings that differ, in the order of the document; those that differ alike in several trees are one. */
export function settingDifferences(before: Design, after: Design): Difference[] {
  const alike = new Map<string, { readonly first: Told; readonly trees: TreeId[] }>();
  for (const told of toldChanges(before, after)) {
    const key = JSON.stringify([told.on, told.label, told.before, told.after]);
    const known = told.tree === null ? undefined : alike.get(key);
    if (known) known.trees.push(told.tree!);
    else
      alike.set(told.tree === null ? `${key} ${alike.size}` : key, {
        first: told,
        trees: told.tree ? [told.tree] : [],
      });
  }
  return [...alike.values()].map(({ first: { on, label, before: x, after: y, at }, trees }) => ({
    on,
    setting: trees.length === 0 ? label : `${label} in ${treesName(trees)}`,
    before: x,
    after: y,
    at,
  }));
}

/** A difference before those in several trees are put together. */
interface Told extends Omit<Difference, 'setting'> {
  readonly label: string;
  readonly tree: TreeId | null;
}

function toldChanges(before: Design, after: Design): Told[] {
  const [was, is] = [namesOf(before), namesOf(after)];
  return changesBetween(before, after).map((change): Told => {
    const { within, node, tree, kind } = change;
    const names = change.after === undefined && kind === 'item' ? was : is;
    const on = within.map(({ list, item }) => list.facts!.nameOf(item as never, names)).join(' ') || 'the design';
    const at = within.at(-1)?.at ?? {};
    if (kind === 'item') {
      const told = (item: unknown, by: Names) =>
        item === undefined ? null : summary(within.at(-1)!.list.item, item, by);
      const label = change.after === undefined ? 'taken away' : 'added';
      return { on, label, tree: null, before: told(change.before, was), after: told(change.after, is), at };
    }
    const [x, y] = [sideText(change, change.before, was), sideText(change, change.after, is)];
    // Two values that are told alike and are not the same: there is more in them than is told.
    return {
      on,
      label: settingName(node.facts, null),
      tree,
      before: x,
      after: x === y && y !== null ? `${y}, otherwise` : y,
      at,
    };
  });
}

function sideText({ node, kind }: Change, value: unknown, names: Names): string | null {
  if (kind === 'group') return (value === undefined ? node.facts?.absent : node.facts?.present) ?? null;
  return valueText(node, value, names);
}

/** `speed, Mb/s`, `cost in VLAN 15`. */
export const settingName = (facts: Facts<unknown> | null, tree: TreeId | null): string =>
  `${facts?.label ?? 'something'}${facts?.unit === undefined ? '' : `, ${facts.unit}`}${tree === null ? '' : ` in ${treeName(tree)}`}`;

/** Everything that is set on a thing, in one line. */
const summary = (node: Node, item: unknown, names: Names): string =>
  fieldsIn(node, item)
    .flatMap(([field, value, tree]) => {
      const text = valueText(field, value, names);
      return text === null || text === '' ? [] : [`${settingName(field.facts, tree)} ${text}`];
    })
    .join('; ');
