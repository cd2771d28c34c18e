/** Findings about settings of whole switches: timers and cost methods. */
import { methodOf } from '../../model/costMethod';
import { DEFAULT_TIMERS, type CostMethod, type Design } from '../../model/document';
import { switchName } from '../../tree/explain/phrases';
import type { Finding } from './finding';

/** Timers outside 2 x (forward delay - 1) >= max age >= 2 x (hello + 1), IEEE 802.1D-2004 clause 17.14. */
export function timerFindings(design: Design): Finding[] {
  return design.switches.flatMap((sw): Finding[] => {
    const { hello, maxAge, forwardDelay } = sw.timers;
    const late = 2 * (forwardDelay - 1) < maxAge;
    if (!late && maxAge >= 2 * (hello + 1)) return [];
    return [
      {
        rule: 'timers',
        text: `${switchName(sw)}: ${late ? `max age ${maxAge} s is above 2 x (forward delay ${forwardDelay} s - 1 s)` : `max age ${maxAge} s is below 2 x (hello ${hello} s + 1 s)`}`,
        why: late
          ? 'A port may forward before old information is gone: a loop for a moment.'
          : 'A single lost BPDU can end what is known of the root.',
        at: { switch: sw.id },
        remedies: [
          {
            label: 'hello 2 s, max age 20 s, forward delay 15 s',
            commands: [
              {
                do: 'set-switch',
                switch: sw.id,
                timers: {
                  ...sw.timers,
                  hello: DEFAULT_TIMERS.hello,
                  maxAge: DEFAULT_TIMERS.maxAge,
                  forwardDelay: DEFAULT_TIMERS.forwardDelay,
                },
              },
            ],
          },
        ],
      },
    ];
  });
}

/** Switches whose path cost method is the one that fewer use. */
export function costMethodFindings(design: Design): Finding[] {
  const users: Record<CostMethod, Design['switches'][0][]> = { short: [], long: [] };
  for (const sw of design.switches) users[methodOf(design, sw)].push(sw);
  const { short, long } = users;
  if (short.length === 0 || long.length === 0) return [];
  const few: CostMethod =
    short.length < long.length || (short.length === long.length && design.pathCost === 'long') ? 'short' : 'long';
  const most: CostMethod = few === 'short' ? 'long' : 'short';
  const names =
    users[few].slice(0, 4).map(switchName).join(', ') +
    (users[few].length > 4 ? ` and ${users[few].length - 4} more` : '');
  return [
    {
      rule: 'mixed-cost-methods',
      text: `${names} ${users[few].length === 1 ? 'takes' : 'take'} path costs by the ${few} method, ${users[most].length === 1 ? 'one switch' : `${users[most].length} switches`} by the ${most} one`,
      why: 'The same speed costs thousands of times more by the long method (1 Gb/s: 4 against 20 000), so trees bend toward the short one.',
      at: { switch: users[few][0]!.id },
      remedies: [
        {
          label: `use the ${most} method everywhere`,
          commands: users[few].map((sw) => ({
            do: 'set-switch' as const,
            switch: sw.id,
            pathCost: most === design.pathCost ? null : most,
          })),
        },
      ],
    },
  ];
}
