/** Who uses a VLAN: what someone should know before it is taken off the list. */
import type { Design, LinkEnd } from './document';
import { vlanSet, VlanSet } from './vlanSet';
import { vlanTree } from './ids';

export interface VlanUses {
  /** Names of hosts in it. */
  readonly hosts: readonly string[];
  readonly accessPorts: readonly LinkEnd[];
  /** Trunks on which untagged frames are this VLAN's. */
  readonly nativeOn: readonly LinkEnd[];
  /** Trunks that carry it by name, not because they carry everything. */
  readonly trunks: readonly LinkEnd[];
  /** How many priorities and costs are set for its tree. */
  readonly settings: number;
}

/** The uses of one VLAN. */
export function vlanUses(design: Design, vid: number): VlanUses {
  const all = VlanSet.all.format();
  const [accessPorts, nativeOn, trunks]: [LinkEnd[], LinkEnd[], LinkEnd[]] = [[], [], []];
  const tree = vlanTree(vid);
  let settings = 0;
  for (const sw of design.switches) {
    if (sw.trees[tree]) settings += 1;
    for (const port of sw.ports) {
      const at = { switch: sw.id, port: port.id };
      if (port.trees[tree]) settings += 1;
      if (port.vlans.mode === 'access') {
        if (port.vlans.vlan === vid) accessPorts.push(at);
      } else {
        if (port.vlans.native === vid) nativeOn.push(at);
        if (port.vlans.allowed !== all && vlanSet(port.vlans.allowed).has(vid)) trunks.push(at);
      }
    }
  }
  return {
    hosts: design.hosts.filter((host) => host.vlan === vid).map((host) => host.name ?? host.id),
    accessPorts,
    nativeOn,
    trunks,
    settings,
  };
}

/** `2 hosts (Duty desk, Office desk), 3 access ports, 12 trunks`; empty where nothing uses it. */
export function vlanUsesText({ hosts, accessPorts, nativeOn, trunks, settings }: VlanUses): string {
  const count = (n: number, what: string) => (n === 0 ? [] : [`${n} ${what}${n === 1 ? '' : 's'}`]);
  const names = hosts.length > 0 ? ` (${hosts.slice(0, 3).join(', ')}${hosts.length > 3 ? ', …' : ''})` : '';
  return [
    ...count(hosts.length, 'host').map((text) => text + names),
    ...count(accessPorts.length, 'access port'),
    ...count(nativeOn.length, 'native VLAN'),
    ...count(trunks.length, 'trunk'),
    ...count(settings, 'setting').map((text) => `${text} for its tree`),
  ].join(', ');
}
