/** Hung from the root: the switches of one tree in bands of equal root path cost, each near the switch that it hangs on. */
import type { SwitchId } from '../../core/model/ids';
import { islandRoots } from '../../core/tree/explain/election';
import { costsIn, type SettledTree, type Solution } from '../../core/tree/settled';
import { rowLength, type Point } from './geometry';

/** A stripe of the map whose switches have one root path cost; null for those outside the tree. */
export interface Band {
  readonly cost: number | null;
  /** In a CIST with regions: what is added inside of a region. */
  readonly internal: number;
  /** Middle of the stripe and half its height, in map units. */
  readonly y: number;
  readonly half: number;
  readonly switches: number;
}

export interface Hung {
  readonly positions: ReadonlyMap<SwitchId, Point>;
  readonly bands: readonly Band[];
}

const STEP = { x: 225, y: 150 } as const;
/** How much lower every other switch of a band stands. */
const STAGGER = 40;

/** Places for every switch, the root of the largest island on top. */
export function hungFromRoot({ network }: Pick<Solution, 'network'>, tree: SettledTree): Hung {
  const main = islandRoots(network, tree)[0];
  const byCost = new Map<string, number[]>();
  const outside: number[] = [];
  network.switches.forEach((_, s) => {
    if (main === undefined || tree.root[s] !== main) outside.push(s);
    else byCost.set(costsIn(tree, s).join(), [...(byCost.get(costsIn(tree, s).join()) ?? []), s]);
  });
  const groups = [...byCost.values()].map((members) => {
    const [cost = 0, internal = 0] = costsIn(tree, members[0]!);
    return { cost: cost as number | null, internal, members };
  });
  groups.sort((a, b) => a.cost! - b.cost! || a.internal - b.internal);
  if (outside.length > 0) groups.push({ cost: null, internal: 0, members: outside });

  // A band with more switches than a row holds takes several rows.
  const longest = rowLength(network.switches.length, STEP);
  const x = new Map<number, number>();
  const positions = new Map<SwitchId, Point>();
  const bands: Band[] = [];
  let y = 0;
  for (const { cost, internal, members } of groups) {
    const wish = new Map(members.map((s) => [s, x.get(upstreamOf(s)) ?? 0]));
    const ordered = [...members].sort(
      (a, b) => wish.get(a)! - wish.get(b)! || (network.switches[a]!.id < network.switches[b]!.id ? -1 : 1),
    );
    const rows = Math.ceil(ordered.length / longest);
    const perRow = Math.ceil(ordered.length / rows);
    for (let row = 0; row < rows; row += 1) {
      const part = ordered.slice(row * perRow, (row + 1) * perRow);
      // Every other one a little lower: a cable between two of a band does not run behind a third.
      part.forEach((s, i) => {
        const at = {
          x: Math.round((i - (part.length - 1) / 2) * STEP.x),
          y: Math.round(y + row * STEP.y + (part.length > 2 && i % 2 === 1 ? STAGGER : 0)),
        };
        x.set(s, at.x);
        positions.set(network.switches[s]!.id, at);
      });
    }
    const height = (rows - 1) * STEP.y;
    bands.push({
      cost,
      internal,
      y: y + height / 2 + (perRow > 2 ? STAGGER / 2 : 0),
      half: height / 2 + STEP.y / 2 + (perRow > 2 ? STAGGER / 2 : 0),
      switches: members.length,
    });
    y += height + STEP.y + (perRow > 2 ? STAGGER : 0);
  }
  return { positions, bands };

  /** The switch at the other end of the root port; -1 at a root. */
  function upstreamOf(s: number): number {
    const p = tree.rootPort[s]!;
    return p < 0 ? -1 : network.owner[tree.designated[p]!]!;
  }
}
