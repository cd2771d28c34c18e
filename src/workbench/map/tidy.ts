/** Tidy layout: rows by tier or by distance from the root, ordered by ELK so that few cables cross. */
import type { ELK, ElkNode } from 'elkjs/lib/elk-api';
import type { SwitchId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { islandRoots } from '../../core/tree/explain/election';
import type { SettledTree, Solution } from '../../core/tree/settled';
import { rowLength, type Point } from './geometry';

/** Which row a switch belongs to, the top one 0. */
export type RowOf = (id: SwitchId) => number;

const STEP = { x: 220, y: 190 } as const;
/** Between switches where cables pass a row on their way to the next but one. */
const WIDE = 300;

/** Core above distribution above access. */
export function rowsByTier(design: Design): RowOf {
  const tiers = ['core', 'distribution', 'access'];
  const rows = new Map(design.switches.map((sw) => [sw.id, tiers.indexOf(sw.tier)]));
  return (id) => rows.get(id) ?? 2;
}

/** By the number of cables from the root of the tree's largest island; what is outside comes last. */
export function rowsByRoot({ network }: Pick<Solution, 'network'>, tree: SettledTree): RowOf {
  const [main] = islandRoots(network, tree);
  const hops = new Map<SwitchId, number>();
  const count = (s: number): number => {
    const p = tree.rootPort[s]!;
    return p < 0 ? 0 : 1 + count(network.owner[tree.designated[p]!]!);
  };
  network.switches.forEach((sw, s) =>
    hops.set(sw.id, main !== undefined && tree.root[s] === main ? count(s) : network.switches.length),
  );
  return (id) => hops.get(id) ?? 0;
}

/** What ELK is asked: a layered graph with one partition a row. Cables within a row do not bear on it. */
export function elkGraphOf(design: Design, rowOf: RowOf): ElkNode {
  return {
    id: 'map',
    layoutOptions: {
      'elk.algorithm': 'layered',
      'elk.direction': 'DOWN',
      'elk.partitioning.activate': 'true',
      'elk.layered.spacing.nodeNodeBetweenLayers': '80',
      'elk.spacing.nodeNode': '60',
      'elk.spacing.edgeNode': '40',
      'elk.layered.nodePlacement.strategy': 'BRANDES_KOEPF',
      'elk.randomSeed': '1',
    },
    children: design.switches.map((sw) => ({
      id: sw.id,
      width: 160,
      height: 60,
      layoutOptions: { 'elk.partitioning.partition': String(rowOf(sw.id)) },
    })),
    edges: design.links.flatMap(({ id, a, b }) => {
      const [top, bottom] = rowOf(a.switch) <= rowOf(b.switch) ? [a, b] : [b, a];
      return rowOf(top.switch) === rowOf(bottom.switch)
        ? []
        : [{ id, sources: [top.switch], targets: [bottom.switch] }];
    }),
  };
}

/** Places from ELK's order: each row centred, wide enough for cables that pass through, long rows folded, neighbours in a row set off where cables join them. */
export function placesOf(design: Design, rowOf: RowOf, laidOut: ElkNode): Map<SwitchId, Point> {
  const order = new Map((laidOut.children ?? []).map((node) => [node.id, node.x ?? 0]));
  const passing = design.links.some((link) => Math.abs(rowOf(link.a.switch) - rowOf(link.b.switch)) > 1);
  const longest = rowLength(design.switches.length, STEP);
  const step = passing && design.switches.length <= 40 ? WIDE : STEP.x;
  const rows = new Map<number, SwitchId[]>();
  for (const sw of design.switches) rows.set(rowOf(sw.id), [...(rows.get(rowOf(sw.id)) ?? []), sw.id]);
  const joined = new Set(
    design.links.filter((link) => rowOf(link.a.switch) === rowOf(link.b.switch)).map((link) => rowOf(link.a.switch)),
  );
  const places = new Map<SwitchId, Point>();
  let y = 0;
  for (const [row, ids] of [...rows].sort((a, b) => a[0] - b[0])) {
    ids.sort((a, b) => (order.get(a) ?? 0) - (order.get(b) ?? 0) || (a < b ? -1 : 1));
    const lines = Math.ceil(ids.length / longest);
    const perLine = Math.ceil(ids.length / lines);
    for (let line = 0; line < lines; line += 1) {
      const part = ids.slice(line * perLine, (line + 1) * perLine);
      const offset = joined.has(row) && part.length > 2;
      part.forEach((id, i) =>
        places.set(id, {
          x: Math.round((i - (part.length - 1) / 2) * step),
          y: Math.round(y + (offset && i % 2 === 1 ? 60 : 0)),
        }),
      );
      y += STEP.y + (offset ? 60 : 0);
    }
  }
  return places;
}

/** Lays the switches out in rows. */
export async function tidyPlaces(
  elk: Pick<ELK, 'layout'>,
  design: Design,
  rowOf: RowOf,
): Promise<Map<SwitchId, Point>> {
  return placesOf(design, rowOf, await elk.layout(elkGraphOf(design, rowOf)));
}
