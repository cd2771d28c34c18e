'use client';
/** The guards of ports and bundles, one or several at once; what each choice is called stands with the field. */
import type { Command } from '../../../core/edit/commands';
import type { Bundle, Port } from '../../../core/model/document';
import { labelOf, nodeOf, valueText } from '../../../core/model/field';
import { portGuardFields } from '../../../core/model/guard';
import type { SwitchId } from '../../../core/model/ids';
import { protectionOf } from '../../../core/analysis/guards/protection';
import { namesOf } from '../../../core/model/derive/names';
import { useFollowing, useWorkbench } from '../../state/context';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import styles from '../../ui/panel.module.css';
import * as read from '../../ui/read';
import { choiceOf, textOf } from '../../ui/several';
import { upper } from '../../ui/words/units';
import { counted } from '../../../core/base/words';
import { EDGE_CHOICES } from '../../ui/words/choices';

type Guarded = { readonly switch: SwitchId; readonly port: Port | Bundle };
type Choice = 'unset' | 'on' | 'off';
type Key = Exclude<keyof typeof portGuardFields, 'stormLimit'>;

const KEYS = Object.keys(portGuardFields).filter((key): key is Key => key !== 'stormLimit');
const chosen = (value: boolean | undefined): Choice => (value === undefined ? 'unset' : value ? 'on' : 'off');

export function PortGuards({ ports }: { readonly ports: readonly Guarded[] }) {
  const act = useWorkbench((state) => state.act);
  const design = useFollowing((state) => state.design);
  const names = namesOf(design);
  const set = (settings: object): string | null =>
    act(...ports.map(({ switch: sw, port }): Command => ({ do: 'set-port', switch: sw, port: port.id, ...settings })));
  return (
    <section className={styles.section} aria-label="Guards">
      <h3>{ports.length === 1 ? 'Guards' : `Guards of ${counted(ports.length, 'port')}`}</h3>
      {ports.length === 1 && <Says of={ports[0]!} />}
      <ChoiceSetting
        label="Edge port"
        {...choiceOf(
          ports.map(({ port }): 'yes' | 'no' => (port.edge ? 'yes' : 'no')),
          EDGE_CHOICES,
        )}
        commit={(edge) => set({ edge: edge === 'yes' })}
      />
      {KEYS.map((key) => {
        const node = nodeOf(portGuardFields[key]);
        const said = (value: boolean | undefined): string => upper(valueText(node, value, names) ?? '');
        const options: (readonly [Choice, string])[] = [
          ['on', said(true)],
          ['off', said(false)],
        ];
        if (node.optional) options.unshift(['unset', said(undefined)]);
        return (
          <ChoiceSetting
            key={key}
            label={upper(node.facts?.label ?? key)}
            {...choiceOf(
              ports.map(({ port }) => chosen(port[key])),
              options,
            )}
            commit={(to) => to !== '' && set({ [key]: to === 'unset' ? null : to === 'on' })}
          />
        );
      })}
      <TextSetting
        label={upper(labelOf(portGuardFields.stormLimit))}
        {...textOf(
          ports.map(({ port }) => port.stormLimit ?? null),
          (limit) => (limit === null ? '' : (valueText(nodeOf(portGuardFields.stormLimit), limit, names) ?? '')),
        )}
        {...(ports.every(({ port }) => port.stormLimit === undefined) ? { placeholder: 'none' } : {})}
        read={read.stormLimit}
        note="of broadcasts and unknown frames that come in: 1 %, or 500 frames/s"
        commit={(limit) => set({ stormLimit: limit })}
      />
    </section>
  );
}

/** What comes of the guards of one port. */
function Says({ of: { switch: sw, port } }: { readonly of: Guarded }) {
  const solution = useFollowing((state) => state.solution);
  const found =
    solution && protectionOf(solution).find((each) => each.switch === sw && (each.port as string) === port.id);
  return found?.why ? <p className={styles.hint}>{found.why}</p> : null;
}
