/** How a switch of a pair stands, in words: as one would hear it from the switch. Pure. */
import type { Switch } from '../../../core/model/document';
import { nameOf } from '../../../core/model/names';
import type { Pair } from '../../../core/topology/pairs';

export function standingOf(pair: Pair | null, sw: Switch): string {
  if (!pair) return 'No other switch is in its domain: it is half of a pair that does not exist.';
  const [primary, secondary] = pair.switches;
  const isPrimary = primary.id === sw.id;
  const other = nameOf(isPrimary ? secondary : primary);
  const part = isPrimary ? 'primary' : 'secondary';
  const heard = pair.keepaliveUp ? 'The keepalive is heard.' : 'The keepalive is not heard.';
  if (!sw.up) return `Without power; ${other} is the pair by itself where it has some.`;
  switch (pair.state) {
    case 'together':
      return `It is one with ${other}, as ${part}. ${heard}`;
    case 'alone':
      return `${other} has no power: this switch is the pair by itself.`;
    case 'yields':
      return isPrimary
        ? `The peer link to ${other} is lost, the keepalive is heard: as primary it goes on, and ${other} has taken its pair bundles down.`
        : `The peer link to ${other} is lost, the keepalive is heard: as secondary it has taken its pair bundles down.`;
    case 'both-alone':
      return `Neither the peer link nor the keepalive leads to ${other}: it takes itself for the pair, and so does ${other}.`;
    case 'unlike':
    case 'off':
      return `It is no pair with ${other}: unlike are their ${pair.unlike.join(', ')}.`;
  }
}
