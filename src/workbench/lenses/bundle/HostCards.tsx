'use client';
/** The cards of a host: separate, or one bundle with its settings, its verdict and its members. */
import Button from '@mui/material/Button';
import { hostBundleSchema, type Host, type HostBundle } from '../../../core/model/document';
import { bundlePicture } from '../../../core/analysis/lag/bundleEnds';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { useWorkbench } from '../../state/context';
import { BundleCards } from './BundleCards';
import { Members } from './Members';
import { useBundles } from '../../state/useBundles';
import { HASH_CHOICES, MODE_CHOICES, TIMEOUT_CHOICES } from './words';

const SEPARATE = 'separate';

export function HostCards({ host }: { readonly host: Host }) {
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design);
  const { bundles, settled } = useBundles();
  const { bundle } = host;
  if (host.attach.length < 2 && !bundle) return null;
  const set = (part: Partial<HostBundle>): string | null =>
    act({ do: 'set-host', host: host.id, bundle: { ...(bundle ?? hostBundleSchema.parse({})), ...part } });
  const end = bundles.ends.find(({ owner }) => owner.kind === 'host' && owner.host === host.id);
  const picture = end && bundlePicture(design, bundles, end, settled);
  return (
    <section className={styles.section} aria-label="Cards">
      <h3>Its {host.attach.length} cards</h3>
      <ChoiceSetting
        label="Together"
        value={bundle?.mode ?? SEPARATE}
        options={[[SEPARATE, 'Separate cards'], ...MODE_CHOICES]}
        commit={(mode) => (mode === SEPARATE ? act({ do: 'set-host', host: host.id, bundle: null }) : set({ mode }))}
      />
      {bundle && (
        <>
          <ChoiceSetting
            label="Timeout"
            value={bundle.timeout}
            options={TIMEOUT_CHOICES}
            commit={(timeout) => set({ timeout })}
          />
          <ChoiceSetting label="Hash" value={bundle.hash} options={HASH_CHOICES} commit={(hash) => set({ hash })} />
          <TextSetting
            label="Minimum links"
            value={String(bundle.minLinks)}
            read={read.memberCount}
            commit={(minLinks) => set({ minLinks })}
          />
        </>
      )}
      {!bundle && <BundleCards host={host.id} />}
      {picture && (
        <div className={styles.why}>
          <p>{picture.verdict}</p>
        </div>
      )}
      {picture && picture.remedies.length > 0 && (
        <div className={styles.buttons}>
          {picture.remedies.map((remedy) => (
            <Button key={remedy.label} size="small" variant="outlined" onClick={() => act(...remedy.commands)}>
              {remedy.label}
            </Button>
          ))}
        </div>
      )}
      {end && <Members end={end} bundles={bundles} settled={settled} />}
    </section>
  );
}
