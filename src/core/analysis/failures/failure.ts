/** What can fail: one cable, one switch, one member of a bundle, one card of a host, all that stands in a group. */
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import type { GroupId, HostId, LinkId, PortId, SwitchId } from '../../model/ids';
import type { Undated } from '../../model/scenario';
import type { Names } from '../../model/names';
import type { Solution } from '../../tree/settled';
import { filledGroups } from '../groups/groups';

/** In the order in which they are told. */
export const FAILURE_KINDS = ['link', 'switch', 'member', 'card', 'group'] as const;
export type FailureKind = (typeof FAILURE_KINDS)[number];

export type Failure =
  /** A cable, one that is no bundle's. */
  | { readonly kind: 'link'; readonly link: LinkId }
  | { readonly kind: 'switch'; readonly switch: SwitchId }
  /** A cable of a bundle. */
  | { readonly kind: 'member'; readonly link: LinkId }
  /** One of the cards of a host, at the port where it is plugged in. */
  | { readonly kind: 'card'; readonly host: HostId; readonly switch: SwitchId; readonly port: PortId }
  /** Every switch of a group loses its power. */
  | { readonly kind: 'group'; readonly group: GroupId; readonly switches: readonly SwitchId[] };

/** Every failure of one thing that works now. */
export function failuresOf({ network }: Solution, kinds: readonly FailureKind[] = FAILURE_KINDS): Failure[] {
  const { design } = network;
  const bundled = new Set(design.bundles.flatMap(({ switch: sw, ports }) => ports.map((port) => `${sw} ${port}`)));
  const cables = design.links.filter((_, l) =>
    network.cable.some((own, p) => own === l && network.macOperational[p] === 1),
  );
  const isMember = ({ a, b }: (typeof cables)[number]): boolean =>
    [a, b].some((end) => bundled.has(`${end.switch} ${end.port}`));
  const all: Readonly<Record<FailureKind, () => Failure[]>> = {
    link: () => cables.filter((link) => !isMember(link)).map(({ id }) => ({ kind: 'link', link: id })),
    switch: () => design.switches.filter((sw) => sw.up).map(({ id }) => ({ kind: 'switch', switch: id })),
    member: () => cables.filter(isMember).map(({ id }) => ({ kind: 'member', link: id })),
    card: () =>
      design.hosts.flatMap((host) =>
        host.attach
          .filter((end) => network.macOperational[network.portIndexOf(end.switch, end.port)] === 1)
          .map((end): Failure => ({ kind: 'card', host: host.id, ...end })),
      ),
    group: () =>
      filledGroups(design).flatMap(({ group, switches }): Failure[] => {
        const up = switches.filter((sw) => network.switches[network.switchIndex.get(sw)!]!.up);
        return up.length > 0 ? [{ kind: 'group', group: group.id, switches: up }] : [];
      }),
  };
  return FAILURE_KINDS.flatMap((kind) => (kinds.includes(kind) ? all[kind]() : []));
}

/** What does it to a design. */
export function commandsOf(failure: Failure): Command[] {
  switch (failure.kind) {
    case 'link':
    case 'member':
      return [{ do: 'set-link', link: failure.link, up: false }];
    case 'switch':
      return [{ do: 'set-switch', switch: failure.switch, up: false }];
    case 'card':
      return [{ do: 'set-port', switch: failure.switch, port: failure.port, up: false }];
    case 'group':
      return failure.switches.map((id) => ({ do: 'set-switch', switch: id, up: false }));
  }
}

/** What happens in a run where it fails; nothing for a host's card, which no action takes away. */
export function actionsOf(failure: Failure): Undated[] {
  switch (failure.kind) {
    case 'link':
    case 'member':
      return [{ do: 'link-down', link: failure.link, light: true }];
    case 'switch':
      return [{ do: 'switch-down', switch: failure.switch }];
    case 'group':
      return failure.switches.map((id) => ({ do: 'switch-down', switch: id }));
    case 'card':
      return [];
  }
}

/** A design after failures. */
export function failed(design: Design, ...failures: readonly Failure[]): Design {
  const edited = editAll(design, failures.flatMap(commandsOf));
  return edited.ok ? edited.value.design : design;
}

/** The switches that a failure takes away. */
export function deadIn(failure: Failure): ReadonlySet<SwitchId> {
  if (failure.kind === 'switch') return new Set([failure.switch]);
  return new Set(failure.kind === 'group' ? failure.switches : []);
}

/** `ridge-a port 1 to ridge-b port 1 is cut`. */
export function failureText(failure: Failure, names: Names): string {
  switch (failure.kind) {
    case 'link':
    case 'member':
      return `${names.link(failure.link)} is cut`;
    case 'switch':
      return `${names.switch(failure.switch)} has no power`;
    case 'card':
      return `the card of ${names.host(failure.host)} at ${names.end(failure)} is dead`;
    case 'group':
      return `group ${names.group(failure.group)} has no power`;
  }
}
