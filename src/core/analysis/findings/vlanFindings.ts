/** Findings about VLANs and those who need them: hosts whose port does not carry theirs, VLANs that no path joins or no list names. */
import { vlansText } from '../../model/vlanSet';
import type { Command } from '../../edit/commands';
import { type Host, type LinkEnd, isPerVlan } from '../../model/document';
import { CIST } from '../../model/ids';
import { isBundle, type Network } from '../../topology/network';
import { rootCheckedPorts } from '../../topology/rootCheck';
import { wrongVlans } from '../../topology/vlanCheck';
import { label, switchName } from '../../tree/explain/phrases';
import { CODE, HELD, ROOTS_DIFFER, type Solution } from '../../tree/settled';
import type { Finding } from './finding';
import { partsOf } from '../parts';

/** Where what a port carries is set: on its bundle where it is a member. */
const setAt = (bundleOf: Int32Array, p: number): number => (bundleOf[p]! < 0 ? p : bundleOf[p]!);

const hostName = (host: Host): string => host.name ?? host.id;

/** Hosts plugged into a port that does not carry their VLAN. */
export function hostFindings({ design, ports, carried, portIndexOf, switches, owner, bundleOf }: Network): Finding[] {
  return design.hosts.flatMap((host) =>
    host.attach.flatMap((at): Finding[] => {
      const p = portIndexOf(at.switch, at.port);
      if (p < 0 || carried[p]!.has(host.vlan)) return [];
      const { vlans } = ports[p]!;
      const there = `${switchName(switches[owner[p]!]!)} port ${at.port}`;
      const move = vlans.mode === 'access' ? vlans.vlan : vlans.native;
      return [
        {
          rule: 'host-vlan-not-carried',
          text: `${hostName(host)} is in VLAN ${host.vlan}, but ${there} ${vlans.mode === 'access' ? `is an access port of VLAN ${vlans.vlan}` : `carries ${vlans.allowed || 'no VLAN'} only`}`,
          why: 'What it sends goes into another VLAN or nowhere, and nothing sent to it arrives.',
          at: { switch: at.switch, port: at.port },
          remedies: [
            {
              label: `make ${there} access ${host.vlan}`,
              commands: [
                {
                  do: 'set-port',
                  switch: at.switch,
                  port: ports[setAt(bundleOf, p)]!.id,
                  vlans: { mode: 'access', vlan: host.vlan },
                },
              ],
            },
            ...(carried[p]!.has(move)
              ? [
                  {
                    label: `put ${hostName(host)} into VLAN ${move}`,
                    commands: [{ do: 'set-host' as const, host: host.id, vlan: move }],
                  },
                ]
              : []),
          ],
        },
      ];
    }),
  );
}

/** VLANs in use that the design does not list: in a per-VLAN network they have no tree. */
export function unlistedVlanFindings({ design, ports, owner, switches }: Network): Finding[] {
  if (!switches.some((sw) => isPerVlan(sw))) return [];
  const listed = new Set([1, ...design.vlans.map((vlan) => vlan.id)]);
  const used = new Map<number, { text: string; at: Finding['at'] }>();
  const note = (vid: number, text: string, at: Finding['at']) =>
    !listed.has(vid) && !used.has(vid) && used.set(vid, { text, at });
  for (const host of design.hosts)
    note(host.vlan, hostName(host), host.attach[0] ? { switch: host.attach[0].switch, port: host.attach[0].port } : {});
  ports.forEach(
    ({ vlans, id }, p) =>
      vlans.mode === 'access' &&
      note(vlans.vlan, `${switchName(switches[owner[p]!]!)} port ${id}`, { switch: switches[owner[p]!]!.id, port: id }),
  );
  return [...used].map(([vid, { text, at }]) => ({
    rule: 'vlan-not-listed',
    text: `${text} is in VLAN ${vid}, which the list of VLANs does not have`,
    why: 'Only listed VLANs have a tree here, so nothing keeps this one free of loops on paper.',
    at,
    remedies: [{ label: `add VLAN ${vid}`, commands: [{ do: 'add-vlan', vlan: { id: vid } }] }],
  }));
}

/** VLANs with members in several places that no chain of cables carrying the VLAN joins. */
export function pathFindings(network: Network): Finding[] {
  const { switches, owner, carried, live, far } = network;
  const members = membersByVlan(network);
  const vids = [...members.keys()].sort((a, b) => a - b);
  const broken = new Map<string, { vids: number[]; parts: number[][] }>();
  for (const vid of vids) {
    const own = members.get(vid)!;
    if (own.size < 2) continue;
    const part = partsOf(network, (p) => carried[p]!.has(vid));
    const groups = new Map<number, number[]>();
    for (const s of own) groups.set(part[s]!, [...(groups.get(part[s]!) ?? []), s]);
    if (groups.size < 2) continue;
    const parts = [...groups.values()].sort((a, b) => b.length - a.length);
    const key = JSON.stringify(parts);
    broken.set(key, { vids: [...(broken.get(key)?.vids ?? []), vid], parts });
  }
  return [...broken.values()].map(({ vids: ids, parts }) => {
    const names = (part: readonly number[]) =>
      part
        .slice(0, 3)
        .map((s) => switchName(switches[s]!))
        .join(', ') + (part.length > 3 ? ` and ${part.length - 3} more` : '');
    const [main, ...rest] = parts as [number[], ...number[][]];
    const vlan = ids.length === 1 ? `VLAN ${ids[0]}` : `VLANs ${vlansText(ids)}`;
    const commands = rest.flatMap((part) => carryAlong(network, ids, main, part) ?? []);
    const possible = rest.every((part) => carryAlong(network, ids, main, part) !== null);
    const [lone] = rest[0] as [number];
    return {
      rule: 'vlan-without-path',
      text: `${vlan}: no path joins ${rest.map(names).join(', nor ')} to ${names(main)}`,
      why: 'Hosts of one VLAN sit on both sides, and no chain of live cables that carry the VLAN leads across.',
      at: { switch: switches[lone]!.id },
      remedies:
        possible && commands.length > 0 ? [{ label: `carry ${vlan} on the way`, commands: merged(commands) }] : [],
    };
  });

  /** Later commands on a port build on what the earlier ones have it carry. */
  function merged(commands: readonly Command[]): Command[] {
    const last = new Map<string, Command>();
    for (const command of commands)
      if (command.do === 'set-port') last.set(`${command.switch}\n${command.port}`, command);
    return [...last.values()];
  }

  /** Trunks along the shortest way of live cables from one part to another, made to carry the VLANs; null without a way. */
  function carryAlong(
    { firstPort, ports, bundleOf }: Network,
    ids: readonly number[],
    from: readonly number[],
    to: readonly number[],
  ): Command[] | null {
    // By which port of the switch before each was reached: -2 not yet, -1 from the start. Not by the port that it was
    // reached through: what a bundle's port leads to need not lead back.
    const through = new Int32Array(switches.length).fill(-2);
    const queue = [...from];
    for (const s of from) through[s] = -1;
    const wanted = new Set(to);
    const open = (p: number): boolean => ports[p]!.vlans.mode === 'trunk' || ids.every((vid) => carried[p]!.has(vid));
    for (let i = 0; i < queue.length; i += 1) {
      const s = queue[i]!;
      if (wanted.has(s)) return wayBack(s);
      for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
        const q = far[p]!;
        if (q < 0 || !live[p] || !open(p) || !open(q) || through[owner[q]!]! > -2) continue;
        through[owner[q]!] = p;
        queue.push(owner[q]!);
      }
    }
    return null;

    function wayBack(end: number): Command[] {
      const commands: Command[] = [];
      for (let s = end; through[s]! >= 0; s = owner[through[s]!]!) {
        for (const p of [far[through[s]!]!, through[s]!]) {
          const { vlans } = ports[p]!;
          const { id } = ports[setAt(bundleOf, p)]!;
          if (vlans.mode !== 'trunk' || ids.every((vid) => carried[p]!.has(vid))) continue;
          const allowed = carried[p]!.with(ids).format();
          commands.push({ do: 'set-port', switch: switches[owner[p]!]!.id, port: id, vlans: { ...vlans, allowed } });
        }
      }
      return commands;
    }
  }
}

/** The switches where a VLAN has members: hosts on ports that carry it, and access ports without a cable to a switch. */
export function membersByVlan({
  design,
  ports,
  owner,
  carried,
  cable,
  portIndexOf,
}: Network): Map<number, Set<number>> {
  const members = new Map<number, Set<number>>();
  const add = (vid: number, s: number) => members.set(vid, (members.get(vid) ?? new Set()).add(s));
  const at = (end: LinkEnd, vid: number) => {
    const p = portIndexOf(end.switch, end.port);
    if (p >= 0 && carried[p]!.has(vid)) add(vid, owner[p]!);
  };
  for (const host of design.hosts) for (const end of host.attach) at(end, host.vlan);
  ports.forEach(({ vlans, up }, p) => vlans.mode === 'access' && up && cable[p]! < 0 && add(vlans.vlan, owner[p]!));
  return members;
}

/** Ports out of a region that the root check holds. */
export function rootsHeldFindings({ network, trees }: Solution): Finding[] {
  const cist = trees.find(({ id }) => id === CIST);
  if (!cist) return [];
  const { switches, ports, home, owner, far } = network;
  return [...rootCheckedPorts(network)].flatMap((p): Finding[] => {
    if (cist.disputed[p] !== ROOTS_DIFFER) return [];
    const root = switchName(switches[cist.root[owner[p]!]!]!);
    const there = switchName(switches[owner[far[p]!]!]!);
    const inside = cist.role[p] === CODE.designated;
    return [
      {
        rule: 'roots-held',
        text: `${label(network, p)} is held: VLANs of ${there} have ${inside ? 'a better' : 'a worse'} root than the CIST, which has ${root}`,
        why: `Its root check wants all roots ${inside ? 'on this side, since the CIST has its root here' : 'beyond, since the CIST has its root there'}. Until they are, nothing gets over this port.`,
        at: { switch: switches[home[p]!]!.id, port: ports[p]!.id },
        remedies: [],
      },
    ];
  });
}

/** Ports that the VLAN check holds, each once for both VLANs. */
export function heldFindings({ network, trees }: Solution): Finding[] {
  const { switches, ports, home } = network;
  return [...wrongVlans(network.acting ?? network)].flatMap(([p, { from, heard, own }]): Finding[] => {
    const held = trees.filter(({ disputed }) => disputed[p] === HELD).map(({ id }) => id);
    if (held.length === 0) return [];
    const { id, vlans } = ports[p]!;
    const sw = switches[home[p]!]!;
    const at = { switch: sw.id, port: id };
    return [
      {
        rule: 'vlans-held',
        text: `${label(network, p)} is held in VLANs ${vlansText([heard, own])}: BPDUs of VLAN ${heard} arrive there in VLAN ${own}`,
        why: `Its VLAN check keeps the two from becoming one: ${label(network, from)} sends VLAN ${heard} untagged. Neither gets over this cable until both ends mean the same.`,
        at: { ...at, trees: held },
        remedies:
          vlans.mode === 'trunk'
            ? [
                {
                  label: `native VLAN ${heard} on ${label(network, p)}`,
                  commands: [
                    isBundle(network, p)
                      ? { do: 'set-bundle', bundle: network.aggregates.get(p)!.id, vlans: { ...vlans, native: heard } }
                      : { do: 'set-port', ...at, port: id, vlans: { ...vlans, native: heard } },
                  ],
                },
              ]
            : [],
      },
    ];
  });
}
