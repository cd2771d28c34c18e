'use client';
/** The bridge priority of a switch, for all trees and for each shown one. */
import type { Switch } from '../../../core/model/document';
import { treeName, type TreeId } from '../../../core/model/ids';
import { setBridgePriority, settingKey, systemIdExtension } from '../../../core/topology/bridgeId';
import { partOf } from '../../../core/topology/trees';
import { useWorkbench } from '../../state/context';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { counted } from '../../../core/base/words';

export function BridgePriority({ sw }: { readonly sw: Switch }) {
  const { id } = sw;
  const shown = useWorkbench((state) => state.shownTrees);
  const act = useWorkbench((state) => state.act);
  const ownIn = (tree: TreeId) => sw.trees[settingKey(tree, sw.dialect)]?.priority;
  const others = Object.keys(sw.trees).filter(
    (tree) => !shown.some((shownTree) => settingKey(shownTree, sw.dialect) === tree),
  ).length;
  return (
    <section className={styles.section}>
      <h3>Bridge priority</h3>
      <TextSetting
        label="All trees"
        value={String(sw.priority)}
        read={read.bridgePriority}
        commit={(priority) => act({ do: 'set-bridge-priority', switch: id, tree: null, priority })}
      />
      {shown
        .filter((tree) => partOf(sw, tree) === 'bridge')
        .map((tree) => (
          <TextSetting
            key={tree}
            label={treeName(tree)}
            value={String(ownIn(tree) ?? '')}
            placeholder={String(sw.priority)}
            read={read.bridgePriority}
            commit={(priority) =>
              act({ do: 'set-bridge-priority', switch: id, tree: settingKey(tree, sw.dialect), priority })
            }
            adornment={
              systemIdExtension(sw, tree) > 0
                ? `sent as ${setBridgePriority(sw, tree) + systemIdExtension(sw, tree)}`
                : undefined
            }
          />
        ))}
      {others > 0 && (
        <p className={styles.hint}>
          {counted(others, 'other tree has its', 'other trees have their')} own priority here.
        </p>
      )}
    </section>
  );
}
