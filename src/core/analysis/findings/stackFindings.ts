/** Findings about stacks: what falls apart when one member, or one stack cable, is lost. */
import type { Design, Stack, Switch } from '../../model/document';
import { stackMemberOf, stackState } from '../../model/stack';
import { switchName } from '../../tree/explain/phrases';
import { CODE, type Solution } from '../../tree/settled';
import type { Finding } from './finding';

const members = (ids: readonly number[]): string =>
  ids.length === 1 ? `member ${ids[0]!}` : `members ${ids.join(', ')}`;

export function stackFindings({ network, trees }: Solution): Finding[] {
  const { design, switchIndex } = network;
  return design.switches.flatMap((sw): Finding[] => {
    if (!sw.stack || !sw.up) return [];
    const s = switchIndex.get(sw.id)!;
    const isRoot = trees.some(
      (tree) => tree.root[s] === s && tree.role.some((role, p) => role === CODE.designated && network.owner[p] === s),
    );
    return [
      ...apart(sw, sw.stack),
      ...chain(sw, sw.stack),
      ...oneWayOut(design, sw, sw.stack),
      ...address(design, sw, sw.stack, isRoot),
    ];
  });
}

function apart(sw: Switch, stack: Stack): Finding[] {
  const lost = stackState(stack).apart.map(({ id }) => id);
  if (lost.length === 0) return [];
  const mended = { ...stack, members: stack.members.map((member) => ({ ...member, cable: true })) };
  return [
    {
      rule: 'stack-apart',
      text: `${switchName(sw)}: ${members(lost)} ${lost.length === 1 ? 'has' : 'have'} lost the other members`,
      why: 'No two switches may have one identity, so the smaller part of a stack that falls apart takes its ports down.',
      at: { switch: sw.id },
      remedies: stack.members.some(({ cable }) => !cable)
        ? [{ label: 'plug all stack cables in', commands: [{ do: 'set-switch', switch: sw.id, stack: mended }] }]
        : [],
    },
  ];
}

/** A ring lives on when a member or a cable is lost; of two members, the second cable does the same. */
const chain = (sw: Switch, stack: Stack): Finding[] =>
  stack.ring
    ? []
    : [
        {
          rule: 'stack-chain',
          text: `${switchName(sw)} is a stack cabled as a chain`,
          why:
            stack.members.length === 2
              ? 'One stack cable that is lost parts its members, and one of them takes its ports down.'
              : 'One member or one stack cable that is lost parts the others, and the smaller part takes its ports down.',
          at: { switch: sw.id },
          remedies: [
            {
              label: 'cable the last member to the first',
              commands: [{ do: 'set-switch', switch: sw.id, stack: { ...stack, ring: true } }],
            },
          ],
        },
      ];

/** Every cable to another switch is on one member. */
function oneWayOut({ links }: Design, sw: Switch, stack: Stack): Finding[] {
  const ends = links.flatMap(({ a, b, up }) =>
    up && a.switch !== b.switch ? [a, b].filter((end) => end.switch === sw.id) : [],
  );
  const on = new Set(
    ends.map(
      (end) =>
        stackMemberOf(
          stack,
          sw.ports.find(({ id }) => id === end.port)!,
        ).id,
    ),
  );
  if (ends.length < 2 || on.size !== 1) return [];
  return [
    {
      rule: 'stack-one-way-out',
      text: `${switchName(sw)}: all ${ends.length} cables to other switches are on member ${[...on][0]!}`,
      why: 'When that member is lost, the others are cut off; on several members the cables outlive any one of them.',
      at: { switch: sw.id },
      remedies: [],
    },
  ];
}

/** Another address is another bridge to everybody else: trees move, and bundles begin anew. */
function address({ bundles }: Design, sw: Switch, stack: Stack, isRoot: boolean): Finding[] {
  const negotiates = bundles.some((bundle) => bundle.switch === sw.id && bundle.mode !== 'static');
  if (stack.keepsAddress || !(isRoot || negotiates)) return [];
  const what = [...(isRoot ? ['elects a root anew'] : []), ...(negotiates ? ['negotiates its bundles anew'] : [])];
  return [
    {
      rule: 'stack-address',
      text: `${switchName(sw)} has another MAC address when its master is lost`,
      why: `To its neighbours it is another switch then: the network ${what.join(' and ')}, though only a member was lost.`,
      at: { switch: sw.id },
      remedies: [
        {
          label: 'keep the address',
          commands: [{ do: 'set-switch', switch: sw.id, stack: { ...stack, keepsAddress: true } }],
        },
      ],
    },
  ];
}
