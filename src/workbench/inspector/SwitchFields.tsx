'use client';
/** What a switch is and how it speaks, of one or of several at once. */
import { TIMER_NAMES } from '../../core/edit/describe';
import type { Command } from '../../core/edit/commands';
import type { CostMethod, Switch, Timers } from '../../core/model/document';
import { useWorkbench } from '../state/context';
import { DIALECT_CHOICES, METHOD_CHOICES, POWER_CHOICES, TIER_CHOICES } from '../words/choices';
import { ChoiceSetting, TextSetting } from './fields';
import * as read from './read';
import { choiceOf, textOf } from './several';

type Settings = Omit<Extract<Command, { do: 'set-switch' }>, 'do' | 'switch'>;
/** Max hops matter to MSTP alone. */
const timerKeys = (switches: readonly Switch[]): readonly (keyof Timers)[] => [
  'hello',
  'maxAge',
  'forwardDelay',
  ...(switches.some((sw) => sw.dialect === 'mstp') ? ['maxHops' as const] : []),
  'txHold',
];

export function SwitchFields({ switches }: { readonly switches: readonly Switch[] }) {
  const act = useWorkbench((state) => state.act);
  const design = useWorkbench((state) => state.design.pathCost);
  const set = (settings: (sw: Switch) => Settings) =>
    act(...switches.map((sw): Command => ({ do: 'set-switch', switch: sw.id, ...settings(sw) })));
  const of = <T,>(pick: (sw: Switch) => T) => switches.map(pick);
  const methods: readonly (readonly [CostMethod | 'design', string])[] = [
    ['design', `As the design (${design})`],
    ...METHOD_CHOICES,
  ];
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
        label="Dialect"
        {...choiceOf(
          of((sw) => sw.dialect),
          DIALECT_CHOICES,
        )}
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
          label={TIMER_LABELS[key]}
          {...textOf(
            of((sw) => sw.timers[key]),
            String,
          )}
          adornment={key === 'txHold' ? undefined : key === 'maxHops' ? 'hops' : 's'}
          read={read.timer(key)}
          commit={(value) => set((sw) => ({ timers: { ...sw.timers, [key]: value } }))}
        />
      ))}
    </>
  );
}

const upper = (text: string): string => text[0]!.toUpperCase() + text.slice(1);
const TIMER_LABELS = Object.fromEntries(Object.entries(TIMER_NAMES).map(([key, name]) => [key, upper(name)])) as Record<
  keyof Timers,
  string
>;
