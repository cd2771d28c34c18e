'use client';
/** What a port or a bundle costs, and its priority. */
import type { BridgePort } from '../../../core/topology/bridges';
import { isMultiple } from '../../../core/model/document';
import { methodOf } from '../../../core/model/costMethod';
import { CIST, treeName, type SwitchId, type TreeId } from '../../../core/model/ids';
import { settingKey } from '../../../core/topology/bridgeId';
import { partOf } from '../../../core/topology/trees';
import { pathCostOf } from '../../../core/topology/pathCost';
import { useWorkbench } from '../../state/context';
import { groupText } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';

/** Cost and priority of a port or a bundle, for all trees and for each shown one. */
export function SteerSettings({
  id,
  port,
}: {
  readonly id: SwitchId;
  readonly port: Pick<BridgePort, 'id' | 'speed' | 'cost' | 'externalCost' | 'priority' | 'trees'>;
}) {
  const drawn = useWorkbench((state) => state.shownTrees);
  const sw = useWorkbench(({ design }) => design.switches.find((each) => each.id === id));
  const method = useWorkbench(({ design }) => methodOf(design, design.switches.find((sw) => sw.id === id) ?? {}));
  const act = useWorkbench((state) => state.act);
  const fromSpeed = pathCostOf(port.speed, method);
  const shown = [
    ...new Set(drawn.flatMap((tree) => (sw && partOf(sw, tree) === 'bridge' ? [settingKey(tree, sw.dialect)] : []))),
  ];
  const others = Object.keys(port.trees).filter((tree) => !shown.some((shownTree) => shownTree === tree)).length;
  const cost = (tree: TreeId | null) => (value: number | null) =>
    act({ do: 'set-port-cost', switch: id, port: port.id, tree, cost: value });
  const priority = (tree: TreeId | null) => (value: number | null) =>
    act({ do: 'set-port-priority', switch: id, port: port.id, tree, priority: value });
  return (
    <section className={styles.section}>
      <h3>Path cost and port priority</h3>
      <TextSetting
        label="Cost, all trees"
        value={String(port.cost ?? '')}
        placeholder={groupText(fromSpeed)}
        adornment={port.cost === undefined ? 'from speed' : undefined}
        read={read.pathCost(method)}
        commit={cost(null)}
        note={port.cost === undefined ? undefined : `${groupText(fromSpeed)} by its speed; empty to go back to that`}
      />
      {sw && isMultiple(sw) && (
        <TextSetting
          label="Cost, external"
          value={String(port.externalCost ?? '')}
          placeholder={groupText(port.cost ?? fromSpeed)}
          adornment={port.externalCost === undefined ? 'as all' : undefined}
          read={read.pathCost(method)}
          commit={(value) => act({ do: 'set-external-cost', switch: id, port: port.id, cost: value })}
          note="In the CIST, where the port leads out of its region"
        />
      )}
      {shown.map((tree) => (
        <TextSetting
          key={tree}
          label={tree === CIST ? 'Cost, IST, internal' : `Cost, ${treeName(tree)}`}
          value={String(port.trees[tree]?.cost ?? '')}
          placeholder={groupText(port.cost ?? fromSpeed)}
          adornment={port.trees[tree]?.cost === undefined ? 'as all' : undefined}
          read={read.pathCost(method)}
          commit={cost(tree)}
        />
      ))}
      <TextSetting
        label="Priority, all trees"
        value={String(port.priority)}
        read={read.portPriority}
        commit={priority(null)}
      />
      {shown.map((tree) => (
        <TextSetting
          key={tree}
          label={`Priority, ${treeName(tree)}`}
          value={String(port.trees[tree]?.priority ?? '')}
          placeholder={String(port.priority)}
          adornment={port.trees[tree]?.priority === undefined ? 'as all' : undefined}
          read={read.portPriority}
          commit={priority(tree)}
        />
      ))}
      {others > 0 && (
        <p className={styles.hint}>
          {counted(others, 'other tree has its', 'other trees have their')} own settings here.
        </p>
      )}
    </section>
  );
}
