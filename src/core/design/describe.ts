/** Commands in words, for the history: `priority of ridge-a in VLAN 15: 32768 to 4096`. */
import type { Command } from './commands';
import { treeName, type PortId, type SwitchId, type TreeId } from './ids';
import { BRIDGE_PRIORITY } from './legal';
import type { Carriage, Design, LinkEnd } from './schema';

/** What a command will do to this design, in one line. */
export function describeCommand(design: Design, command: Command): string {
  const nameOf = (id: SwitchId) => design.switches.find((sw) => sw.id === id)?.name ?? id;
  const portOf = (sw: SwitchId, port: PortId) => design.switches.find((s) => s.id === sw)?.ports.find((p) => p.id === port);
  const end = (at: LinkEnd) => `${nameOf(at.switch)} port ${at.port}`;
  switch (command.do) {
    case 'rename-design':
      return `name: ${design.name} to ${command.name}`;
    case 'set-cost-method':
      return `path cost method: ${design.pathCost} to ${command.method}`;
    case 'set-switch': {
      const sw = design.switches.find((s) => s.id === command.switch);
      const parts = [
        command.name !== undefined && `name ${sw?.name ?? command.switch} to ${command.name}`,
        command.tier !== undefined && `tier ${sw?.tier} to ${command.tier}`,
        command.dialect !== undefined && `dialect ${sw?.dialect} to ${command.dialect}`,
        command.mac !== undefined && `MAC ${sw?.mac} to ${command.mac}`,
        command.timers !== undefined && 'timers',
      ];
      return `${nameOf(command.switch)}: ${parts.filter(Boolean).join(', ')}`;
    }
    case 'set-bridge-priority': {
      const sw = design.switches.find((s) => s.id === command.switch);
      const before = (command.tree === null ? sw?.priority : sw?.trees[command.tree]?.priority ?? sw?.priority) ?? BRIDGE_PRIORITY.default;
      return `priority of ${nameOf(command.switch)}${inTree(command.tree)}: ${before} to ${command.priority ?? 'as in all trees'}`;
    }
    case 'set-port': {
      const port = portOf(command.switch, command.port);
      const parts = [
        command.speed !== undefined && `speed ${port?.speed} to ${command.speed} Mb/s`,
        command.up !== undefined && (command.up ? 'set up' : 'set down'),
        command.edge !== undefined && (command.edge ? 'edge port' : 'not an edge port'),
        command.vlans !== undefined && carriageText(command.vlans),
      ];
      return `${nameOf(command.switch)} port ${command.port}: ${parts.filter(Boolean).join(', ')}`;
    }
    case 'set-port-cost': {
      const port = portOf(command.switch, command.port);
      const before = command.tree === null ? port?.cost : (port?.trees[command.tree]?.cost ?? port?.cost);
      return `cost of ${nameOf(command.switch)} port ${command.port}${inTree(command.tree)}: ${before ?? 'from speed'} to ${command.cost ?? 'none of its own'}`;
    }
    case 'set-port-priority': {
      const port = portOf(command.switch, command.port);
      const before = command.tree === null ? port?.priority : (port?.trees[command.tree]?.priority ?? port?.priority);
      return `port priority of ${nameOf(command.switch)} port ${command.port}${inTree(command.tree)}: ${before} to ${command.priority ?? 'none of its own'}`;
    }
    case 'set-link': {
      const link = design.links.find((l) => l.id === command.link);
      const ends = link ? `${end(link.a)} to ${end(link.b)}` : command.link;
      const parts = [
        command.up !== undefined && (command.up ? 'restored' : 'cut'),
        command.speed !== undefined && `speed ${command.speed} Mb/s at both ends`,
      ];
      return `link ${ends}: ${parts.filter(Boolean).join(', ')}`;
    }
    case 'move-switches':
      return command.to.length === 1 ? `moved ${nameOf(command.to[0]!.switch)}` : `moved ${command.to.length} switches`;
    case 'add-switch':
      return `added switch ${command.switch.name ?? command.switch.id}`;
    case 'add-port':
      return `added port ${command.port.id} to ${nameOf(command.switch)}`;
    case 'add-link':
      return `cabled ${end(command.link.a)} to ${end(command.link.b)}`;
    case 'remove-switch':
      return `removed switch ${nameOf(command.switch)}`;
    case 'remove-link': {
      const link = design.links.find((l) => l.id === command.link);
      return `unplugged ${link ? `${end(link.a)} from ${end(link.b)}` : command.link}`;
    }
    case 'set-host':
      return `host ${design.hosts.find((host) => host.id === command.host)?.name ?? command.host}: name to ${command.name}`;
  }
}

/** What several commands will do as one step: the first of them, and how many more. */
export function describeCommands(design: Design, commands: readonly Command[]): string {
  const [first] = commands;
  const more = commands.length > 1 ? ` and ${commands.length - 1} more` : '';
  return first ? describeCommand(design, first) + more : '';
}

const inTree = (tree: TreeId | null): string => (tree === null ? ' in all trees' : ` in ${treeName(tree)}`);

/** `trunk 1-4094, native 1` or `access 15`. */
export const carriageText = (vlans: Carriage): string =>
  vlans.mode === 'access' ? `access ${vlans.vlan}` : `trunk ${vlans.allowed === '' ? 'no VLAN' : vlans.allowed}, native ${vlans.native}`;
