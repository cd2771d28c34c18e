'use client';
/** What ports or bundles speak, where that is not what their switch does. */
import type { Command } from '../../../core/edit/commands';
import { namesOf } from '../../../core/model/derive/names';
import { portDialectsOf, type Bundle, type Port, type PortDialect } from '../../../core/model/document';
import { labelOf, nodeOf, valueText } from '../../../core/model/field';
import type { SwitchId } from '../../../core/model/ids';
import { bridgePortFields } from '../../../core/model/port';
import { useWorkbench } from '../../state/context';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import * as read from '../../ui/read';
import { choiceOf, common, textOf } from '../../ui/several';
import { upper } from '../../ui/words/units';

type Choice = PortDialect | 'unset';

const NOTES: Record<PortDialect, string> = {
  'version-0': 'as a classic bridge: settles in half a minute, of no region',
  'per-vlan-rstp': 'a tree for each VLAN, beside the common one in VLAN 1',
  'per-vlan-stp': 'a tree for each VLAN, beside the common one in VLAN 1, all as a classic bridge',
  'passes-on': 'no spanning tree: frames always pass, and BPDUs go unread',
};

export function PortSpeaks({
  ports,
}: {
  readonly ports: readonly { readonly switch: SwitchId; readonly port: Port | Bundle }[];
}) {
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design);
  const own = new Set(ports.map((each) => each.switch));
  const offered = new Set(design.switches.filter(({ id }) => own.has(id)).flatMap(portDialectsOf));
  const spoken = ports.map(({ port }): Choice => port.speaks ?? 'unset');
  for (const speaks of spoken) if (speaks !== 'unset') offered.add(speaks);
  if (offered.size === 0) return null;
  const node = nodeOf(bridgePortFields.speaks);
  const said = (speaks: PortDialect | undefined): string => upper(valueText(node, speaks, namesOf(design)) ?? '');
  const set = (settings: object): string | null =>
    act(...ports.map(({ switch: sw, port }): Command => ({ do: 'set-port', switch: sw, port: port.id, ...settings })));
  const one = common(spoken);
  return (
    <>
      <ChoiceSetting
        label={upper(labelOf(bridgePortFields.speaks))}
        {...choiceOf(spoken, [
          ['unset', said(undefined)],
          ...[...offered].map((speaks): [Choice, string] => [speaks, said(speaks)]),
        ])}
        commit={(speaks) => speaks !== '' && set({ speaks: speaks === 'unset' ? null : speaks })}
        {...(one === null || one === 'unset' ? {} : { note: NOTES[one] })}
      />
      {(one === 'per-vlan-rstp' || one === 'per-vlan-stp') && (
        <TextSetting
          label={upper(labelOf(bridgePortFields.speaksFor))}
          {...textOf(
            ports.map(({ port }) => port.speaksFor ?? ''),
            (vlans) => vlans,
          )}
          {...(ports.every(({ port }) => port.speaksFor === undefined) ? { placeholder: 'all carried' } : {})}
          read={read.someVlans}
          commit={(speaksFor) => set({ speaksFor })}
        />
      )}
    </>
  );
}
