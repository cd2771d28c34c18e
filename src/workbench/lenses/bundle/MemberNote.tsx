'use client';
/** On a port that is a bundle's member: which bundle, how it stands there, and its own LACP settings. */
import type { BridgePortId } from '../../../core/model/ids';
import type { Bundle } from '../../../core/model/document';
import { TextButton } from '../../ui/TextButton';
import { TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { useWorkbench } from '../../state/context';
import { useBundles } from '../../state/useBundles';

export function MemberNote({ bundle, port }: { readonly bundle: Bundle; readonly port: BridgePortId }) {
  const select = useWorkbench((state) => state.select);
  const act = useWorkbench((state) => state.act);
  const own = useWorkbench(
    (state) =>
      state.design.switches.find((sw) => sw.id === bundle.switch)?.ports.find((each) => each.id === port)?.lacp,
  );
  const { bundles, settled } = useBundles();
  const member = bundles.memberAt(bundle.switch, port);
  return (
    <section className={styles.section} aria-label="Member of a bundle">
      <h3>Member of a bundle</h3>
      <p className={styles.hint}>
        <TextButton onClick={() => select({ kind: 'port', switch: bundle.switch, port: bundle.id })}>
          {bundle.name ?? bundle.id}
        </TextButton>{' '}
        holds what this port carries and costs. {settled.members[member]?.reason}
      </p>
      <TextSetting
        label="LACP priority"
        value={String(own?.priority ?? 32_768)}
        read={read.lacpPriority}
        commit={(priority) => act({ do: 'set-port', switch: bundle.switch, port, lacp: { priority } })}
      />
      <TextSetting
        label="LACP key"
        value={own?.key === undefined ? '' : String(own.key)}
        placeholder="the bundle's"
        read={read.lacpKey}
        commit={(key) => act({ do: 'set-port', switch: bundle.switch, port, lacp: { key } })}
      />
    </section>
  );
}
