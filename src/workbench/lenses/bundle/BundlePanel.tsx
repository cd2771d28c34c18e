'use client';
/** A bundle: up or not and why, both ends side by side, its members bit by bit, its settings, and what may happen to it. */
import Button from '@mui/material/Button';
import type { Bundle, Carriage } from '../../../core/model/document';
import type { Command } from '../../../core/edit/commands';
import { bundlePicture, type BundlePicture } from '../../../core/analysis/lag/bundleEnds';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { useWorkbench } from '../../state/context';
import { CARRIAGE_CHOICES } from '../../ui/words/choices';
import { BreakBundle } from './BreakBundle';
import own from './bundle.module.css';
import { LossOfMember } from './LossOfMember';
import { Members } from './Members';
import { useBundles } from '../../state/useBundles';
import { PortSpeaks } from '../shared/PortSpeaks';
import { HASH_CHOICES, MODE_CHOICES, TIMEOUT_CHOICES, TIMEOUT_NOTES } from './words';

export function BundlePanel({ bundle }: { readonly bundle: Bundle }) {
  const design = useWorkbench((state) => state.design);
  const breaking = useWorkbench((state) => state.lens === 'Break');
  const { bundles, settled } = useBundles();
  const end = bundles.ends.find(({ owner, id }) => owner.kind === 'switch' && id === bundle.id);
  if (!end) return null;
  const picture = bundlePicture(design, bundles, end, settled);
  return (
    <>
      <Verdict picture={picture} />
      <Members end={picture.end} bundles={bundles} settled={settled} />
      <BothEnds picture={picture} />
      <LossOfMember bundle={bundle} />
      {!breaking && <BreakBundle bundle={bundle} />}
      <Settings bundle={bundle} />
    </>
  );
}

function Verdict({ picture: { verdict, remedies } }: { readonly picture: BundlePicture }) {
  const act = useWorkbench((state) => state.act);
  return (
    <section className={`${styles.section} ${own.verdict}`} aria-label="Verdict">
      <div className={styles.why}>
        <p>{verdict}</p>
      </div>
      {remedies.length > 0 && (
        <div className={styles.buttons}>
          {remedies.map((remedy) => (
            <Button key={remedy.label} size="small" variant="outlined" onClick={() => act(...remedy.commands)}>
              {remedy.label}
            </Button>
          ))}
        </div>
      )}
    </section>
  );
}

/** Field by field; what must agree and does not is marked. */
function BothEnds({ picture: { end, opposites, fields } }: { readonly picture: BundlePicture }) {
  const [first] = opposites;
  if (!first) return null;
  return (
    <section className={styles.section} aria-label="Both ends">
      <h3>Both ends</h3>
      <table className={own.ends}>
        <thead>
          <tr>
            <th />
            <th scope="col">{end.ownerName}</th>
            <th scope="col">
              {first.name}
              {first.end ? '' : ', no bundle'}
            </th>
          </tr>
        </thead>
        <tbody>
          {fields.map(({ name, here, there, wrong }) => (
            <tr key={name} data-wrong={wrong || undefined}>
              <th scope="row">
                {name}
                {wrong && <span className="visually-hidden">, does not fit</span>}
              </th>
              <td>{here}</td>
              <td>{there}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Settings({ bundle }: { readonly bundle: Bundle }) {
  const act = useWorkbench((state) => state.act);
  const priority = useWorkbench(
    (state) => state.design.switches.find((sw) => sw.id === bundle.switch)?.lacp?.systemPriority ?? 32_768,
  );
  const paired = useWorkbench((state) => state.design.switches.some(({ id, pair }) => id === bundle.switch && pair));
  const set = (settings: Omit<Extract<Command, { do: 'set-bundle' }>, 'do' | 'bundle'>): string | null =>
    act({ do: 'set-bundle', bundle: bundle.id, ...settings });
  // Members carry what their bundle does, so that a member that leaves it fits in.
  const carry = (vlans: Carriage): string | null =>
    act(
      { do: 'set-bundle', bundle: bundle.id, vlans },
      ...bundle.ports.map((port): Command => ({ do: 'set-port', switch: bundle.switch, port, vlans })),
    );
  const { vlans } = bundle;
  return (
    <section className={styles.section} aria-label="Settings of the bundle">
      <h3>The bundle</h3>
      <TextSetting label="Name" value={bundle.name ?? bundle.id} read={read.name} commit={(name) => set({ name })} />
      <ChoiceSetting label="Mode" value={bundle.mode} options={MODE_CHOICES} commit={(mode) => set({ mode })} />
      <ChoiceSetting
        label="Timeout"
        value={bundle.timeout}
        options={TIMEOUT_CHOICES}
        commit={(timeout) => set({ timeout })}
        {...(bundle.mode === 'static' ? {} : { note: TIMEOUT_NOTES[bundle.timeout] })}
      />
      {paired && (
        <TextSetting
          label="Number in the pair"
          value={bundle.pairNumber === undefined ? '' : String(bundle.pairNumber)}
          placeholder="none"
          note="bundles of both switches with one number are one"
          read={read.pairNumber}
          commit={(pairNumber) => set({ pairNumber })}
        />
      )}
      <TextSetting
        label="Minimum links"
        value={String(bundle.minLinks)}
        read={read.memberCount}
        commit={(minLinks) => set({ minLinks })}
      />
      <TextSetting
        label="Maximum active links"
        value={String(bundle.maxActive)}
        read={read.memberCount}
        commit={(maxActive) => set({ maxActive })}
      />
      <ChoiceSetting label="Hash" value={bundle.hash} options={HASH_CHOICES} commit={(hash) => set({ hash })} />
      <PortSpeaks ports={[{ switch: bundle.switch, port: bundle }]} />
      <ChoiceSetting
        label="VLANs"
        value={vlans.mode}
        options={CARRIAGE_CHOICES}
        commit={(mode) => carry(read.carriageAs(mode, vlans))}
      />
      {vlans.mode === 'trunk' ? (
        <>
          <TextSetting
            label="Carries"
            value={vlans.allowed}
            read={read.vlans}
            commit={(allowed) => carry({ ...vlans, allowed })}
          />
          <TextSetting
            label="Native VLAN"
            value={String(vlans.native)}
            read={read.vlan}
            commit={(native) => carry({ ...vlans, native })}
          />
        </>
      ) : (
        <TextSetting
          label="Access VLAN"
          value={String(vlans.vlan)}
          read={read.vlan}
          commit={(vlan) => carry({ mode: 'access', vlan })}
        />
      )}
      <TextSetting
        label="Number"
        value={String(bundle.number)}
        read={read.bundleNumber}
        commit={(number) => set({ number })}
        note={`port number ${2048 + bundle.number} to spanning tree`}
      />
      <TextSetting
        label="Key"
        value={bundle.key === undefined ? '' : String(bundle.key)}
        placeholder={`${bundle.number}, its number`}
        read={read.lacpKey}
        commit={(key) => set({ key })}
      />
      <TextSetting
        label="System priority"
        value={String(priority)}
        read={read.lacpPriority}
        commit={(systemPriority) => act({ do: 'set-switch', switch: bundle.switch, lacp: { systemPriority } })}
        note="of the whole switch: the better system decides who stands by"
      />
      <div className={styles.buttons}>
        <Button variant="outlined" color="error" onClick={() => act({ do: 'remove-bundle', bundle: bundle.id })}>
          Take this bundle apart
        </Button>
      </div>
    </section>
  );
}
