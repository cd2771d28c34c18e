'use client';
/** A switch's half of a pair: how both stand, what each is set to, and what makes them agree. */
import Button from '@mui/material/Button';
import { pairFindings } from '../../../core/analysis/findings/pairFindings';
import { KEEPALIVES, keepaliveName, type PairHalf, type Switch } from '../../../core/model/document';
import type { PortId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { pairsOf } from '../../../core/topology/pairs';
import { useWorkbench } from '../../state/context';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { standingOf } from './pairStanding';

export function PairPanel({ sw }: { readonly sw: Switch }) {
  return sw.pair ? <Half sw={sw} half={sw.pair} /> : null;
}

const CHOICES = KEEPALIVES.map((keepalive) => {
  const name = keepaliveName(keepalive);
  return [keepalive, `${name[0]!.toUpperCase()}${name.slice(1)}`] as const;
});

function Half({ sw, half }: { readonly sw: Switch; readonly half: PairHalf }) {
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design);
  const pair = pairsOf(design).find(({ switches }) => switches.some(({ id }) => id === sw.id)) ?? null;
  const mine = pair ? pair.switches.map(({ id }) => id) : [sw.id];
  const findings = pairFindings(design).filter(({ at }) => at.switch !== undefined && mine.includes(at.switch));
  const own = design.bundles.filter((bundle) => bundle.switch === sw.id);
  const members = new Set(own.flatMap(({ ports }) => ports));
  const set = (settings: Partial<Omit<PairHalf, 'keepalivePort'>> & { keepalivePort?: PortId | null }): string | null =>
    act({ do: 'set-pair', switch: sw.id, ...settings });
  const alone = sw.ports.filter(({ id }) => !members.has(id));
  return (
    <section className={styles.section} aria-label="Its pair">
      <h3>Its pair</h3>
      <p className={styles.hint}>{standingOf(pair, sw)}</p>
      {findings.map(({ text, remedies }) => (
        <div key={text} className={styles.why}>
          <p>{text}.</p>
          {remedies.length > 0 && (
            <div className={styles.buttons}>
              {remedies.map(({ label, commands }) => (
                <Button key={label} size="small" variant="outlined" onClick={() => act(...commands)}>
                  {label}
                </Button>
              ))}
            </div>
          )}
        </div>
      ))}
      <TextSetting
        label="Domain"
        value={String(half.domain)}
        note="the same at both switches"
        read={read.pairDomain}
        commit={(domain) => set({ domain })}
      />
      <TextSetting
        label="Address of the pair"
        value={half.mac}
        note="what both are called, as one bridge and as one LACP system"
        read={read.mac}
        commit={(mac) => set({ mac })}
      />
      <TextSetting
        label="Priority in the pair"
        value={String(half.priority)}
        note="the lower is primary"
        read={read.pairPriority}
        commit={(priority) => set({ priority })}
      />
      <ChoiceSetting
        label="Peer link"
        value={half.peerLink}
        options={own.map((bundle) => [bundle.id, `Bundle ${nameOf(bundle)}`] as const)}
        commit={(peerLink) => set({ peerLink })}
      />
      <ChoiceSetting
        label="Keepalive"
        value={half.keepalive}
        options={CHOICES.filter(([value]) => value !== 'own-link' || alone.length > 0)}
        commit={(keepalive) =>
          set({ keepalive, keepalivePort: keepalive === 'own-link' ? (half.keepalivePort ?? alone[0]!.id) : null })
        }
      />
      {half.keepalive === 'own-link' && (
        <ChoiceSetting
          label="Port for the keepalive"
          value={half.keepalivePort!}
          options={alone.map(({ id }) => [id, `Port ${id}`] as const)}
          commit={(keepalivePort) => set({ keepalivePort })}
        />
      )}
      {half.keepalive === 'out-of-band' && (
        <ChoiceSetting
          label="Its network"
          value={half.keepaliveUp ? 'works' : 'failed'}
          options={[
            ['works', 'Works'],
            ['failed', 'Has failed here'],
          ]}
          commit={(to) => set({ keepaliveUp: to === 'works' })}
        />
      )}
      <TextSetting
        label="Delay, s"
        value={String(half.delay)}
        note="how long it leaves its pair bundles down once it is back"
        read={read.pairDelay}
        commit={(delay) => set({ delay })}
      />
      <div className={styles.buttons}>
        <Button
          variant="outlined"
          color="error"
          onClick={() => act(...mine.map((id) => ({ do: 'set-switch' as const, switch: id, pair: null })))}
        >
          No longer a pair
        </Button>
      </div>
    </section>
  );
}
