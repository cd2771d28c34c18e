/** Findings about loops that no spanning tree closes: cables among switches that run none. */
import { runsTrees, traitsOf } from '../../model/document';
import { FreshNames } from '../../edit/fresh';
import type { LinkId, SwitchId } from '../../model/ids';
import { switchName } from '../../tree/explain/phrases';
import { bridgePortOf, deadReason, isBundle, type Network } from '../../topology/network';
import type { Finding } from './finding';
import { partsOf } from '../parts';

/** Each live cable that closes a loop among switches whose spanning tree is off. */
export function loopFindings(network: Network): Finding[] {
  const { design, switches } = network;
  const off = new Map(switches.filter((sw) => !runsTrees(sw) && sw.up).map((sw) => [sw.id, sw]));
  const usual = new FreshNames({ ...design, switches: design.switches.filter((sw) => runsTrees(sw)) }).mode();
  const lead = new Map<SwitchId, SwitchId>([...off.keys()].map((id) => [id, id]));
  const leadOf = (id: SwitchId): SwitchId => (lead.get(id) === id ? id : leadOf(lead.get(id)!));
  const counted = new Set<string>();
  return design.links.flatMap((link): Finding[] => {
    const [a, b] = [off.get(link.a.switch), off.get(link.b.switch)];
    const ends = [link.a, link.b].map((end) => bridgePortOf(network, network.portIndexOf(end.switch, end.port)));
    // Members of one bundle are one cable.
    if (!a || !b || deadReason(network, ends[0]!) !== null || counted.has(ends.join())) return [];
    if (ends.some((p) => isBundle(network, p))) counted.add(ends.join());
    const [leadA, leadB] = [leadOf(a.id), leadOf(b.id)];
    if (leadA !== leadB) {
      lead.set(leadA, leadB);
      return [];
    }
    const names = `${switchName(a)} and ${switchName(b)}`;
    return [
      {
        rule: 'loop-without-spanning-tree',
        text: `${switchName(a)} port ${link.a.port} to ${switchName(b)} port ${link.b.port} closes a loop of switches that run no spanning tree`,
        why: 'Nothing blocks in it: the first broadcast circles for ever and fills every link it reaches.',
        at: { link: link.id },
        remedies: [
          {
            label: `run ${traitsOf(usual.dialect).name} on ${names}`,
            commands: [...new Set([a.id, b.id])].map((id) => ({ do: 'set-switch', switch: id, ...usual })),
          },
          { label: 'cut this link', commands: [{ do: 'set-link', link: link.id, up: false }] },
        ],
      },
    ];
  });
}

/** Switches that run no spanning tree but lie in a loop with others that do: only those can break it. */
export function silentSwitchFindings(network: Network): Finding[] {
  const { design, switches, firstPort, owner, far, live } = network;
  const inOwnLoop = new Set(loopFindings(network).flatMap((finding) => ringOf(network, finding.at.link)));
  const usual = new FreshNames({ ...design, switches: design.switches.filter(runsTrees) }).mode();
  return switches.flatMap((sw, s): Finding[] => {
    if (runsTrees(sw) || !sw.up || inOwnLoop.has(s)) return [];
    const part = partsOf(network, (p) => owner[p] !== s);
    const met = new Set<number>();
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      if (!live[p] || far[p]! < 0 || owner[far[p]!] === s) continue;
      const beyond = part[owner[far[p]!]!]!;
      if (met.has(beyond)) {
        return [
          {
            rule: 'no-spanning-tree-in-loop',
            text: `${switchName(sw)} runs no spanning tree and lies in a loop`,
            why: 'It never blocks, so only its neighbours can break the loop; if BPDUs do not get through it, nobody does.',
            at: { switch: sw.id },
            remedies: [
              {
                label: `run ${traitsOf(usual.dialect).name} on ${switchName(sw)}`,
                commands: [{ do: 'set-switch', switch: sw.id, ...usual }],
              },
            ],
          },
        ];
      }
      met.add(beyond);
    }
    return [];
  });
}

/** The switches without spanning tree that a live cable among such switches hangs together with. */
function ringOf(
  { design, switches, switchIndex, firstPort, far, live, owner }: Network,
  id: LinkId | undefined,
): number[] {
  const link = design.links.find((l) => l.id === id);
  const start = link && switchIndex.get(link.a.switch);
  if (start === undefined) return [];
  const found = new Set([start]);
  for (const s of found) {
    for (let p = firstPort[s]!; p < firstPort[s + 1]!; p += 1) {
      const t = far[p]! >= 0 && live[p] ? owner[far[p]!]! : -1;
      if (t >= 0 && !runsTrees(switches[t]!)) found.add(t);
    }
  }
  return [...found];
}
