/** A design as its stacks and pairs make it stand: whose ports are down for their sake, and pairs side by side. */
import { oncePer } from '../base/cache';
import type { Design, Switch } from '../model/document';
import { downForPairs, pairsOf, type PairDown } from './pairs';
import { withStacks } from './stacks';

/** The design with the ports of stack members that do not act set down, and those that a pair takes down; the secondary of each pair stands behind its primary. */
export const asItStands: (design: Design) => Design = oncePer((given: Design) => {
  const design = withStacks(given);
  if (design.switches.every(({ pair }) => pair === undefined)) return design;
  const down = downForPairs(design);
  return { ...design, switches: besideEachOther(design).map((sw) => withDown(sw, down.get(sw.id))) };
});

/** Ports for keepalives keep their light: what comes in there is for the pair alone. */
function withDown(sw: Switch, down: ReadonlyMap<string, PairDown> | undefined): Switch {
  const isDown = (id: string): boolean => down?.has(id) === true && down.get(id) !== 'keepalive';
  return down ? { ...sw, ports: sw.ports.map((port) => (isDown(port.id) ? { ...port, up: false } : port)) } : sw;
}

function besideEachOther(design: Design): Switch[] {
  const pairs = pairsOf(design).map(({ switches: [first, second] }) => [first.id, second.id] as const);
  const byId = new Map(design.switches.map((sw) => [sw.id, sw]));
  return design.switches.flatMap((sw) => {
    if (pairs.some(([, second]) => second === sw.id)) return [];
    const pair = pairs.find(([first]) => first === sw.id);
    return pair ? [sw, byId.get(pair[1])!] : [sw];
  });
}
