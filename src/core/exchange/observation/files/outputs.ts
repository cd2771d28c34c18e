/** Files that switches have written of themselves: which output each is, told by what is in it. */
import { parseJson } from '../../../base/json';
import { isWalk } from './walk';

export const OUTPUTS = {
  walk: 'snmpwalk -On',
  lldp: 'lldpctl -f json',
  links: 'ip -j -d link',
  bridgeLinks: 'bridge -j link',
  bridgeVlans: 'bridge -j vlan',
  bridgeFdb: 'bridge -j fdb',
  switchPorts: 'ovs-vsctl --format=json list port',
  switchInterfaces: 'ovs-vsctl --format=json list interface',
  trees: 'rstp/show or stp/show',
  lacp: 'lacp/show',
} as const;
export type Output = keyof typeof OUTPUTS;

export interface File {
  readonly name: string;
  readonly text: string;
}
/** A file of which is known what it is; `json`: null where it is none. */
export interface OutputFile extends File {
  readonly json: unknown;
}
/** The files of one switch that are a certain output. */
export type Told = (output: Output) => readonly OutputFile[];

/** Null where it is none of them. */
function outputOf(text: string): { readonly output: Output; readonly json: unknown } | null {
  if (isWalk(text)) return { output: 'walk', json: null };
  if (/^\s*[[{]/.test(text)) {
    const json = parseJson(text);
    const output = json.ok ? jsonOutput(json.value) : null;
    return output && json.ok ? { output, json: json.value } : null;
  }
  if (/^---- \S+ ----$/m.test(text)) {
    if (/Bridge ID:/.test(text)) return { output: 'trees', json: null };
    if (/lacp|aggregation|may_enable|^\s*status:/im.test(text)) return { output: 'lacp', json: null };
  }
  return null;
}

function jsonOutput(value: unknown): Output | null {
  const has = (of: unknown, ...keys: readonly string[]): boolean =>
    typeof of === 'object' && of !== null && keys.every((key) => key in of);
  if (has(value, 'lldp')) return 'lldp';
  if (has(value, 'headings', 'data')) {
    const { headings } = value as { headings: unknown };
    if (!Array.isArray(headings)) return null;
    if (headings.includes('vlan_mode') && headings.includes('interfaces')) return 'switchPorts';
    return headings.includes('link_state') ? 'switchInterfaces' : null;
  }
  if (!Array.isArray(value)) return null;
  const [first] = value as readonly unknown[];
  if (has(first, 'ifname', 'vlans')) return 'bridgeVlans';
  if (has(first, 'mac', 'ifname')) return 'bridgeFdb';
  if (has(first, 'ifname', 'flags', 'ifindex', 'state', 'cost')) return 'bridgeLinks';
  return has(first, 'ifname', 'flags', 'link_type') ? 'links' : null;
}

/** Sorts files by what they are; `unread`: those that are nothing that is read. */
export function sorted(files: readonly File[]): { readonly told: Told; readonly unread: readonly File[] } {
  const told = new Map<Output, OutputFile[]>();
  const unread: File[] = [];
  for (const { name, text } of files) {
    const found = outputOf(text);
    if (found) told.set(found.output, [...(told.get(found.output) ?? []), { name, text, json: found.json }]);
    else unread.push({ name, text });
  }
  return { told: (output) => told.get(output) ?? [], unread };
}
