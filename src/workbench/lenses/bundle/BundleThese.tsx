'use client';
/** What bundling the chosen links would make, and the button that does it at both ends in one step. */
import Button from '@mui/material/Button';
import { useMemo } from 'react';
import type { LinkId } from '../../../core/model/ids';
import { besides, bundleThese } from '../../../core/analysis/lag/bundling';
import styles from '../../ui/panel.module.css';
import { useWorkbench } from '../../state/context';

export function BundleThese({ links }: { readonly links: readonly LinkId[] }) {
  const design = useWorkbench((state) => state.design);
  const act = useWorkbench((state) => state.act);
  const select = useWorkbench((state) => state.select);
  // One link stands for all that run beside it.
  const chosen = useMemo(() => {
    const [only] = links;
    const beside = links.length === 1 && only ? besides(design, only) : [];
    return beside.length > 1 ? beside.map((link) => link.id) : links;
  }, [design, links]);
  const made = useMemo(() => bundleThese(design, chosen), [design, chosen]);
  const member = chosen.some((id) =>
    design.links.some(
      (link) =>
        link.id === id &&
        design.bundles.some((bundle) =>
          [link.a, link.b].some((end) => end.switch === bundle.switch && bundle.ports.includes(end.port)),
        ),
    ),
  );
  if (!made.ok) return member ? null : <p className={styles.hint}>{made.error}</p>;
  const nameOf = (id: string): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  const what = chosen.length === 1 ? 'a bundle of this link' : `a bundle of ${chosen.length} links`;
  const make = () => {
    const refused = act(...made.value.commands);
    const [bundle] = made.value.bundles;
    if (refused === null) select({ kind: 'port', switch: bundle.switch, port: bundle.id as never });
  };
  return (
    <section className={styles.section} aria-label="Bundle these">
      <h3>{chosen.length > 1 ? 'These links side by side' : 'This link alone'}</h3>
      <p className={styles.hint}>
        Makes {what}:{' '}
        {made.value.bundles
          .map((bundle) => `${bundle.name} on ${nameOf(bundle.switch)}, ports ${bundle.ports.join(', ')}`)
          .join('; ')}
        . Both ends active.
        {chosen.length === 1 && ' A bundle of one link detects a fibre that works in one direction only.'}
      </p>
      <div className={styles.buttons}>
        <Button variant="contained" onClick={make}>
          {chosen.length === 1 ? 'Bundle this link' : 'Bundle these'}
        </Button>
      </div>
    </section>
  );
}
