/** What may be typed next in a cabling line. */
import { freePortsOf } from '../model/plugs';
import type { Design } from '../model/document';
import type { Hint } from './hints';
import { hintsAfter } from './parse';
import { KEYWORDS, isOption } from './statement';
import { writtenName } from './tokens';
import { FIELD_WORDS } from './words';

export interface Completion {
  /** What stands in the line once it is taken. */
  readonly text: string;
  /** A few words on what it is. */
  readonly detail: string;
}

export interface Completions {
  /** The characters that a completion replaces, from and to. */
  readonly from: number;
  readonly to: number;
  readonly options: readonly Completion[];
}

/** Most that are offered at once. */
const MOST = 8;

const KEYWORD_DETAIL: Readonly<Record<(typeof KEYWORDS)[number], string>> = {
  switch: 'adds or sets switches',
  port: 'adds or sets ports',
  host: 'adds hosts and plugs them in',
  vlan: 'adds VLANs',
  group: 'adds or sets groups of switches',
  pair: 'makes two switches a pair',
  stack: 'makes switches one stack',
};
const WORD_DETAIL: ReadonlyMap<string, string> = new Map([
  ['=', 'one to one'],
  ['10G', 'speed, such as 100M, 1G, 2.5G'],
  ['trunk', 'carries VLANs: trunk 15,25-29'],
  ['native', 'VLAN of untagged frames'],
  ['access', 'port of one VLAN'],
  ...Object.values(FIELD_WORDS).flatMap((words) =>
    [...words].flatMap(([word, { detail }]): [string, string][] => (detail === '' ? [] : [[word, detail]])),
  ),
]);

/** Completions at a place in a cabling line. */
export const completionsAt = (design: Design, line: string, cursor: number): Completions =>
  completionsIn(line, cursor, (before) => hintsAfter(before).flatMap((hint) => optionsOf(design, hint)));

/** Completions at a place in a line of any language; `after` gives what may follow a text, typed already or not. */
export function completionsIn(
  line: string,
  cursor: number,
  after: (before: string) => readonly Completion[],
): Completions {
  const before = line.slice(0, cursor);
  const word = /(?:"[^"]*|[^\s=*,+"]*)$/.exec(before)?.[0] ?? '';
  const from = cursor - word.length;
  const typed = word.replace(/^"/, '').toLowerCase();
  const seen = new Set<string>();
  const options = after(before.slice(0, from)).filter(({ text }) => {
    const bare = text.replace(/^"/, '').toLowerCase();
    const fits = bare.startsWith(typed) && bare !== typed && !seen.has(text);
    seen.add(text);
    return fits;
  });
  return { from, to: cursor, options: options.slice(0, MOST) };
}

function optionsOf(design: Design, hint: Hint): Completion[] {
  switch (hint.may) {
    case 'start':
      return KEYWORDS.map((text) => ({ text, detail: KEYWORD_DETAIL[text] }));
    case 'switch':
      return design.switches.map((sw) => ({ text: bare(sw.name ?? sw.id), detail: `${sw.tier} switch` }));
    case 'host':
      return design.hosts.map((host) => ({ text: bare(host.name ?? host.id), detail: `host in VLAN ${host.vlan}` }));
    case 'group':
      return design.groups.map((group) => ({ text: bare(group.name ?? group.id), detail: group.kind ?? 'group' }));
    case 'join':
      return [
        { text: '=', detail: 'one to one' },
        { text: '*', detail: 'each with each' },
      ];
    case 'vlan':
      return design.vlans.map((vlan) => ({ text: String(vlan.id), detail: vlan.name ?? 'VLAN' }));
    case 'words':
      return hint.words.map((text) => ({ text, detail: WORD_DETAIL.get(text) ?? '' }));
    case 'ports':
      return hint.of.length === 1 ? freePorts(design, hint.of[0]!) : [];
  }
}

/** The free ports of a switch, and the next number. */
function freePorts(design: Design, name: string): Completion[] {
  const sw = design.switches.find((s) => s.name === name) ?? design.switches.find((s) => s.id === name);
  if (!sw) return [{ text: '1', detail: 'new port' }];
  const free = freePortsOf(design, sw).map((port) => ({
    text: bare(port.id),
    detail: port.speed >= 1000 ? `free, ${port.speed / 1000} Gb/s` : `free, ${port.speed} Mb/s`,
  }));
  const next = Math.max(0, ...sw.ports.map((port) => port.number)) + 1;
  return [...free, { text: String(next), detail: 'new port' }];
}

const bare = (name: string): string =>
  writtenName(name, (word) => !isOption(word) && !KEYWORDS.some((each) => each === word));
