'use client';
/** What a switch sets for all of its edge ports, and how its shut ports open again; of one switch or of several. */
import type { Command } from '../../../core/edit/commands';
import { isMultiple, isPerVlan, type Switch } from '../../../core/model/document';
import { labelOf } from '../../../core/model/field';
import { switchGuardFields } from '../../../core/model/guard';
import { useWorkbench } from '../../state/context';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { choiceOf, textOf } from '../../ui/several';
import { upper } from '../../ui/words/units';
import { counted } from '../../../core/base/words';

export function SwitchGuards({ switches }: { readonly switches: readonly Switch[] }) {
  const act = useWorkbench((state) => state.act);
  const set = (settings: object): string | null =>
    act(...switches.map((sw): Command => ({ do: 'set-switch', switch: sw.id, ...settings })));
  const edges = switches.reduce((sum, sw) => sum + sw.ports.filter((port) => port.edge).length, 0);
  return (
    <section className={styles.section} aria-label="Guards of edge ports">
      <h3>Guards of edge ports</h3>
      <ChoiceSetting
        label={upper(labelOf(switchGuardFields.edgeBpduGuard))}
        {...choiceOf(
          switches.map((sw): 'on' | 'off' => (sw.edgeBpduGuard ? 'on' : 'off')),
          [
            ['off', 'Off'],
            ['on', 'On: a BPDU shuts the port'],
          ],
        )}
        note={`${counted(edges, 'edge port')}; a port may say otherwise for itself`}
        commit={(to) => to !== '' && set({ edgeBpduGuard: to === 'on' })}
      />
      <ChoiceSetting
        label={upper(labelOf(switchGuardFields.edgeLoopProbe))}
        {...choiceOf(
          switches.map((sw): 'on' | 'off' => (sw.edgeLoopProbe ? 'on' : 'off')),
          [
            ['off', 'Off'],
            ['on', 'On: test frames'],
          ],
        )}
        commit={(to) => to !== '' && set({ edgeLoopProbe: to === 'on' })}
      />
      {switches.some((sw) => sw.edgeLoopProbe || sw.ports.some((port) => port.loopProbe)) && (
        <>
          <TextSetting
            label="Interval of probes"
            {...textOf(
              switches.map((sw) => sw.probeInterval),
              String,
            )}
            adornment="s"
            read={read.probeInterval}
            commit={(seconds) => set({ probeInterval: seconds })}
          />
          <ChoiceSetting
            label="A probe that comes back"
            {...choiceOf(
              switches.map((sw) => sw.probeAction),
              [
                ['shut', 'Shuts the port'],
                ['block', 'Blocks it, with signal'],
              ],
            )}
            commit={(action) => action !== '' && set({ probeAction: action })}
          />
        </>
      )}
      {switches.some((sw) => isPerVlan(sw)) && (
        <ChoiceSetting
          label={upper(labelOf(switchGuardFields.vlanCheck))}
          {...choiceOf(
            switches.map((sw): 'on' | 'off' => (sw.vlanCheck ? 'on' : 'off')),
            [
              ['off', 'Off'],
              ['on', 'On: holds a port'],
            ],
          )}
          note="a BPDU that arrives in another VLAN than it is of holds its port in both"
          commit={(to) => to !== '' && set({ vlanCheck: to === 'on' })}
        />
      )}
      {switches.some((sw) => isPerVlan(sw)) && (
        <ChoiceSetting
          label={upper(labelOf(switchGuardFields.ownCheck))}
          {...choiceOf(
            switches.map((sw): 'on' | 'off' => (sw.ownCheck ? 'on' : 'off')),
            [
              ['off', 'Off'],
              ['on', 'On: holds a port'],
            ],
          )}
          note="a BPDU of the switch's own that comes back holds the port in all VLANs"
          commit={(to) => to !== '' && set({ ownCheck: to === 'on' })}
        />
      )}
      {switches.some((sw) => isMultiple(sw)) && (
        <ChoiceSetting
          label={upper(labelOf(switchGuardFields.rootCheck))}
          {...choiceOf(
            switches.map((sw): 'on' | 'off' => (sw.rootCheck ? 'on' : 'off')),
            [
              ['off', 'Off'],
              ['on', 'On: holds a port'],
            ],
          )}
          note="toward switches with trees of VLANs: all roots inside of the region, or all beyond"
          commit={(to) => to !== '' && set({ rootCheck: to === 'on' })}
        />
      )}
      <ChoiceSetting
        label={upper(labelOf(switchGuardFields.unmanned))}
        {...choiceOf(
          switches.map((sw): 'manned' | 'unmanned' => (sw.unmanned ? 'unmanned' : 'manned')),
          [
            ['manned', 'Manned'],
            ['unmanned', 'Unmanned: nobody near'],
          ],
        )}
        commit={(to) => to !== '' && set({ unmanned: to === 'unmanned' })}
      />
      <TextSetting
        label={upper(labelOf(switchGuardFields.recovery))}
        {...textOf(
          switches.map((sw) => sw.recovery ?? null),
          (seconds) => (seconds === null ? '' : String(seconds)),
        )}
        {...(switches.every((sw) => sw.recovery === undefined) ? { placeholder: 'off' } : {})}
        adornment="s"
        read={read.recovery}
        note="after so long a shut port opens again; empty: only somebody opens it"
        commit={(recovery) => set({ recovery })}
      />
    </section>
  );
}
