'use client';
/** A port: why it has its role, what it costs in which tree, what it carries, where it leads. */
import { treeName, type PortId, type SwitchId, type TreeId } from '../../core/design/ids';
import type { Port } from '../../core/design/schema';
import { pathCostOf } from '../../core/tree/pathCost';
import Button from '@mui/material/Button';
import { methodOf } from '../../core/design/costMethod';
import { TextButton } from '../frame/TextButton';
import { useWorkbench } from '../state/context';
import { useFarEnds } from '../state/farEnds';
import { counted, groupText } from '../words/units';
import { TextSetting } from './fields';
import styles from './inspector.module.css';
import { PortFields } from './PortFields';
import * as read from './read';
import { BundleInspector } from '../bundle/BundleInspector';
import { BundleThese } from '../bundle/BundleThese';
import { MemberNote } from '../bundle/MemberNote';
import { BreakPort } from './BreakHere';
import { SteerHere } from './SteerHere';
import { WhyInstant } from './WhyInstant';
import { WhyPort } from './WhyPort';

interface Props {
  readonly id: SwitchId;
  readonly port: PortId;
}

export function PortInspector({ id, port: portId }: Props) {
  const sw = useWorkbench((state) => state.design.switches.find((s) => s.id === id));
  const lens = useWorkbench((state) => state.lens);
  const select = useWorkbench((state) => state.select);
  const far = useFarEnds()(id, portId);
  const port = sw?.ports.find((p) => p.id === portId);
  const bundle = useWorkbench((state) => state.design.bundles.find((b) => b.switch === id && b.id === (portId as string)));
  const memberOf = useWorkbench((state) => state.design.bundles.find((b) => b.switch === id && b.ports.includes(portId)));
  if (bundle) return <BundleInspector bundle={bundle} />;
  if (!sw || !port) return null;
  const parts = [<WhyPort key="why" id={id} port={portId} />, <SteerSettings key="steer" id={id} port={port} />, <CableSettings key="cable" id={id} port={port} />];
  return (
    <>
      <div className={styles.title}>
        <h2 title={`${sw.name ?? sw.id}, port ${port.id}`}>
          <TextButton style={{ fontWeight: 700, color: 'inherit', padding: 0 }} onClick={() => select({ kind: 'switch', switch: id })} title="select the switch">
            {sw.name ?? sw.id}
          </TextButton>
          , port {port.id}
        </h2>
      </div>
      <p className={styles.sub}>
        {!far && 'nothing plugged in'}
        {far && 'to '}
        {far?.switch && far.port ? (
          <TextButton onClick={() => select({ kind: 'port', switch: far.switch!, port: far.port! })}>{far.text}</TextButton>
        ) : far?.host ? (
          <TextButton onClick={() => select({ kind: 'host', host: far.host! })}>{far.text}</TextButton>
        ) : null}
        {far?.link && (
          <>
            {', '}
            <TextButton onClick={() => select({ kind: 'link', link: far.link! })}>the link</TextButton>
          </>
        )}
      </p>
      {memberOf && <MemberNote bundle={memberOf} port={portId} />}
      {lens === 'Bundle' && far?.link && <BundleThese links={[far.link]} />}
      {lens === 'Steer' && far?.switch && <SteerHere wish={{ wants: 'block', switch: id, port: portId }} />}
      {lens === 'Break' && <WhyInstant id={id} port={portId} />}
      {lens === 'Break' && <BreakPort id={id} port={portId} />}
      {lens === 'Cable' ? parts.reverse() : parts}
    </>
  );
}

/** Cost and priority of a port or a bundle, for all trees and for each shown one. */
export function SteerSettings({ id, port }: { readonly id: SwitchId; readonly port: Pick<Port, 'id' | 'speed' | 'cost' | 'priority' | 'trees'> }) {
  const shown = useWorkbench((state) => state.shownTrees);
  const method = useWorkbench(({ design }) => methodOf(design, design.switches.find((sw) => sw.id === id) ?? {}));
  const act = useWorkbench((state) => state.act);
  const fromSpeed = pathCostOf(port.speed, method);
  const others = Object.keys(port.trees).filter((tree) => !shown.some((shownTree) => shownTree === tree)).length;
  const cost = (tree: TreeId | null) => (value: number | null) => act({ do: 'set-port-cost', switch: id, port: port.id, tree, cost: value });
  const priority = (tree: TreeId | null) => (value: number | null) => act({ do: 'set-port-priority', switch: id, port: port.id, tree, priority: value });
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
      {shown.map((tree) => (
        <TextSetting
          key={tree}
          label={`Cost, ${treeName(tree)}`}
          value={String(port.trees[tree]?.cost ?? '')}
          placeholder={groupText(port.cost ?? fromSpeed)}
          adornment={port.trees[tree]?.cost === undefined ? 'as all' : undefined}
          read={read.pathCost(method)}
          commit={cost(tree)}
        />
      ))}
      <TextSetting label="Priority, all trees" value={String(port.priority)} read={read.portPriority} commit={priority(null)} />
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
      {others > 0 && <p className={styles.hint}>{counted(others, 'other tree has its', 'other trees have their')} own settings here.</p>}
    </section>
  );
}

/** The port itself: what it is set to, and removing it. */
function CableSettings({ id, port }: { readonly id: SwitchId; readonly port: Port }) {
  const act = useWorkbench((state) => state.act);
  return (
    <section className={styles.section}>
      <h3>The port</h3>
      <PortFields ports={[{ switch: id, port }]} />
      <TextSetting label="Number" value={String(port.number)} read={read.portNumber} commit={(number) => act({ do: 'set-port', switch: id, port: port.id, number })} />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-port', switch: id, port: port.id })}>Remove this port</Button>
      </div>
    </section>
  );
}
