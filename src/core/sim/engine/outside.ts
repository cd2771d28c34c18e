/** Switches and hosts that are not in the simulation, but at the far ends of real cables. */
import type { Bpdu } from '../../modes/bpdu';
import type { Lacpdu } from '../../modes/lacp/state';
import type { BundleEnd } from '../../topology/lag/ends';
import type { Network } from '../../topology/network';

export interface Outside {
  /** Switch indices that are not in the simulation. */
  readonly switches: ReadonlySet<number>;
  /** A BPDU leaves by an aggregation port whose cable leads there; `origin` is the switch that it is of. */
  readonly transmit: (aggregationPort: number, bpdu: Bpdu, origin: number) => void;
  readonly negotiate: (aggregationPort: number, lacpdu: Lacpdu) => void;
}

/** Whether the cable of an aggregation port leads to a switch outside. */
export function leadsOutside(
  { plug, owner }: Network,
  outside: Outside | undefined,
  aggregationPort: number,
): outside is Outside {
  const far = plug[aggregationPort] ?? -1;
  return outside !== undefined && far >= 0 && outside.switches.has(owner[far]!);
}

/** Whether an end of a bundle is outside: of such a switch, or of a host, all of which are. */
export const isEndOutside = (
  { switchIndex }: Pick<Network, 'switchIndex'>,
  outside: Outside | undefined,
  { owner }: BundleEnd,
): outside is Outside =>
  outside !== undefined && (owner.kind === 'host' || outside.switches.has(switchIndex.get(owner.switch)!));
