/** Stacks as the one switch that they are: its address, and which of its ports have power. */
import { oncePer } from '../base/cache';
import type { Design, Switch } from '../model/document';
import { stackMemberOf, stackState } from '../model/stack';

/** The design with each stack as it stands now: the address that it has, and the ports of members that do not act set down. */
export const withStacks: (design: Design) => Design = oncePer((design: Design) =>
  design.switches.some(({ stack }) => stack !== undefined)
    ? { ...design, switches: design.switches.map(asItStands) }
    : design,
);

const asItStands = oncePer((sw: Switch): Switch => {
  const { stack, up, mac, ports } = sw;
  if (!stack) return sw;
  const { acting, master } = stackState(stack);
  return {
    ...sw,
    up: up && master !== null,
    mac: stack.keepsAddress ? mac : (master ?? stack.members[0]!).mac,
    ports: ports.map((port) =>
      port.up && !acting.includes(stackMemberOf(stack, port)) ? { ...port, up: false } : port,
    ),
  };
});

/** Every address that a switch may come to have. */
export const addressesOf = ({ mac, stack, pair }: Pick<Switch, 'mac' | 'stack' | 'pair'>): readonly string[] => [
  ...(!stack || stack.keepsAddress ? [mac] : stack.members.map((member) => member.mac)),
  ...(pair ? [pair.mac] : []),
];
