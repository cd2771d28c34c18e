/** A design drawn from what a network tells: what is known as it is, what is not as it usually is, and every doubt in a sentence. */
import { z } from '../../../base/zod';
import { counted } from '../../../base/words';
import { fail, ok, type Result } from '../../../base/result';
import { tidiedPlaces } from '../../../analysis/structure/tidy';
import { FORMAT, mostOf, type Design } from '../../../model/document';
import { problemText } from '../../../model/problem';
import { readDesign } from '../../../model/read';
import { VlanSet, vlanSet } from '../../../model/vlanSet';
import type { SwitchId } from '../../../model/ids';
import type { Observation, ObservedSwitch } from '../observation';
import { cablesOf } from './cables';
import { Drawing } from './drawing';
import { usualMethod } from './costs';
import { pairsOf } from './pairs';
import { switchOf } from './switches';
import { groupsBy, tiersOf } from './tiers';

export interface Drawn {
  readonly design: Design;
  /** Who of it each observed switch is. */
  readonly at: ReadonlyMap<ObservedSwitch, SwitchId>;
  /** What is a guess, or did not fit. */
  readonly doubts: readonly string[];
}

/** Draws it; the error is a sentence. */
export function drawn(observation: Observation, name = 'Observed network'): Result<Drawn, string> {
  if (observation.switches.length > mostOf('switches'))
    return fail(`${observation.switches.length} switches were read; a design has at most ${mostOf('switches')}.`);
  const drawing = new Drawing(observation);
  const pathCost = usualMethod(observation.switches);
  for (const sw of observation.switches) switchOf(drawing, sw, pathCost);
  cablesOf(drawing);
  pairsOf(drawing);
  const { switches, links, hosts, bundles, regions } = drawing;
  const tiers = tiersOf(switches, links);
  const inGroups = groupsBy(switches);
  const document = {
    format: FORMAT.name,
    version: FORMAT.version,
    name,
    notes: notesOf(observation, drawing.doubts),
    pathCost,
    vlans: vlansOf(observation).map((id) => ({ id })),
    regions,
    groups: inGroups.groups,
    switches: switches.map((sw) => ({ ...sw, tier: tiers.get(sw.id), group: inGroups.of.get(sw.id) })),
    links,
    bundles,
    hosts,
  };
  const read = readDesign(z.record(z.string(), z.unknown()).parse(JSON.parse(JSON.stringify(document))));
  if (!read.ok) return fail(`What was read cannot be drawn: ${problemText(read.error[0]!)}`);
  const places = tidiedPlaces(read.value);
  return ok({
    doubts: drawing.doubts,
    at: new Map([...drawing.at].map(([sw, { sw: made }]) => [sw, made.id])),
    design: {
      ...read.value,
      switches: read.value.switches.map((sw) => {
        const place = places.get(sw.id);
        return place ? { ...sw, position: { x: place.x, y: place.y } } : sw;
      }),
    },
  });
}

/** VLAN 1 is there by itself, and is drawn where it has a tree of its own. */
function vlansOf({ switches }: Observation): number[] {
  const all = VlanSet.of(
    switches.flatMap(({ vlans, ports }) => (vlans === null ? namedBy(ports) : [...vlanSet(vlans).ranges()])),
  );
  const own = new Set(switches.flatMap(({ trees }) => trees.map(({ tree }) => tree)));
  return [...all.ranges()]
    .flatMap(([first, last]) => Array.from({ length: last - first + 1 }, (_, i) => first + i))
    .filter((vid) => vid > 1 || own.has('vlan:1'));
}

/** Of who has no list of VLANs: those that single ports are set to, not those of a port that carries all. */
const namedBy = (ports: ObservedSwitch['ports']): (readonly [number, number])[] =>
  ports.flatMap(({ vlans }) => {
    const carried = vlanSet(vlans?.carried ?? '');
    return carried.isSame(VlanSet.all) ? [] : [...carried.ranges()];
  });

function notesOf({ at, switches, leftOut }: Observation, doubts: readonly string[]): string {
  const lines = [
    `Drawn from what ${counted(switches.length, 'switch', 'switches')} told, ${at.slice(0, 16).replace('T', ' ')}.`,
  ];
  if (doubts.length > 0) lines.push('', 'In doubt:', ...doubts.map((doubt) => `- ${doubt}`));
  if (leftOut.length > 0) lines.push('', 'Left out:', ...leftOut.map((sentence) => `- ${sentence}`));
  return lines.join('\n').slice(0, LONGEST_NOTES);
}
const LONGEST_NOTES = 100_000;
