/** What must be solved, simulated or laid out again after a change: what the tables say reads the fields that differ. */
import type { Design } from '../document';
import type { Node, Reader } from '../field';
import type { TreeId } from '../ids';
import { changesBetween } from './changes';

export interface Dirty {
  /** The trees that can have moved. */
  readonly trees: ReadonlySet<TreeId> | 'all';
  /** Whether who hears whom, or which trees there are, can be another. */
  readonly wiring: boolean;
  /** Whether a run of the protocols can come out otherwise. */
  readonly run: boolean;
  /** Whether it is more than the trees named that makes it so. */
  readonly runOfAll: boolean;
  /** Whether the places on the map can. */
  readonly layout: boolean;
}

/** What reads the difference between two states of a design. */
export function dirtyBetween(before: Design, after: Design): Dirty {
  const trees = new Set<TreeId>();
  const readers = new Set<Reader>();
  for (const { node, tree } of changesBetween(before, after)) {
    const reader = readerOf(node);
    readers.add(reader);
    if (reader === 'tree' && tree !== null) trees.add(tree);
  }
  const wiring = readers.has('trees');
  const moves = wiring || readers.has('settings');
  return {
    trees: moves ? 'all' : trees,
    wiring,
    run: moves || trees.size > 0 || readers.has('run'),
    runOfAll: moves || readers.has('run'),
    layout: moves || readers.has('layout'),
  };
}

/** Who reads a field; what says nothing of itself is read by everybody. */
const readerOf = ({ facts }: Node): Reader => facts?.reads ?? 'trees';
