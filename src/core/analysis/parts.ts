/** Which switches hang together over some of the cables, and which cables close a loop. */
import type { Network } from '../topology/network';
import { forwards, type SettledTree } from '../tree/settled';

/** Which switches hang together; `join` gives false for two that do already. */
function islands(count: number) {
  const lead = Int32Array.from({ length: count }, (_, s) => s);
  const find = (s: number): number => {
    while (lead[s] !== s) s = lead[s] = lead[lead[s]!]!;
    return s;
  };
  const join = (s: number, t: number): boolean => {
    const [a, b] = [find(s), find(t)];
    lead[a] = b;
    return a !== b;
  };
  return { find, join };
}

/** The connected part of each switch, as the index of one switch in it, over live cables whose ends are both open. */
export function partsOf({ switches, ports, owner, far, live }: Network, open: (p: number) => boolean): Int32Array {
  const { find, join } = islands(switches.length);
  for (let p = 0; p < ports.length; p += 1)
    if (far[p]! >= 0 && live[p] && open(p) && open(far[p]!)) join(owner[p]!, owner[far[p]!]!);
  return Int32Array.from(switches, (_, s) => find(s));
}

/** A port of each live cable that closes a loop of cables whose ends are both open; those of which `late` says so come after the others. */
export function closingPorts(
  { switches, ports, owner, far, live }: Network,
  open: (p: number) => boolean,
  late: (p: number) => boolean = () => false,
): number[] {
  const { join } = islands(switches.length);
  const all = Array.from(ports.keys()).filter((p) => far[p]! > p);
  return [...all.filter((p) => !late(p)), ...all.filter(late)].filter(
    (p) => far[p]! > p && live[p] && open(p) && open(far[p]!) && !join(owner[p]!, owner[far[p]!]!),
  );
}

/** The parts over the cables that carry a tree's frames. */
export const partsIn = (network: Network, tree: SettledTree): Int32Array => partsOf(network, (p) => forwards(tree, p));

/** How many live cables have no other to take their place, beside them or around: without one of them some switches lose each other. */
export function lonelyCables({ switches, ports, owner, far, live, aggregates }: Network): number {
  const cables: number[][] = switches.map(() => []);
  for (let p = 0; p < ports.length; p += 1)
    if (far[p]! >= 0 && live[p] && owner[far[p]!] !== owner[p]) cables[owner[p]!]!.push(p);
  // Depth first: a cable is alone where nothing beyond it leads back past it.
  const order = new Int32Array(switches.length).fill(-1);
  const low = new Int32Array(switches.length);
  let count = 0;
  let alone = 0;
  for (const start of switches.keys()) {
    if (order[start]! >= 0) continue;
    const way = [{ s: start, by: -1, next: 0 }];
    order[start] = low[start] = count++;
    for (let at = way.at(-1); at; at = way.at(-1)) {
      const p = cables[at.s]![at.next++];
      if (p === undefined) {
        way.pop();
        const back = way.at(-1);
        if (!back) continue;
        low[back.s] = Math.min(low[back.s]!, low[at.s]!);
        if (low[at.s]! > order[back.s]! && (aggregates.get(at.by)?.active.length ?? 1) < 2) alone += 1;
      } else if (far[p] !== at.by) {
        const t = owner[far[p]!]!;
        if (order[t]! >= 0) low[at.s] = Math.min(low[at.s]!, order[t]!);
        else {
          order[t] = low[t] = count++;
          way.push({ s: t, by: p, next: 0 });
        }
      }
    }
  }
  return alone;
}
