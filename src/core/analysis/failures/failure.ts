/** What can fail: one cable, one switch, one member of a bundle, one card of a host, all that stands in a group. */
import { editAll } from '../../edit/edit';
import type { Command } from '../../edit/commands';
import type { Design } from '../../model/document';
import type { GroupId, HostId, LinkId, PortId, SwitchId } from '../../model/ids';
import type { Undated } from '../../model/scenario';
import type { Names } from '../../model/names';
import type { Solution } from '../../tree/settled';
import { filledGroups } from '../groups/groups';

/** Kinds of things that fail alone, in the order in which they are told. */
export const FAILURE_KINDS = ['link', 'switch', 'member', 'card', 'group'] as const;
export type FailureKind = (typeof FAILURE_KINDS)[number];

export type Failure =
  | SingleFailure
  /** Both at once. */
  | { readonly kind: 'two'; readonly both: readonly [SingleFailure, SingleFailure] };

export type SingleFailure =
  /** A cable, one that is no bundle's. */
  | { readonly kind: 'link'; readonly link: LinkId }
  | { readonly kind: 'switch'; readonly switch: SwitchId }
  /** A cable of a bundle. */
  | { readonly kind: 'member'; readonly link: LinkId }
  /** One of the cards of a host, at the port where it is plugged in. */
  | { readonly kind: 'card'; readonly host: HostId; readonly switch: SwitchId; readonly port: PortId }
  /** Every switch of a group loses its power. */
  | { readonly kind: 'group'; readonly group: GroupId; readonly switches: readonly SwitchId[] };

/** Most pairs of failures that are tried. */
export const MOST_PAIRS = 2000;

/** Failures two at a time, those of cables and switches: the first ones where there are too many. */
export function inTwos(failures: readonly Failure[]): Failure[] {
  const each = failures.filter(
    (failure): failure is SingleFailure =>
      failure.kind === 'link' || failure.kind === 'switch' || failure.kind === 'member',
  );
  const pairs: Failure[] = [];
  // Along the diagonals: of too many, those among the first.
  for (let sum = 1; sum < 2 * each.length - 2 && pairs.length < MOST_PAIRS; sum += 1)
    for (let i = Math.max(0, sum - each.length + 1); 2 * i < sum && pairs.length < MOST_PAIRS; i += 1)
      pairs.push({ kind: 'two', both: [each[i]!, each[sum - i]!] });
  return pairs;
}

/** Every failure of one thing that works now. */
export function failuresOf({ network }: Solution, kinds: readonly FailureKind[] = FAILURE_KINDS): SingleFailure[] {
  const { design } = network;
  const bundled = new Set(design.bundles.flatMap(({ switch: sw, ports }) => ports.map((port) => `${sw} ${port}`)));
  const cables = design.links.filter((_, l) =>
    network.cable.some((own, p) => own === l && network.macOperational[p] === 1),
  );
  const isMember = ({ a, b }: (typeof cables)[number]): boolean =>
    [a, b].some((end) => bundled.has(`${end.switch} ${end.port}`));
  const all: Readonly<Record<FailureKind, () => SingleFailure[]>> = {
    link: () => cables.filter((link) => !isMember(link)).map(({ id }) => ({ kind: 'link', link: id })),
    switch: () => design.switches.filter((sw) => sw.up).map(({ id }) => ({ kind: 'switch', switch: id })),
    member: () => cables.filter(isMember).map(({ id }) => ({ kind: 'member', link: id })),
    card: () =>
      design.hosts.flatMap((host) =>
        host.attach
          .filter((end) => network.macOperational[network.portIndexOf(end.switch, end.port)] === 1)
          .map((end): SingleFailure => ({ kind: 'card', host: host.id, ...end })),
      ),
    group: () =>
      filledGroups(design).flatMap(({ group, switches }): SingleFailure[] => {
        const up = switches.filter((sw) => network.switches[network.switchIndex.get(sw)!]!.up);
        return up.length > 0 ? [{ kind: 'group', group: group.id, switches: up }] : [];
      }),
  };
  return FAILURE_KINDS.flatMap((kind) => (kinds.includes(kind) ? all[kind]() : []));
}

/** Whether it is of one of some kinds; two at once are of none. */
export const isOf = (failure: Failure, kinds: readonly FailureKind[]): boolean =>
  failure.kind !== 'two' && kinds.includes(failure.kind);

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
    case 'two':
      return failure.both.flatMap(commandsOf);
  }
}

/** What happens in a run where it fails. */
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
      return [{ do: 'port-down', switch: failure.switch, port: failure.port }];
    case 'two':
      return failure.both.flatMap(actionsOf);
  }
}

/** A design after failures. */
export function failed(design: Design, ...failures: readonly Failure[]): Design {
  const edited = editAll(design, failures.flatMap(commandsOf));
  return edited.ok ? edited.value.design : design;
}

/** The switches that a failure takes away. */
export function deadIn(failure: Failure): ReadonlySet<SwitchId> {
  if (failure.kind === 'two') return new Set(failure.both.flatMap((each) => [...deadIn(each)]));
  if (failure.kind === 'switch') return new Set([failure.switch]);
  return new Set(failure.kind === 'group' ? failure.switches : []);
}

/** Whether a failure takes a host's card away, or the switch that it is plugged into. */
export const takesCard = (
  failure: Failure,
  host: HostId,
  end: { readonly switch: SwitchId; readonly port: PortId },
): boolean =>
  failure.kind === 'two'
    ? failure.both.some((each) => takesCard(each, host, end))
    : failure.kind === 'card'
      ? failure.host === host && failure.switch === end.switch && failure.port === end.port
      : deadIn(failure).has(end.switch);

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
    case 'two':
      return failure.both.map((each) => failureText(each, names)).join(' and ');
  }
}
