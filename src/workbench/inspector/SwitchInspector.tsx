'use client';
/** A switch: why its root is root, its priority for all trees and for each shown one, what it is. */
import { treeName, type SwitchId, type TreeId } from '../../core/model/ids';
import { setBridgePriority, settingKey, systemIdExtension } from '../../core/topology/bridgeId';
import { partOf } from '../../core/topology/trees';
import Button from '@mui/material/Button';
import { useWorkbench } from '../state/context';
import { dialectText } from '../ui/words/choices';
import { counted } from '../ui/words/units';
import { CableTo } from './CableTo';
import { TextSetting } from '../ui/fields';
import styles from '../ui/panel.module.css';
import { RegionSection } from '../lenses/group/RegionSection';
import { BreakSwitch } from './BreakHere';
import { PortList } from './PortList';
import * as read from '../ui/read';
import { SwitchFields } from './SwitchFields';
import { WhyRoot } from './WhyRoot';

export function SwitchInspector({ id }: { readonly id: SwitchId }) {
  const sw = useWorkbench((state) => state.design.switches.find((s) => s.id === id));
  const shown = useWorkbench((state) => state.shownTrees);
  const lens = useWorkbench((state) => state.lens);
  const act = useWorkbench((state) => state.act);
  if (!sw) return null;
  const ownIn = (tree: TreeId) => sw.trees[settingKey(tree, sw.dialect)]?.priority;
  const others = Object.keys(sw.trees).filter(
    (tree) => !shown.some((shownTree) => settingKey(shownTree, sw.dialect) === tree),
  ).length;
  const priorities = (
    <section className={styles.section} key="priorities">
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
  const being = (
    <section className={styles.section} key="being">
      <h3>The switch</h3>
      <TextSetting
        label="Name"
        value={sw.name ?? sw.id}
        read={read.name}
        commit={(name) => act({ do: 'set-switch', switch: id, name })}
      />
      <TextSetting
        label="MAC address"
        value={sw.mac}
        read={read.mac}
        commit={(mac) => act({ do: 'set-switch', switch: id, mac })}
      />
      <SwitchFields switches={[sw]} />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-switch', switch: id })}>
          Remove this switch
        </Button>
      </div>
    </section>
  );
  const why = <WhyRoot key="why" id={id} />;
  const ports = <PortList key="ports" sw={sw} />;
  return (
    <>
      <div className={styles.title}>
        <h2 title={sw.name ?? sw.id}>{sw.name ?? sw.id}</h2>
        <span className={styles.note}>{dialectText(sw.dialect)}</span>
      </div>
      <p className={styles.sub}>
        {counted(sw.ports.length, 'port')}, {sw.mac}
      </p>
      {lens === 'Break' && <BreakSwitch sw={sw} />}
      {lens === 'Group' && <RegionSection switches={[sw]} />}
      {lens === 'Cable'
        ? [<CableTo key="cable" sw={sw} />, ports, being, priorities, why]
        : [why, priorities, ports, being]}
    </>
  );
}
