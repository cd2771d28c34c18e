'use client';
/** What bundling a host's cards would make, and the button that does it at the host and at its switch in one step. */
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import type { HostId } from '../../../core/model/ids';
import { bundleCards } from '../../../core/analysis/lag/bundling';
import styles from '../../ui/panel.module.css';
import { useWorkbench } from '../../state/context';

export function BundleCards({ host: id }: { readonly host: HostId }) {
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const made = useMemo(() => bundleCards(design, id), [design, id]);
  const host = design.hosts.find((each) => each.id === id);
  if (!host || host.attach.length < 2) return null;
  const [bundle] = made.ok ? made.value.bundles : [];
  const sw = bundle && design.switches.find((each) => each.id === bundle.switch);
  // Where both ends are bundled already there is nothing to say here.
  if (!made.ok) return host.bundle ? null : <p className={styles.hint}>{made.error}</p>;
  return (
    <section className={styles.section} aria-label="Bundle the cards">
      <p className={styles.hint}>
        {host.name ?? host.id} has {host.attach.length} cards
        {host.bundle && ', bundled at its end alone'}
        {!bundle && ', which the switch bundles and it does not'}. Bundling them makes{' '}
        {[
          ...(host.bundle ? [] : ['one bundle of its cards']),
          ...(bundle ? [`${bundle.name} on ${sw?.name ?? bundle.switch}, ports ${bundle.ports.join(', ')}`] : []),
        ].join(' and ')}
        .
      </p>
      <div className={styles.buttons}>
        <Button variant="contained" onClick={() => act(...made.value.commands)}>
          {bundle && !host.bundle ? 'Bundle cards and ports' : bundle ? 'Bundle the ports' : 'Bundle the cards'}
        </Button>
      </div>
    </section>
  );
}
