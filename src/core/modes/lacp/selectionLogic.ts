/**
 * Which members a bundle takes (802.1AX-2020 6.4.12, Selection Logic): a function of what is known of the partners now.
 * The clause leaves the choice among several link aggregation groups open; here the one with most members is taken, of
 * equal ones that of the best port, so that a single cable that leads elsewhere does not take a bundle down.
 */
/** A system identifier (802.1AX-2020 6.3.2). */
export interface System {
  readonly systemPriority: number;
  readonly mac: string;
}

/** A port identifier (802.1AX-2020 6.3.4). */
export interface PortIdentifier {
  readonly priority: number;
  readonly number: number;
}

/** Negative where `a` is the better system (802.1AX-2020 6.3.2). */
export const compareSystems = (a: System, b: System): number =>
  a.systemPriority - b.systemPriority || (a.mac < b.mac ? -1 : a.mac > b.mac ? 1 : 0);

/** Negative where `a` is the better port (802.1AX-2020 6.3.4). */
export const comparePorts = (a: PortIdentifier, b: PortIdentifier): number =>
  a.priority - b.priority || a.number - b.number;

/** What selection knows of a member with a partner that can aggregate. */
export interface SelectedPort {
  readonly priority: number;
  readonly number: number;
  readonly key: number;
  readonly speed: number;
  readonly partner: {
    readonly systemPriority: number;
    readonly system: string;
    readonly key: number;
    readonly portPriority: number;
    readonly port: number;
  };
}

export interface Chooser {
  readonly systemPriority: number;
  readonly mac: string;
  readonly key: number;
  readonly minLinks: number;
  readonly maxActive: number;
}

/** Why a candidate is not taken. */
export type SelectionRefusal = 'key' | 'own-system' | 'partner' | 'partner-key' | 'speed' | 'limit' | 'too-few';

export interface PortSelection<T extends SelectedPort> {
  /** Taken, the best first. */
  readonly selected: readonly T[];
  readonly refused: ReadonlyMap<T, SelectionRefusal>;
  /** Whether the other end orders the members, having the better system identifier (802.1AX-2020 6.7.3). */
  readonly partnerDecides: boolean;
}

/** Selects among the members of one end. */
export function selectMembers<T extends SelectedPort>(end: Chooser, candidates: readonly T[]): PortSelection<T> {
  const refused = new Map<T, SelectionRefusal>();
  const groups = new Map<string, T[]>();
  for (const each of candidates) {
    if (each.key !== end.key) refused.set(each, 'key');
    else if (
      each.partner.system === end.mac &&
      each.partner.systemPriority === end.systemPriority &&
      each.partner.key === end.key
    )
      refused.set(each, 'own-system');
    else {
      const group = [each.partner.systemPriority, each.partner.system, each.partner.key, each.speed].join('\n');
      groups.set(group, [...(groups.get(group) ?? []), each]);
    }
  }
  const sorted = [...groups.values()].map((group) => [...group].sort(comparePorts));
  const [chosen = []] = sorted.sort((a, b) => b.length - a.length || comparePorts(a[0]!, b[0]!));
  const [first] = chosen;
  if (!first) return { selected: [], refused, partnerDecides: false };
  for (const group of groups.values()) {
    const [other] = group;
    if (!other || chosen.includes(other)) continue;
    const { partner } = other;
    const refusal: SelectionRefusal =
      partner.system !== first.partner.system || partner.systemPriority !== first.partner.systemPriority
        ? 'partner'
        : partner.key !== first.partner.key
          ? 'partner-key'
          : 'speed';
    for (const each of group) refused.set(each, refusal);
  }
  const partnerDecides =
    compareSystems({ systemPriority: first.partner.systemPriority, mac: first.partner.system }, end) < 0;
  const theirs = ({ partner }: T) => ({ priority: partner.portPriority, number: partner.port });
  const order = [...chosen].sort((a, b) => (partnerDecides ? comparePorts(theirs(a), theirs(b)) : comparePorts(a, b)));
  const enough = order.length >= end.minLinks;
  order.forEach((each, i) => {
    if (!enough) refused.set(each, 'too-few');
    else if (i >= end.maxActive) refused.set(each, 'limit');
  });
  return { selected: enough ? order.slice(0, end.maxActive) : [], refused, partnerDecides };
}
