'use client';
/** What a switch is and how it speaks, of one or of several at once. */
import type { Command } from '../../../core/edit/commands';
import {
  isClassic,
  isMultiple,
  timersSchema,
  traitsOf,
  type CostMethod,
  type Switch,
  type Timers,
} from '../../../core/model/document';
import { labelOf } from '../../../core/model/field';
import type { GroupId } from '../../../core/model/ids';
import { nameOf } from '../../../core/model/names';
import { useWorkbench, useWorkbenchStore } from '../../state/context';
import { DIALECT_CHOICES, METHOD_CHOICES, POWER_CHOICES, TIER_CHOICES } from '../../ui/words/choices';
import { ChoiceSetting, TextSetting } from '../../ui/fields';
import * as read from '../../ui/read';
import { upper } from '../../ui/words/units';
import { choiceOf, textOf } from '../../ui/several';

type Settings = Omit<Extract<Command, { do: 'set-switch' }>, 'do' | 'switch'>;
/** Max hops matter to MSTP alone, the increment of the message age to classic STP. */
const timerKeys = (switches: readonly Switch[]): readonly (keyof Timers)[] =>
  timersSchema
    .keyof()
    .options.filter(
      (key) => (key !== 'maxHops' || switches.some(isMultiple)) && (key !== 'ageIncrement' || switches.some(isClassic)),
    );
const UNITS: Readonly<Record<keyof Timers, string | undefined>> = {
  hello: 's',
  maxAge: 's',
  forwardDelay: 's',
  maxHops: 'hops',
  txHold: undefined,
  ageIncrement: '/256 s',
};

/** No identifier is this. */
const NONE = '\n';

export function SwitchFields({ switches }: { readonly switches: readonly Switch[] }) {
  const store = useWorkbenchStore();
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design.pathCost);
  const placesNow = () => store.getState().controls?.places();
  const groups = useWorkbench((state) => state.design.groups);
  const set = (settings: (sw: Switch) => Settings) =>
    act(...switches.map((sw): Command => ({ do: 'set-switch', switch: sw.id, ...settings(sw) })));
  const of = <T,>(pick: (sw: Switch) => T) => switches.map(pick);
  const methods: readonly (readonly [CostMethod | 'design', string])[] = [
    ['design', `As the design (${design})`],
    ...METHOD_CHOICES,
  ];
  const modes = new Set(of((sw) => sw.dialect));
  return (
    <>
      <ChoiceSetting
        label="Power"
        {...choiceOf(
          of((sw): 'on' | 'off' => (sw.up ? 'on' : 'off')),
          POWER_CHOICES,
        )}
        commit={(up) => set(() => ({ up: up === 'on' }))}
      />
      <ChoiceSetting
        label="Tier"
        {...choiceOf(
          of((sw) => sw.tier),
          TIER_CHOICES,
        )}
        commit={(tier) => tier !== '' && set(() => ({ tier }))}
      />
      <ChoiceSetting
        label="On the map"
        {...choiceOf(
          of((sw): 'free' | 'pinned' => (sw.pinned ? 'pinned' : 'free')),
          [
            ['free', 'Tidied with the others'],
            ['pinned', 'Pinned to its place'],
          ],
        )}
        commit={(to) =>
          to !== '' &&
          act(
            // What is pinned has a place of its own: the one where it is drawn.
            ...switches.flatMap((sw): Command[] => {
              const position = placesNow()?.get(sw.id);
              const place = to === 'pinned' && !sw.position && position;
              return [
                ...(place
                  ? [
                      {
                        do: 'move-switches' as const,
                        to: [{ switch: sw.id, position: { x: Math.round(place.x), y: Math.round(place.y) } }],
                      },
                    ]
                  : []),
                { do: 'set-switch', switch: sw.id, pinned: to === 'pinned' },
              ];
            }),
          )
        }
      />
      {groups.length > 0 && (
        <ChoiceSetting
          label="Group"
          {...choiceOf(
            of((sw): string => sw.group ?? NONE),
            [[NONE, 'None'], ...groups.map((group) => [group.id as string, nameOf(group)] as const)],
          )}
          commit={(group) =>
            group !== '' &&
            act({
              do: 'put-in-group',
              switches: of((sw) => sw.id),
              group: group === NONE ? null : (group as GroupId),
            })
          }
        />
      )}
      <ChoiceSetting
        label="Spanning tree mode"
        {...choiceOf(
          of((sw) => sw.dialect),
          DIALECT_CHOICES,
        )}
        note={modes.size === 1 && traitsOf([...modes][0]!).says}
        commit={(dialect) => dialect !== '' && set(() => ({ dialect }))}
      />
      <ChoiceSetting
        label="Cost method"
        {...choiceOf(
          of((sw) => sw.pathCost ?? ('design' as const)),
          methods,
        )}
        commit={(method) => method !== '' && set(() => ({ pathCost: method === 'design' ? null : method }))}
      />
      {timerKeys(switches).map((key) => (
        <TextSetting
          key={key}
          label={upper(labelOf(timersSchema.shape[key]))}
          {...textOf(
            of((sw) => sw.timers[key]),
            String,
          )}
          adornment={UNITS[key]}
          read={read.timer(key)}
          commit={(value) => set((sw) => ({ timers: { ...sw.timers, [key]: value } }))}
        />
      ))}
    </>
  );
}
