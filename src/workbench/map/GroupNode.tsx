'use client';
/** A folded group on the map: its name, how much is in it, and of each tree shown whether its root is there and how many ends block. */
import type { Node, NodeProps } from '@xyflow/react';
import { memo, useMemo } from 'react';
import type { Filled } from '../../core/analysis/groups/groups';
import { insideOf } from '../../core/analysis/groups/counts';
import { treeLabel } from '../../core/model/ids';
import { nameOf } from '../../core/model/names';
import { treeOf } from '../../core/tree/settled';
import { useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { strandStyle } from '../ui/strandStyle';
import { counted } from '../../core/base/words';
import type { Box } from './drawn';
import { Knot } from './knots';
import styles from './map.module.css';
import { inPixels, useScale } from './scale';

export type GroupNodeType = Node<{ box: Box; filled: Filled }, 'folded'>;

export const GroupNode = memo(function GroupNode({ data: { box, filled }, selected }: NodeProps<GroupNodeType>) {
  const scale = useScale();
  const store = useWorkbenchStore();
  const name = nameOf(filled.group);
  const rows = useInside(filled);
  const count = counted(filled.switches.length, 'switch', 'switches');
  const roots = [...new Set(rows.flatMap(({ root }) => root ?? []))];
  const knotted = box.width >= KNOTTED;
  // In the order in which they find room.
  const said = [
    ...rows.map(({ tree, label, colour, root, blocked }) => (
      <span key={tree} className={styles.groupRow} style={{ color: colour }} data-blocked={blocked}>
        {rows.length > 1 && `${label}:`}
        {root && knotted && <Knot colour={colour} title={`root of ${label || 'the common tree'}: ${root}`} />}
        {blocked > 0 ? `${blocked} ${blocked === 1 ? 'blocks' : 'block'}` : root ? 'root' : 'none blocks'}
      </span>
    )),
    ...(roots.length === 1
      ? [
          <span key="root" className={`${styles.groupRow} ${styles.groupRoot}`}>
            root {roots[0]}
          </span>,
        ]
      : []),
    ...(count.length * CHARACTER <= box.width - 4
      ? [
          <span key="count" className={styles.groupRow}>
            {count}
          </span>,
        ]
      : []),
    <button
      key="unfold"
      type="button"
      tabIndex={-1}
      className={`nodrag nopan ${styles.unfold}`}
      onClick={(event) => {
        event.stopPropagation();
        store.getState().fold([filled.group.id], 'unfold');
      }}
    >
      unfold
    </button>,
  ];
  const told = [
    name.slice(0, 200),
    count,
    ...rows.map(
      ({ label, root, blocked }) =>
        `${label || 'common tree'}: ${root ? `root ${root}, ` : ''}${blocked} ${blocked === 1 ? 'blocks' : 'block'}`,
    ),
  ].join('\n');
  return (
    <div style={{ ...inPixels(scale), width: box.width, height: box.height }}>
      <div
        className={`${styles.box} ${styles.group} ${selected ? styles.boxSelected : ''}`}
        style={{ width: box.width, height: box.height }}
        data-group={filled.group.id}
        title={told}
        onDoubleClick={() => store.getState().fold([filled.group.id], 'unfold')}
      >
        {box.name !== null && <span className={`${styles.name} ${box.tight ? styles.nameTight : ''}`}>{box.name}</span>}
        {box.name !== name && <span className={styles.nameWhole}>{name.slice(0, 200)}</span>}
        {said.slice(0, box.rows)}
        {(box.rows < rows.length || !knotted) && roots.length > 0 && (
          <span className={styles.farMarks}>
            {rows.map(({ tree, colour, root }) => root && <Knot key={tree} colour={colour} title={`root: ${root}`} />)}
          </span>
        )}
      </div>
    </div>
  );
});

/** Of a row, pixels. */
const CHARACTER = 6.8;
/** Narrower boxes have the knot of a root on their edge. */
const KNOTTED = 104;

/** Of each tree shown: its root by name where it is inside, and the ends that block. */
function useInside({ switches }: Filled) {
  const settled = useWorkbench((state) => (state.lens === 'Cable' ? null : state.solution));
  const solution = useInstant((clock) => clock.picture) ?? settled;
  const shownTrees = useWorkbench((state) => state.shownTrees);
  return useMemo(
    () =>
      solution
        ? shownTrees.flatMap((id) => {
            const tree = treeOf(solution, id);
            if (!tree) return [];
            const { root, blocked } = insideOf(solution, tree, switches);
            const at = root === null ? undefined : solution.network.switchIndex.get(root);
            const name = at === undefined ? null : nameOf(solution.network.switches[at]!);
            const { colour } = strandStyle(solution.trees.indexOf(tree));
            return [{ tree: id, label: treeLabel(id), colour, root: name, blocked }];
          })
        : [],
    [solution, shownTrees, switches],
  );
}
