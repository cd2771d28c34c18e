/** Whether a root, and its standby, were chosen by priority or by chance: by the MAC address (802.1Q-2018 13.26.3). */
import type { Election } from '../../tree/explain/election';

export interface ByChance {
  readonly root: boolean;
  readonly standby: boolean;
}

export function byChance(election: Election | null): ByChance {
  const [, second, third] = election?.ranking ?? [];
  return {
    root: election?.decidedBy === 'mac',
    standby: second !== undefined && third?.id.priority === second.id.priority,
  };
}
