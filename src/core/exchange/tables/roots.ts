/** Who is root of each tree and who would be next: a table to read, not to read back. */
import type { Design } from '../../model/document';
import { treeName } from '../../model/ids';
import { bridgeId, bridgeIdText } from '../../topology/bridgeId';
import { islandRoots, standbyRoot } from '../../tree/explain/election';
import { solve } from '../../tree/solve';
import type { Column, DesignTable, Row } from './table';

const column = (head: string): Column => ({ head, path: null, node: null });

/** Solved as its lines are read: who reads tables back has no need of them. */
export function shownRoots(design: Design): DesignTable {
  let rows: readonly Row[] | null = null;
  return {
    key: 'roots',
    name: 'Roots',
    keys: 1,
    columns: ['tree', 'name', 'root', 'bridge identifier', 'standby', 'bridge identifier of the standby'].map(column),
    get rows() {
      return (rows ??= rowsOf(design));
    },
  };
}

/** A line for each root: several where a tree's switches do not all hear each other. */
function rowsOf(design: Design): Row[] {
  const { network, trees } = solve(design);
  const { switches } = network;
  return trees.flatMap((tree) =>
    islandRoots(network, tree).map((root) => {
      const told = (s: number): (string | null)[] =>
        s < 0 ? [null, null] : [switches[s]!.id, bridgeIdText(bridgeId(switches[s]!, tree.id))];
      return { place: [], cells: [tree.id, treeName(tree.id), ...told(root), ...told(standbyRoot(tree, root))] };
    }),
  );
}
