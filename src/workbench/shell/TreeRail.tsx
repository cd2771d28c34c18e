'use client';
/** The trees: which are drawn, who is root of each and who stands by. */
import { runsTrees, traitsOf } from '../../core/model/document';
import { memo, useDeferredValue, useMemo } from 'react';
import { CIST, treeInstance, treeLabel, treeName, treeVlan, type TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { regionsInUse, vlansIn } from '../../core/analysis/regions/mapping';
import { islandRoots, standbyRoot } from '../../core/tree/explain/election';
import { switchName } from '../../core/tree/explain/phrases';
import type { SettledTree, Solution } from '../../core/tree/settled';
import { useClock, useInstant } from '../state/clock';
import { useWorkbench } from '../state/context';
import styles from './rail.module.css';
import { Swatch } from '../ui/Swatch';
import { isHidden } from '../state/looking';

export function TreeRail() {
  // The map is drawn first; this list follows within a frame or two.
  const solution = useDeferredValue(useWorkbench((state) => state.solution));
  const design = useDeferredValue(useWorkbench((state) => state.design));
  const settled = useMemo(
    () => solution?.trees.map((tree) => ({ id: tree.id, ...rowOf(design, solution, tree) })) ?? [],
    [design, solution],
  );
  // Where switches change their dialect, a run has trees that the design does not have now.
  const played = useClock(({ player }) => player?.trace.trees.join('\n') ?? null);
  const others = played !== null && played !== settled.map((row) => row.id).join('\n');
  const instant = useInstant(({ picture }) => (others ? picture : null));
  const rows = useMemo(
    () => instant?.trees.map((tree) => ({ id: tree.id, ...rowAt(instant.network.design, instant, tree) })) ?? settled,
    [instant, settled],
  );
  const shown = useWorkbench((state) => state.shownTrees);
  const problem = useWorkbench((state) => state.problem !== null);
  const hidden = useWorkbench(isHidden);
  return (
    <nav className={styles.rail} aria-label="Trees">
      <header className={styles.head}>
        <h2>Trees</h2>
        <span>{kindOf(design)}</span>
      </header>
      {problem && <p className={styles.empty}>No trees: see the message above the map.</p>}
      {hidden && <p className={styles.empty}>Hidden while a worksheet is filled in.</p>}
      {solution?.trees.length === 0 && <p className={styles.empty}>No switch here runs spanning tree yet.</p>}
      <ul className={styles.list}>
        {rows.map((row, index) => (
          <TreeRow key={row.id} {...row} index={index} shown={shown.includes(row.id)} alone={shown.length === 1} />
        ))}
      </ul>
      {rows.length > 1 && (
        <p className={styles.keys}>
          <kbd>[</kbd> and <kbd>]</kbd> step through the trees; tick several to draw them side by side.
        </p>
      )}
    </nav>
  );
}

interface Row {
  readonly number: string;
  readonly name: string;
  readonly root: string;
  readonly standby: string;
  readonly islands: number;
  /** Its islands are regions. */
  readonly regions: boolean;
}

function rowOf(design: Design, solution: Solution, tree: SettledTree): Row {
  const roots = islandRoots(solution.network, tree);
  const [root] = roots;
  const standby = root === undefined ? -1 : standbyRoot(tree, root);
  const nameAt = (s: number) => switchName(solution.network.switches[s]!);
  return {
    ...namesOf(design, tree.id),
    root: root === undefined ? 'none' : nameAt(root),
    standby: standby < 0 ? 'no standby' : nameAt(standby),
    islands: roots.length,
    regions: isInstance(tree.id),
  };
}

/** A tree at an instant of a run: who leads where then; who would stand by is not known. */
function rowAt(design: Design, { network }: Pick<Solution, 'network'>, tree: SettledTree): Row {
  const roots = [...tree.root.keys()].filter((s) => tree.root[s] === s);
  return {
    ...namesOf(design, tree.id),
    root: roots.length === 0 ? 'none now' : switchName(network.switches[roots[0]!]!),
    standby: '',
    islands: roots.length,
    regions: isInstance(tree.id),
  };
}

const isInstance = (tree: TreeId): boolean => treeInstance(tree) !== null && tree !== CIST;

function namesOf(design: Design, tree: TreeId): Pick<Row, 'number' | 'name'> {
  const vid = treeVlan(tree);
  return {
    number: treeLabel(tree),
    name:
      vid === null
        ? standardName(design, tree)
        : (design.vlans.find((vlan) => vlan.id === vid)?.name ?? (vid === 1 ? 'default' : '')),
  };
}

/** Which VLANs a tree of a network with MSTP is for: those that regions map to it. */
function standardName(design: Design, tree: TreeId): string {
  const mstid = treeInstance(tree);
  if (mstid === null) return 'Common tree';
  const [only, ...others] = new Set(
    regionsInUse(design).map(({ instances }) => vlansIn(design, instances, mstid).format()),
  );
  if (others.length > 0) return 'maps differ';
  return only === undefined ? 'every VLAN' : only === '' ? 'no VLAN' : `VLAN ${only.replaceAll(',', ', ')}`;
}

const TreeRow = memo(function TreeRow({
  id,
  index,
  shown,
  alone,
  ...row
}: Row & { readonly id: TreeId; readonly index: number; readonly shown: boolean; readonly alone: boolean }) {
  const showTree = useWorkbench((state) => state.showTree);
  return (
    <li className={`${styles.item} ${shown ? styles.shown : ''}`} data-tree={id}>
      <button
        type="button"
        className={styles.pick}
        onClick={() => showTree(id, 'alone')}
        aria-pressed={shown}
        aria-label={`show ${treeName(id)} alone`}
      >
        <Swatch index={index} width={28} />
        <span className={styles.text}>
          <span className={row.regions ? styles.names : styles.name} title={row.name}>
            <b>{row.number}</b> {row.name}
          </span>
          <span className={styles.roots}>
            <span title="root">root {row.root}</span>
            <span title="standby root">{row.standby}</span>
          </span>
          {row.islands > 1 && (
            <span className={styles.islands} title="each with its own root">
              {row.islands} {row.regions ? 'regions' : 'islands, each with its root'}
            </span>
          )}
        </span>
      </button>
      <input
        type="checkbox"
        className={styles.tick}
        checked={shown}
        disabled={shown && alone}
        onChange={() => showTree(id, 'toggle')}
        aria-label={`draw ${treeName(id)} with the others`}
      />
    </li>
  );
});

/** What kind of network this is, in a few words. */
function kindOf(design: Design): string {
  const dialects = new Set(design.switches.filter(runsTrees).map((sw) => sw.dialect));
  const [only] = dialects;
  if (only === undefined) return '';
  if (dialects.size > 1) return 'mixed dialects';
  return traitsOf(only).kind;
}
