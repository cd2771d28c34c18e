'use client';
/** Speed, up or down, and what is carried, of one port or of several at once. */
import type { Command } from '../../../core/edit/commands';
import type { Carriage, Port } from '../../../core/model/document';
import { useWorkbench } from '../../state/context';
import type { PlacedPort } from '../../state/subject';
import { CARRIAGE_CHOICES, EDGE_CHOICES, UP_CHOICES } from '../../ui/words/choices';
import { speedText } from '../../ui/words/units';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import * as read from '../../ui/read';
import { choiceOf, common, textOf } from '../../ui/several';
import { PortSpeaks } from '../shared/PortSpeaks';

type Settings = Omit<Extract<Command, { do: 'set-port' }>, 'do' | 'switch' | 'port'>;

export function PortFields({
  ports,
  withEdge = true,
}: {
  readonly ports: readonly PlacedPort[];
  readonly withEdge?: boolean;
}) {
  const act = useWorkbench((state) => state.act);
  const bundles = useWorkbench((state) => state.design.bundles);
  const stacks = useWorkbench((state) => state.design.switches);
  const members = new Set(bundles.flatMap((bundle) => bundle.ports.map((port) => `${bundle.switch} ${port}`)));
  const set = (settings: (port: Port) => Settings): string | null =>
    act(
      ...ports.map((each): Command => ({
        do: 'set-port',
        switch: each.switch,
        port: each.port.id,
        ...settings(each.port),
      })),
    );
  const of = <T,>(pick: (port: Port) => T) => ports.map(({ port }) => pick(port));
  // Ports of several switches have no stack in common.
  const [own, ...others] = new Set(ports.map((each) => each.switch));
  const stack = (others.length === 0 && stacks.find(({ id }) => id === own)?.stack?.members.map(({ id }) => id)) || [];
  return (
    <>
      <TextSetting
        label="Speed"
        {...textOf(
          of((port) => port.speed),
          speedText,
        )}
        read={read.speed}
        commit={(speed) => set(() => ({ speed }))}
      />
      <ChoiceSetting
        label="Set"
        {...choiceOf(
          of((port): 'up' | 'down' => (port.up ? 'up' : 'down')),
          UP_CHOICES,
        )}
        commit={(up) => set(() => ({ up: up === 'up' }))}
      />
      {withEdge && (
        <ChoiceSetting
          label="Edge port"
          {...choiceOf(
            of((port): 'yes' | 'no' => (port.edge ? 'yes' : 'no')),
            EDGE_CHOICES,
          )}
          commit={(edge) => set(() => ({ edge: edge === 'yes' }))}
        />
      )}
      {stack.length > 0 && (
        <ChoiceSetting
          label="Stack member"
          {...choiceOf(
            of((port) => String(port.stackMember ?? stack[0]!)),
            stack.map((member) => [String(member), `Member ${member}`] as const),
          )}
          commit={(member) => member !== '' && set(() => ({ stackMember: Number(member) }))}
        />
      )}
      <PortSpeaks ports={ports.filter(({ switch: sw, port }) => !members.has(`${sw} ${port.id}`))} />
      <CarriageFields ports={ports} />
    </>
  );
}

/** What ports carry: trunk or access, and which VLANs. */
export function CarriageFields({ ports }: { readonly ports: readonly PlacedPort[] }) {
  const act = useWorkbench((state) => state.act);
  const bundles = useWorkbench((state) => state.design.bundles);
  const carry = (change: (now: Carriage) => Carriage): string | null =>
    act(
      ...ports.flatMap((each): Command[] => {
        const vlans = change(each.port.vlans);
        // What a member carries is its bundle's: both are set, so that they agree.
        const bundle = bundles.find((one) => one.switch === each.switch && one.ports.includes(each.port.id));
        const alike = bundle
          ? [
              ...bundle.ports.map((port): Command => ({ do: 'set-port', switch: each.switch, port, vlans })),
              { do: 'set-bundle', bundle: bundle.id, vlans } as const,
            ]
          : null;
        return alike ?? [{ do: 'set-port', switch: each.switch, port: each.port.id, vlans }];
      }),
    );
  const modes = ports.map(({ port }) => port.vlans.mode);
  const trunks = ports.flatMap(({ port: { vlans } }) => (vlans.mode === 'trunk' ? [vlans] : []));
  const accesses = ports.flatMap(({ port: { vlans } }) => (vlans.mode === 'access' ? [vlans] : []));
  return (
    <>
      <ChoiceSetting
        label="VLANs"
        {...choiceOf(modes, CARRIAGE_CHOICES)}
        commit={(to) => to !== '' && carry((now) => read.carriageAs(to, now))}
      />
      {trunks.length > 0 && (
        <>
          <TextSetting
            label="Carries"
            {...textOf(
              trunks.map((vlans) => vlans.allowed),
              (allowed) => allowed,
            )}
            {...(common(trunks.map((vlans) => vlans.allowed)) === '' ? { placeholder: 'no VLAN' } : {})}
            read={read.vlans}
            commit={(allowed) => carry((now) => (now.mode === 'trunk' ? { ...now, allowed } : now))}
            note={common(modes) === null ? 'of the trunks among them' : 'such as 15,25-29'}
          />
          <TextSetting
            label="Native VLAN"
            {...textOf(
              trunks.map((vlans) => vlans.native),
              String,
            )}
            read={read.vlan}
            commit={(native) => carry((now) => (now.mode === 'trunk' ? { ...now, native } : now))}
          />
        </>
      )}
      {accesses.length > 0 && (
        <TextSetting
          label="Access VLAN"
          {...textOf(
            accesses.map((vlans) => vlans.vlan),
            String,
          )}
          read={read.vlan}
          commit={(vlan) => carry((now) => (now.mode === 'access' ? { mode: 'access', vlan } : now))}
        />
      )}
    </>
  );
}
