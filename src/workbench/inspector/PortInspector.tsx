'use client';
/** A port: why it has its role, what it costs in which tree, what it carries, where it leads. */
import type { BridgePortId, SwitchId } from '../../core/model/ids';
import type { Port } from '../../core/model/document';
import Button from '@mui/material/Button';
import { TextButton } from '../ui/TextButton';
import { useWorkbench } from '../state/context';
import { useFarEnds } from '../state/farEnds';
import { TextSetting } from '../ui/fields';
import styles from '../ui/panel.module.css';
import { PortFields } from './PortFields';
import * as read from '../ui/read';
import { BundleInspector } from './BundleInspector';
import { BundleThese } from '../lenses/bundle/BundleThese';
import { MemberNote } from '../lenses/bundle/MemberNote';
import { BreakPort } from './BreakHere';
import { SteerHere } from './SteerHere';
import { SteerSettings } from './SteerSettings';
import { WhyInstant } from './WhyInstant';
import { WhyPort } from './WhyPort';

interface Props {
  readonly id: SwitchId;
  readonly port: BridgePortId;
}

export function PortInspector({ id, port: portId }: Props) {
  const sw = useWorkbench((state) => state.design.switches.find((s) => s.id === id));
  const lens = useWorkbench((state) => state.lens);
  const select = useWorkbench((state) => state.select);
  const far = useFarEnds()(id, portId);
  const port = sw?.ports.find((p) => p.id === portId);
  const bundle = useWorkbench((state) => state.design.bundles.find((b) => b.switch === id && b.id === portId));
  const memberOf = useWorkbench((state) =>
    state.design.bundles.find((b) => b.switch === id && b.ports.some((each) => each === portId)),
  );
  if (bundle) return <BundleInspector bundle={bundle} />;
  if (!sw || !port) return null;
  const parts = [
    <WhyPort key="why" id={id} port={portId} />,
    <SteerSettings key="steer" id={id} port={port} />,
    <CableSettings key="cable" id={id} port={port} />,
  ];
  return (
    <>
      <div className={styles.title}>
        <h2 title={`${sw.name ?? sw.id}, port ${port.id}`}>
          <TextButton
            style={{ fontWeight: 700, color: 'inherit', padding: 0 }}
            onClick={() => select({ kind: 'switch', switch: id })}
            title="select the switch"
          >
            {sw.name ?? sw.id}
          </TextButton>
          , port {port.id}
        </h2>
      </div>
      <p className={styles.sub}>
        {!far && 'nothing plugged in'}
        {far && 'to '}
        {far?.switch && far.port ? (
          <TextButton onClick={() => select({ kind: 'port', switch: far.switch!, port: far.port! })}>
            {far.text}
          </TextButton>
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

/** The port itself: what it is set to, and removing it. */
function CableSettings({ id, port }: { readonly id: SwitchId; readonly port: Port }) {
  const act = useWorkbench((state) => state.act);
  return (
    <section className={styles.section}>
      <h3>The port</h3>
      <PortFields ports={[{ switch: id, port }]} />
      <TextSetting
        label="Number"
        value={String(port.number)}
        read={read.portNumber}
        commit={(number) => act({ do: 'set-port', switch: id, port: port.id, number })}
      />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-port', switch: id, port: port.id })}>
          Remove this port
        </Button>
      </div>
    </section>
  );
}
