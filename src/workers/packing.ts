/** Settled trees as one buffer, so that handing them from the worker costs nothing to speak of. */
import type { TreeId } from '../core/model/ids';
import type { SettledTree } from '../core/tree/settled';

/** Trees of one network: for each, 8-byte costs, then 4-byte arrays, then role codes; `regional` where they have what MSTP adds. */
export interface PackedTrees {
  readonly ids: readonly TreeId[];
  readonly switches: number;
  readonly ports: number;
  readonly regional: readonly boolean[];
  readonly buffer: ArrayBuffer;
}

const strideOf = (switches: number, ports: number): number =>
  Math.ceil((16 * switches + 4 * (4 * switches + 2 * ports) + 3 * ports) / 8) * 8;

/** The arrays of the tree at `index` as views on a buffer. */
function viewsAt(
  buffer: ArrayBuffer,
  index: number,
  switches: number,
  ports: number,
): Required<Omit<SettledTree, 'id'>> {
  let at = index * strideOf(switches, ports);
  const ints = (length: number): Int32Array => {
    const view = new Int32Array(buffer, at, length);
    at += 4 * length;
    return view;
  };
  const rootPathCost = new Float64Array(buffer, at, switches);
  const internal = new Float64Array(buffer, at + 8 * switches, switches);
  at += 16 * switches;
  const views = {
    rootPathCost,
    root: ints(switches),
    rootPort: ints(switches),
    rank: ints(switches),
    cost: ints(ports),
    designated: ints(ports),
  };
  const regionalRoot = ints(switches);
  return {
    ...views,
    role: new Uint8Array(buffer, at, ports),
    disputed: new Uint8Array(buffer, at + 2 * ports, ports),
    regional: { root: regionalRoot, cost: internal, inside: new Uint8Array(buffer, at + ports, ports) },
  };
}

/** Copies trees into one buffer. */
export function packTrees(trees: readonly SettledTree[], switches: number, ports: number): PackedTrees {
  const buffer = new ArrayBuffer(trees.length * strideOf(switches, ports));
  trees.forEach((tree, i) => {
    const views = viewsAt(buffer, i, switches, ports);
    for (const key of ['rootPathCost', 'root', 'rootPort', 'rank', 'cost', 'designated', 'role', 'disputed'] as const)
      views[key].set(tree[key]);
    if (tree.regional)
      for (const key of ['root', 'cost', 'inside'] as const) views.regional[key].set(tree.regional[key]);
  });
  return {
    ids: trees.map((tree) => tree.id),
    switches,
    ports,
    regional: trees.map((tree) => tree.regional !== undefined),
    buffer,
  };
}

/** The trees again, as views on the buffer. */
export const unpackTrees = ({ ids, switches, ports, regional: has, buffer }: PackedTrees): SettledTree[] =>
  ids.map((id, i) => {
    const { regional, ...views } = viewsAt(buffer, i, switches, ports);
    return { id, ...views, ...(has[i] ? { regional } : {}) };
  });
