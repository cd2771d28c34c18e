/** Who uses a VLAN: what someone should know before it is taken off the list. */
import type { Design, LinkEnd } from './document';
import { vlanSet, VlanSet } from './vlanSet';
import { vlanTree, type SwitchId } from './ids';

export interface VlanUses {
  /** Names of hosts in it. */
  readonly hosts: readonly string[];
  readonly accessPorts: readonly LinkEnd[];
  /** Trunks on which untagged frames are this VLAN's. */
  readonly nativeOn: readonly LinkEnd[];
  /** Trunks that carry it by name, not because they carry everything. */
  readonly trunks: readonly LinkEnd[];
  /** Switches with a host, a port or a setting of it. */
  readonly switches: readonly SwitchId[];
  /** How many priorities and costs are set for its tree. */
  readonly settings: number;
}

/** The uses of one VLAN. */
export function vlanUses(design: Design, vid: number): VlanUses {
  const all = VlanSet.all.format();
  const [accessPorts, nativeOn, trunks]: [LinkEnd[], LinkEnd[], LinkEnd[]] = [[], [], []];
  const tree = vlanTree(vid);
  const switches = new Set<SwitchId>();
  let settings = 0;
  for (const sw of design.switches) {
    if (sw.trees[tree]) settings += count(sw.id);
    for (const port of sw.ports) {
      const at = { switch: sw.id, port: port.id };
      if (port.trees[tree]) settings += count(sw.id);
      if (port.vlans.mode === 'access') {
        if (port.vlans.vlan === vid) accessPorts.push(used(at));
      } else {
        if (port.vlans.native === vid) nativeOn.push(used(at));
        if (port.vlans.allowed !== all && vlanSet(port.vlans.allowed).has(vid)) trunks.push(used(at));
      }
    }
  }
  const hosts = design.hosts.filter((host) => host.vlan === vid);
  for (const host of hosts) host.attach.forEach(used);
  return {
    hosts: hosts.map((host) => host.name ?? host.id),
    accessPorts,
    nativeOn,
    trunks,
    switches: [...switches],
    settings,
  };

  function used<T extends LinkEnd>(at: T): T {
    switches.add(at.switch);
    return at;
  }
  function count(sw: SwitchId): 1 {
    switches.add(sw);
    return 1;
  }
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
