/** Where a finding or an intent is on the map, as something to select. */
import type { Finding } from '../../../core/analysis/findings/finding';
import type { Item } from '../../state/selection';

export function placeOf({ at }: Pick<Finding, 'at'>): Item | null {
  if (at.link) return { kind: 'link', link: at.link };
  if (at.switch && at.port) return { kind: 'port', switch: at.switch, port: at.port };
  return at.switch ? { kind: 'switch', switch: at.switch } : null;
}
