/** Networks with stacks, whose members lose power and each other. */
import fc from 'fast-check';
import type { Design, Stack, Switch } from '../model/document';
import { stackField } from '../model/stack';

export const memberMac = (i: number): string => `02:00:00:00:0f:${i.toString(16).padStart(2, '0')}`;

/** A stack of members 1 up to `count`. */
export const stackOf = (count: number, rest: object = {}, member: (i: number) => object = () => ({})): Stack =>
  stackField.parse({
    members: Array.from({ length: count }, (_, i) => ({ id: i + 1, mac: memberMac(i + 1), ...member(i + 1) })),
    ...rest,
  })!;

/** A design one of whose switches is a stack, its ports on all members in turn. */
export const stackedIn = (design: Design, pick: number, stack: Stack): Design => ({
  ...design,
  switches: design.switches.map((sw, s) =>
    s === pick % design.switches.length
      ? { ...sw, stack, ports: sw.ports.map((port, p) => ({ ...port, stackMember: 1 + (p % stack.members.length) })) }
      : sw,
  ),
});

/** The same, any stack. */
export const withStack = (of: fc.Arbitrary<Design>): fc.Arbitrary<Design> =>
  fc
    .tuple(of, fc.nat(), fc.integer({ min: 2, max: 4 }), fc.boolean(), fc.boolean())
    .map(([design, pick, members, ring, keepsAddress]) =>
      stackedIn(design, pick, stackOf(members, { ring, keepsAddress })),
    );

/** A member gains or loses power, or the stack cable after it is cut or plugged in again. */
export function turnedMember(design: Design, turn: number): Design {
  const turned = ({ stack, ...sw }: Switch): Switch => {
    if (!stack) return sw;
    const at = (turn >> 1) % stack.members.length;
    const key = turn % 2 === 0 ? 'up' : 'cable';
    return {
      ...sw,
      stack: {
        ...stack,
        members: stack.members.map((member, i) => (i === at ? { ...member, [key]: !member[key] } : member)),
      },
    };
  };
  return { ...design, switches: design.switches.map(turned) };
}
