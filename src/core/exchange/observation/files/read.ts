/** An observation from files that switches have written, in place of a network that is asked: a folder, or the beginning of a name, for each. */
import { fail, ok, type Result } from '../../../base/result';
import { readLldp } from '../../neighbours/lldp';
import type { Observation, ObservedSwitch } from '../observation';
import { logicalBridges, readAgent } from '../snmp/read';
import { OUTPUTS, sorted, type File, type Output, type Told } from './outputs';
import { kernelSwitches, openSwitches } from './system';
import { readWalk } from './walk';

/** `files`: by their paths within a directory; `at`: ISO 8601. The error is a sentence. */
export function observedInFiles(files: readonly File[], at: string): Result<Observation, string> {
  const groups = new Map<string, File[]>();
  for (const file of files) {
    const name = switchOf(file.name);
    groups.set(name, [...(groups.get(name) ?? []), file]);
  }
  const leftOut: string[] = [];
  const switches = [...groups].flatMap(([name, own]) => {
    const { told, unread } = sorted(own);
    for (const { name: file, text } of unread)
      leftOut.push(
        text.trim() === '' ? `${file}: it is empty.` : `${file}: it is none of ${Object.values(OUTPUTS).join(', ')}.`,
      );
    return switchesIn(name, told, leftOut);
  });
  if (switches.length === 0) return fail(`nobody tells of itself there. ${leftOut.slice(0, 5).join(' ')}`.trim());
  return ok({ format: 'knot-path-observation', version: 1, at, switches, leftOut });
}

/** `lodge/links.json`, `lodge.links.json`. */
const switchOf = (path: string): string => path.split('/')[0]!.split('.')[0] || path;

function switchesIn(name: string, told: Told, leftOut: string[]): ObservedSwitch[] {
  const found = [
    ...walked(name, told),
    ...tried(name, told('links'), () => kernelSwitches(name, told), leftOut),
    ...tried(name, told('switchPorts'), () => openSwitches(name, told), leftOut),
  ];
  if (found.length === 0 && told('links').length === 0 && told('switchPorts').length === 0) {
    const others = (Object.keys(OUTPUTS) as Output[]).flatMap((output) => told(output).map((file) => file.name));
    if (others.length > 0)
      leftOut.push(`${name}: ${others.join(', ')} alone tell of no switch; ${OUTPUTS.walk} or ${OUTPUTS.links} do.`);
  }
  return found.map((sw, i) => (i === 0 ? withHosts(withNeighbours(sw, told), told) : sw));
}

/** Of several, the one with most values is the switch's own; the others are of bridges within it. */
function walked(name: string, told: Told): ObservedSwitch[] {
  const all = told('walk')
    .map(({ text }) => readWalk(text))
    .sort((a, b) => b.length - a.length);
  const [own, ...within] = all;
  if (!own) return [];
  const sw = readAgent(name, own, within);
  const missing = logicalBridges(own).length > within.length ? ['Not all bridges within it were walked.'] : [];
  return [{ ...sw, missing: [...sw.missing, ...missing] }];
}

/** What cannot be read is said, and the rest is. */
function tried(
  name: string,
  files: readonly { readonly name: string }[],
  read: () => ObservedSwitch[],
  leftOut: string[],
): ObservedSwitch[] {
  if (files.length === 0) return [];
  try {
    return read();
  } catch {
    leftOut.push(`${name}: ${files.map((file) => file.name).join(', ')} cannot be read: something is missing in it.`);
    return [];
  }
}

function withNeighbours(sw: ObservedSwitch, told: Told): ObservedSwitch {
  const lldp = told('lldp');
  const rows = lldp.flatMap(({ text }) => {
    const read = readLldp(text, sw.name || sw.source);
    return read.ok ? read.value.observed : [];
  });
  const neighbours = rows.flatMap((row) => {
    const port = sw.ports.find((each) => each.interface === row.port);
    return port
      ? [
          {
            ...{ port: port.number, system: row.device === row.mac ? null : row.device },
            ...{ chassis: row.mac ?? row.device, portId: row.devicePort ?? '', address: null, kind: row.kind ?? null },
          },
        ]
      : [];
  });
  if (lldp.length === 0) return sw;
  return { ...sw, neighbours: [...sw.neighbours, ...neighbours], tellsNeighbours: true };
}

interface Learnt {
  readonly mac?: unknown;
  readonly ifname?: unknown;
  readonly state?: unknown;
  readonly flags?: unknown;
}

/** Where nobody tells of itself and one address alone is learnt, a host is. */
function withHosts(sw: ObservedSwitch, told: Told): ObservedSwitch {
  const learnt = new Map<string, Set<string>>();
  for (const { json } of told('bridgeFdb'))
    for (const each of json as Learnt[]) {
      if (typeof each.mac !== 'string' || typeof each.ifname !== 'string' || each.state === 'permanent') continue;
      if (each.mac.startsWith('01:') || each.mac.startsWith('33:33:')) continue;
      learnt.set(each.ifname, (learnt.get(each.ifname) ?? new Set()).add(each.mac));
    }
  const seen = new Set(sw.neighbours.map(({ port }) => port));
  const hosts = sw.ports.flatMap(({ number, interface: name }) => {
    const [mac, ...more] = learnt.get(name) ?? [];
    return mac === undefined || more.length > 0 || seen.has(number)
      ? []
      : [{ ...{ port: number, system: null, chassis: mac, portId: mac, address: null }, kind: 'host' as const }];
  });
  return hosts.length === 0 ? sw : { ...sw, neighbours: [...sw.neighbours, ...hosts] };
}
