/** What is selected on the map and in the tables. */
import type { BridgePortId, HostId, LinkId, SwitchId } from '../../core/model/ids';
import type { Bundle, Design, Port } from '../../core/model/document';

/** A single thing; a bundle is a port of its switch, by its own id. */
export type Item =
  | { readonly kind: 'switch'; readonly switch: SwitchId }
  | { readonly kind: 'port'; readonly switch: SwitchId; readonly port: BridgePortId }
  | { readonly kind: 'link'; readonly link: LinkId }
  | { readonly kind: 'host'; readonly host: HostId };

/** One thing, or several of any kinds. */
export type Selection = Item | { readonly kind: 'several'; readonly items: readonly Item[] };

/** Two items are the same thing. */
export function sameItem(a: Item, b: Item): boolean {
  switch (a.kind) {
    case 'switch':
      return b.kind === 'switch' && a.switch === b.switch;
    case 'port':
      return b.kind === 'port' && a.switch === b.switch && a.port === b.port;
    case 'link':
      return b.kind === 'link' && a.link === b.link;
    case 'host':
      return b.kind === 'host' && a.host === b.host;
  }
}

/** The things in a selection. */
export const itemsOf = (selection: Selection | null): readonly Item[] =>
  selection === null ? [] : selection.kind === 'several' ? selection.items : [selection];

/** The selection that holds these things. */
export function selectionOf(items: readonly Item[]): Selection | null {
  const [only, ...more] = items;
  return only === undefined ? null : more.length === 0 ? only : { kind: 'several', items };
}

/** With a thing more, or less where it was in. */
export function toggled(selection: Selection | null, item: Item): Selection | null {
  const items = itemsOf(selection);
  const rest = items.filter((each) => !sameItem(each, item));
  return selectionOf(rest.length < items.length ? rest : [...items, item]);
}

/** Whether a thing is selected, alone or among others. */
export function isSelected(selection: Selection | null, item: Item): boolean {
  if (selection === null) return false;
  return selection.kind === 'several'
    ? selection.items.some((each) => sameItem(each, item))
    : sameItem(selection, item);
}

/** The switches in a selection. */
export const switchesIn = (selection: Selection | null): SwitchId[] =>
  itemsOf(selection).flatMap((item) => (item.kind === 'switch' ? [item.switch] : []));

/** The switches that a thing is or hangs on. */
export function switchesOf(design: Design, item: Item): SwitchId[] {
  switch (item.kind) {
    case 'switch':
    case 'port':
      return [item.switch];
    case 'link':
      return design.links.filter(({ id }) => id === item.link).flatMap(({ a, b }) => [a.switch, b.switch]);
    case 'host':
      return (design.hosts.find(({ id }) => id === item.host)?.attach ?? []).map((at) => at.switch);
  }
}

/** What of a selection the design still has. */
export function stillThere(design: Design, selection: Selection | null): Selection | null {
  const items = itemsOf(selection);
  const kept = items.filter((item) => has(design, item));
  return kept.length === items.length ? selection : selectionOf(kept);
}

/** The port at a place, or the bundle that stands there; neither where the design has no such thing. */
export function bridgePortAt(
  { switches, bundles }: Design,
  at: { readonly switch: SwitchId; readonly port: BridgePortId },
): { readonly port?: Port | undefined; readonly bundle?: Bundle | undefined } {
  const port = switches.find((sw) => sw.id === at.switch)?.ports.find((each) => each.id === at.port);
  return port ? { port } : { bundle: bundles.find((each) => each.switch === at.switch && each.id === at.port) };
}

function has(design: Design, item: Item): boolean {
  switch (item.kind) {
    case 'link':
      return design.links.some((link) => link.id === item.link);
    case 'host':
      return design.hosts.some((host) => host.id === item.host);
    case 'switch':
      return design.switches.some((sw) => sw.id === item.switch);
    case 'port': {
      const { port, bundle } = bridgePortAt(design, item);
      return (port ?? bundle) !== undefined;
    }
  }
}
