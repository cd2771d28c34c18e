/** Findings about cables: two ends that do not match. */
import type { BridgePort } from '../../topology/bridges';
import type { Command } from '../../edit/commands';
import type { Carriage, Design, Link, LinkEnd } from '../../model/document';
import type { VlanSet } from '../../model/vlanSet';
import { vlanSet } from '../../model/vlanSet';
import { switchName } from '../../tree/explain/phrases';
import { bundleAt } from '../lag/bundling';
import type { Finding, Remedy, Rule } from './finding';

/** One end of a cable, with what it is called. */
interface CableEnd {
  readonly port: BridgePort;
  readonly name: string;
  readonly at: LinkEnd;
}
type Ends = readonly [CableEnd, CableEnd];

/** Mismatches between the two ends of each link. */
export function linkFindings(design: Design): Finding[] {
  const endAt = endFinder(design);
  return design.links.flatMap((link) => {
    const [a, b] = [endAt(link.a), endAt(link.b)];
    if (!a || !b || (a.port.speed === b.port.speed && sameCarriage(a.port.vlans, b.port.vlans))) return [];
    const ends: Ends = [a, b];
    // What members carry stands on their bundles, which are compared as such.
    const member = [link.a, link.b].some((end) => bundleAt(design, end.switch, end.port));
    return [...speedFindings(link, ends), ...(member ? [] : carriageFindings(link, ends))];
  });
}

const sameCarriage = (a: Carriage, b: Carriage): boolean => a === b || JSON.stringify(a) === JSON.stringify(b);

const finding = (
  rule: Rule,
  link: Link,
  [a, b]: Ends,
  text: string,
  why: string,
  remedies: readonly Remedy[],
): Finding => ({
  rule,
  text: `${a.name} to ${b.name}: ${text}`,
  why,
  at: { link: link.id },
  remedies,
});

function speedFindings(link: Link, ends: Ends): Finding[] {
  const [a, b] = ends.map((end) => end.port.speed) as [number, number];
  if (a === b) return [];
  const remedies = [Math.min(a, b), Math.max(a, b)].map((speed): Remedy => ({
    label: `set both ends to ${speed} Mb/s`,
    commands: [{ do: 'set-link', link: link.id, speed }],
  }));
  return [
    finding(
      'speed-differs',
      link,
      ends,
      `the ends are set to ${a} and ${b} Mb/s`,
      'The link may not come up, and each direction has another path cost.',
      remedies,
    ),
  ];
}

function carriageFindings(link: Link, ends: Ends): Finding[] {
  const [a, b] = ends;
  const [va, vb] = [a.port.vlans, b.port.vlans];
  if (va.mode === 'access' && vb.mode === 'access') {
    if (va.vlan === vb.vlan) return [];
    const remedies = [[b, va] as const, [a, vb] as const].map(([end, vlans]) => ({
      label: `make ${end.name} access ${vlans.vlan}`,
      commands: [carry(end, vlans)],
    }));
    return [
      finding(
        'access-vlans-joined',
        link,
        ends,
        `access ports of VLAN ${va.vlan} and VLAN ${vb.vlan} are joined`,
        'Untagged frames pass from one VLAN into the other, which makes the two one.',
        remedies,
      ),
    ];
  }
  return [...nativeFindings(link, ends), ...oneEndFindings(link, ends)];
}

const untagged = (vlans: Carriage): number => (vlans.mode === 'access' ? vlans.vlan : vlans.native);
const carry = ({ at }: CableEnd, vlans: Carriage): Command => ({
  do: 'set-port',
  switch: at.switch,
  port: at.port,
  vlans,
});

function nativeFindings(link: Link, ends: Ends): Finding[] {
  const [a, b] = ends;
  const [na, nb] = [untagged(a.port.vlans), untagged(b.port.vlans)];
  if (na === nb) return [];
  const remedies = (
    [
      [a, nb],
      [b, na],
    ] as const
  ).flatMap(([end, native]) =>
    end.port.vlans.mode === 'trunk'
      ? [{ label: `native VLAN ${native} on ${end.name}`, commands: [carry(end, { ...end.port.vlans, native })] }]
      : [],
  );
  return [
    finding(
      'native-differs',
      link,
      ends,
      `untagged frames are VLAN ${na} at one end and VLAN ${nb} at the other`,
      'Frames sent untagged change their VLAN on the way, and per-VLAN BPDUs reach the wrong tree: where a VLAN check is on, it holds the port in both.',
      remedies.reverse(),
    ),
  ];
}

function oneEndFindings(link: Link, ends: Ends): Finding[] {
  const sets = ends.map(({ port: { vlans } }) =>
    vlanSet(vlans.mode === 'access' ? String(vlans.vlan) : vlans.allowed),
  ) as [VlanSet, VlanSet];
  const oneEnd = sets[0].differenceBothWays(sets[1]);
  if (oneEnd.isEmpty) return [];
  const text = oneEnd.format();
  const trunks = ends.every(({ port }) => port.vlans.mode === 'trunk');
  const all = sets[0].union(sets[1]).format();
  const both = sets[0].intersect(sets[1]).format();
  const set = (allowed: string) =>
    ends.flatMap((end) =>
      end.port.vlans.mode === 'trunk' && end.port.vlans.allowed !== allowed
        ? [carry(end, { ...end.port.vlans, allowed })]
        : [],
    );
  const remedies = [
    ...(trunks ? [{ label: `carry VLAN ${text} at both ends`, commands: set(all) }] : []),
    { label: `carry VLAN ${text} at neither`, commands: set(both) },
  ];
  return [
    finding(
      'vlan-at-one-end',
      link,
      ends,
      `VLAN ${text} is carried at one end only`,
      'Its frames die at the other end, and its tree does not run over this cable.',
      remedies,
    ),
  ];
}

/** Finds ports by where they are. */
function endFinder(design: Design): (end: LinkEnd) => CableEnd | null {
  const switches = new Map(
    design.switches.map((sw) => [sw.id, { sw, ports: new Map(sw.ports.map((port) => [port.id, port])) }]),
  );
  return (at) => {
    const found = switches.get(at.switch);
    const port = found?.ports.get(at.port);
    return found && port ? { port, name: `${switchName(found.sw)} port ${port.id}`, at } : null;
  };
}
