'use client';
/** The trees: which are drawn, who is root of each and who stands by. */
import { runsTrees, traitsOf } from '../../core/model/document';
import InputBase from '@mui/material/OutlinedInput';
import { memo, useDeferredValue, useMemo, useState } from 'react';
import { alikeTrees } from '../../core/tree/alike';
import { TextButton } from '../ui/TextButton';
import { CIST, treeInstance, treeLabel, treeName, treesName, treeVlan, type TreeId } from '../../core/model/ids';
import type { Design } from '../../core/model/document';
import { regionsInUse, vlansIn } from '../../core/analysis/regions/mapping';
import { islandRoots, standbyRoot } from '../../core/tree/explain/election';
import { switchName } from '../../core/tree/explain/phrases';
import type { SettledTree, Solution } from '../../core/tree/settled';
import { useClock, useInstant } from '../state/clock';
import { shortened } from '../ui/words/shortened';
import { useFollowing, useWorkbench } from '../state/context';
import { IntentsFoot } from './IntentsFoot';
import styles from './rail.module.css';
import { Swatch } from '../ui/Swatch';
import { isHidden } from '../state/looking';

export function TreeRail() {
  // The map is drawn first; this list follows within a frame or two.
  const solution = useFollowing((state) => state.solution);
  const design = useFollowing((state) => state.design);
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
  const [text, setText] = useState('');
  const wanted = useDeferredValue(text);
  const groups = useMemo(() => {
    const kept = rows.map((row, index) => ({ ...row, index })).filter((row) => fits(row, wanted));
    // At an instant of a run roles change by themselves: each tree stands for itself. So do few.
    if (!solution || instant || rows.length <= FEW) return kept.map((row) => [row]);
    const byTree = new Map(kept.map((row) => [row.id, row]));
    return alikeTrees(solution.trees)
      .map((group) => group.flatMap((tree) => byTree.get(tree.id) ?? []))
      .filter((group) => group.length > 0);
  }, [rows, wanted, solution, instant]);
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
      {rows.length > FEW && (
        <InputBase
          className={styles.find}
          value={text}
          placeholder="VLAN, name or root"
          onChange={(event) => setText(event.target.value)}
          title="such as 10-20, a name, or the start of a root's"
          slotProps={{ input: { 'aria-label': 'Filter trees' } }}
        />
      )}
      <ul className={styles.list}>
        {groups.map((group) =>
          group.length === 1 ? (
            <TreeRow key={group[0]!.id} {...group[0]!} shown={shown} />
          ) : (
            <AlikeRow key={group[0]!.id} rows={group} shown={shown} />
          ),
        )}
      </ul>
      {text !== '' && groups.length === 0 && <p className={styles.empty}>No tree fits.</p>}
      {rows.length > 1 && (
        <p className={styles.keys}>
          <kbd>[</kbd> and <kbd>]</kbd> step through the trees; tick several to draw them side by side.
        </p>
      )}
      <IntentsFoot />
    </nav>
  );
}

/** As many trees are listed one by one; of more, those that are alike share a row. */
const FEW = 10;

/** Characters that a row has room for: number and name. */
const ROOM = 16;

/** Whether a row has every word: a VLAN or a range that holds it, or the start of a word of its name or of a root. */
export function fits({ id, number, name, root, standby }: Row & { readonly id: TreeId }, text: string): boolean {
  const vid = treeVlan(id) ?? treeInstance(id);
  const all = ` ${[number, name, root, standby].join(' ')}`.toLowerCase();
  return text
    .toLowerCase()
    .split(/\s+/)
    .filter(Boolean)
    .every((word) => {
      const range = /^(\d+)-(\d+)$/.exec(word);
      if (range) return vid !== null && vid >= Number(range[1]) && vid <= Number(range[2]);
      return /^\d+$/.test(word) ? vid === Number(word) : all.includes(` ${word}`);
    });
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
    standby: standby < 0 ? 'no standby' : `standby ${nameAt(standby)}`,
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

type ListedRow = Row & { readonly id: TreeId; readonly index: number };

/** Trees that are alike in one row, which can be opened. */
function AlikeRow({ rows, shown }: { readonly rows: readonly ListedRow[]; readonly shown: readonly TreeId[] }) {
  const [open, setOpen] = useState(false);
  const [first] = rows;
  const inside = rows.filter((row) => shown.includes(row.id));
  // The tree that is drawn stands for all of them.
  const front = inside[0] ?? first!;
  return (
    <>
      <TreeRow
        {...front}
        number={treesName(rows.map((row) => row.id))}
        name="one tree"
        wraps
        what={`one of ${rows.length} trees that are alike, ${treeName(front.id)},`}
        shown={shown}
      />
      <li className={styles.more}>
        <TextButton does="plain" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? `fold ${rows.length} trees` : `list all ${rows.length}`}
        </TextButton>
      </li>
      {open && rows.map((row) => <TreeRow key={row.id} {...row} shown={shown} />)}
    </>
  );
}

const TreeRow = memo(function TreeRow({
  id,
  index,
  shown,
  what = treeName(id),
  wraps = false,
  ...row
}: ListedRow & { readonly shown: readonly TreeId[]; readonly what?: string; readonly wraps?: boolean }) {
  const showTree = useWorkbench((state) => state.showTree);
  const drawn = shown.includes(id);
  return (
    <li className={`${styles.item} ${drawn ? styles.shown : ''}`} data-tree={id}>
      <button type="button" className={styles.pick} onClick={() => showTree(id, 'alone')} aria-pressed={drawn}>
        <Swatch index={index} width={28} />
        <span className={styles.text}>
          <span className={row.regions || wraps ? styles.names : styles.name} title={`${row.number} ${row.name}`}>
            <b>{row.number}</b> {row.regions ? row.name : shortened(row.name, Math.max(8, ROOM - row.number.length))}
          </span>
          <span className={styles.roots}>
            <span title={`root ${row.root}`}>root {row.root}</span>
            <span title={row.standby}>{row.standby}</span>
          </span>
          <span className="visually-hidden">, show {what} alone</span>
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
        checked={drawn}
        disabled={drawn && shown.length === 1}
        onChange={() => showTree(id, 'toggle')}
        aria-label={`draw ${what} with the others`}
      />
    </li>
  );
});

/** What kind of network this is, in a few words. */
function kindOf(design: Design): string {
  const dialects = new Set(design.switches.filter(runsTrees).map((sw) => sw.dialect));
  const [only] = dialects;
  if (only === undefined) return '';
  if (dialects.size > 1) return 'mixed modes';
  return traitsOf(only).kind;
}
