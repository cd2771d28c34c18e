/** What the inspector is about: the selected things themselves, found in the design. */
import type { Bundle, Design, Host, Link, Port, Switch } from '../../core/model/document';
import type { SwitchId } from '../../core/model/ids';
import { bridgePortAt, type Item, type Selection } from './selection';

/** A port and where it is. */
export interface PlacedPort {
  readonly switch: SwitchId;
  readonly port: Port;
}

/** Several things at once, by kind. */
export interface Chosen {
  readonly items: readonly Item[];
  readonly switches: readonly Switch[];
  readonly links: readonly Link[];
  /** The ports at both ends of the links. */
  readonly linkPorts: readonly PlacedPort[];
  readonly ports: readonly PlacedPort[];
  readonly hosts: readonly Host[];
}

/** By kind, what a panel about it is given. */
export interface Subjects {
  readonly design: { readonly design: Design };
  readonly switch: { readonly sw: Switch };
  readonly port: { readonly sw: Switch; readonly port: Port };
  readonly bundle: { readonly bundle: Bundle };
  readonly link: { readonly link: Link };
  readonly host: { readonly host: Host };
  readonly several: { readonly chosen: Chosen };
}

export type SubjectKind = keyof Subjects;
export type Subject = { readonly [K in SubjectKind]: { readonly kind: K } & Subjects[K] }[SubjectKind];

/** Null where the design has no such thing. */
export function subjectOf(design: Design, selection: Selection | null): Subject | null {
  switch (selection?.kind) {
    case undefined:
      return { kind: 'design', design };
    case 'switch': {
      const sw = design.switches.find((each) => each.id === selection.switch);
      return sw ? { kind: 'switch', sw } : null;
    }
    case 'port': {
      const sw = design.switches.find((each) => each.id === selection.switch);
      const { port, bundle } = bridgePortAt(design, selection);
      if (bundle) return { kind: 'bundle', bundle };
      return sw && port ? { kind: 'port', sw, port } : null;
    }
    case 'link': {
      const link = design.links.find((each) => each.id === selection.link);
      return link ? { kind: 'link', link } : null;
    }
    case 'host': {
      const host = design.hosts.find((each) => each.id === selection.host);
      return host ? { kind: 'host', host } : null;
    }
    case 'several':
      return { kind: 'several', chosen: chosenOf(design, selection.items) };
  }
}

/** The ports at both ends of a link. */
export const portsOf = (design: Design, { a, b }: Link): PlacedPort[] =>
  [a, b].flatMap((end) => {
    const port = design.switches.find((sw) => sw.id === end.switch)?.ports.find((each) => each.id === end.port);
    return port ? [{ switch: end.switch, port }] : [];
  });

function chosenOf(design: Design, items: readonly Item[]): Chosen {
  const keys = new Set(items.map(keyOf));
  const has = (item: Item): boolean => keys.has(keyOf(item));
  const links = design.links.filter((link) => has({ kind: 'link', link: link.id }));
  const ends = new Set(links.flatMap(({ a, b }) => [a, b]).map((end) => `${end.switch}\n${end.port}`));
  const placed = design.switches.flatMap((sw) => sw.ports.map((port): PlacedPort => ({ switch: sw.id, port })));
  return {
    items,
    links,
    switches: design.switches.filter((sw) => has({ kind: 'switch', switch: sw.id })),
    linkPorts: placed.filter((each) => ends.has(`${each.switch}\n${each.port.id}`)),
    ports: placed.filter((each) => has({ kind: 'port', switch: each.switch, port: each.port.id })),
    hosts: design.hosts.filter((host) => has({ kind: 'host', host: host.id })),
  };
}

function keyOf(item: Item): string {
  switch (item.kind) {
    case 'switch':
      return `switch ${item.switch}`;
    case 'port':
      return `port ${item.switch}\n${item.port}`;
    case 'link':
      return `link ${item.link}`;
    case 'host':
      return `host ${item.host}`;
  }
}
