/** Reads the words of an intent, one by one, against the names of a design. */
import { Fault } from '../../cabling/hints';
import type { Completion } from '../../cabling/complete';
import { writtenName, type Token } from '../../cabling/tokens';
import type { Bundle, Design, Host, Switch } from '../../model/document';
import type { BridgePortId, GroupId, HostId, SwitchId } from '../../model/ids';
import { nameOf } from '../../model/names';
import { TIERS, type Tier } from '../../model/switch';
import { VlanSet } from '../../model/vlanSet';

/** Switches by their names, by the group they are in, or by their tier. */
export type SwitchesOf =
  | { readonly by: 'switch'; readonly id: SwitchId }
  | { readonly by: 'group'; readonly id: GroupId }
  | { readonly by: 'tier'; readonly tier: Tier };
/** What a way goes over: switches, or the link at a port. */
export type PlacesOf = SwitchesOf | { readonly by: 'link'; readonly end: End };
/** Hosts by their names, all of them, of a VLAN, or at some switches. */
export type HostsOf =
  | { readonly by: 'host'; readonly id: HostId }
  | { readonly by: 'all' }
  | { readonly by: 'vlans'; readonly vlans: string }
  | { readonly by: 'switches'; readonly of: SwitchesOf };
/** Trees of VLANs, instances by number, or all of them. */
export type TreesOf =
  | { readonly by: 'all' }
  | { readonly by: 'vlans'; readonly vlans: string }
  | { readonly by: 'instances'; readonly mstids: readonly number[] };
/** A port, or a bundle. */
export interface End {
  readonly switch: SwitchId;
  readonly port: BridgePortId;
}

/** One of those that a line is about, as its words. */
interface Item {
  readonly words: readonly Token[];
}
/** Whom a line is about, before it is known as what. */
export type Subject = readonly Item[];

const NUMBER = /^(\d+(?:\.\d+)?)(\D*)$/;

export class Reader {
  private readonly offers: (() => readonly Completion[])[] = [];
  private next = 0;
  private readonly tokens: readonly Token[];
  private readonly end: number;
  private readonly design: Design;
  /** Things go by their ids first; else by their names first. */
  private readonly byId: boolean;
  private readonly reserved: ReadonlySet<string>;

  constructor(
    tokens: readonly Token[],
    { end, design, byId, reserved }: { end: number; design: Design; byId: boolean; reserved: ReadonlySet<string> },
  ) {
    this.tokens = tokens;
    this.end = end;
    this.design = design;
    this.byId = byId;
    this.reserved = reserved;
  }

  get atEnd(): boolean {
    return this.next >= this.tokens.length;
  }
  /** What may follow, if the line ends here. */
  get options(): readonly Completion[] {
    return this.offers.flatMap((offer) => offer());
  }
  offer(make: () => readonly Completion[]): void {
    if (this.atEnd) this.offers.push(make);
  }

  /** Takes some words where they stand here. */
  takes(words: string, detail = ''): boolean {
    const all = words.split(' ');
    for (const [i, word] of all.entries()) {
      if (this.next + i === this.tokens.length) this.offers.push(() => [{ text: all.slice(i).join(' '), detail }]);
      if (!this.isWord(word, i)) return false;
    }
    this.next += all.length;
    return true;
  }

  /** Takes the words of one of some forms, the longest that stands here; null where none does. */
  takesOne<T extends { readonly words: string; readonly detail: string }>(forms: readonly T[]): T | null {
    return (
      [...forms].sort((a, b) => b.words.length - a.words.length).find((form) => this.takes(form.words, form.detail)) ??
      null
    );
  }

  needs(words: string, detail = ''): void {
    if (!this.takes(words, detail)) this.wrong(`here belongs "${words}"`);
  }

  /** Whom a line is about: things with commas between, up to a word that says what is claimed of them. */
  subject(verbs: ReadonlySet<string>): Subject {
    const items: Item[] = [];
    do {
      this.offer(() => [...this.switchOptions(), ...this.hostOptions()]);
      const words: Token[] = [];
      for (let token = this.peek(); token && token.kind !== 'sign'; token = this.peek()) {
        if (token.kind === 'word' && verbs.has(token.text) && words.length > 0) break;
        words.push(token);
        this.next += 1;
      }
      if (words.length === 0) this.wrong('the name of a switch, a group or a host belongs here');
      items.push({ words });
    } while (this.sign(','));
    return this.vlansIn(items);
  }

  /** Commas between VLANs part no items: `hosts of vlan 15, 25`. */
  private vlansIn(items: readonly Item[]): Subject {
    const joined: Item[] = [];
    for (const item of items) {
      const before = joined.at(-1);
      if (before && isVlans(before) && item.words.every((word) => /^[\d-]+$/.test(word.text)))
        joined[joined.length - 1] = { words: [...before.words, ...item.words] };
      else joined.push(item);
    }
    return joined;
  }

  /** What a way goes over, later in a line: `over ridge-a, link ridge-b 3`. */
  places(): readonly PlacesOf[] {
    const found: PlacesOf[] = [];
    do {
      if (this.takes('link', 'the link at a port')) {
        found.push({ by: 'link', end: this.port() });
        continue;
      }
      this.offer(() => this.switchOptions());
      const words: Token[] = [];
      const first = this.peek();
      if (!first || first.kind === 'sign')
        this.wrong('the name of a switch or a group belongs here, or a link: link ridge-a 1');
      words.push(first!);
      this.next += 1;
      const second = this.peek();
      if (second?.kind === 'word' && ((isTier(first!) && second.text === 'switches') || isGroupWord(first!))) {
        words.push(second);
        this.next += 1;
      } else if (second?.kind === 'quoted' && isGroupWord(first!)) {
        words.push(second);
        this.next += 1;
      }
      found.push(this.switchesOf({ words }));
    } while (this.sign(','));
    return found;
  }

  switchesOf(item: Item): SwitchesOf {
    const [first, second] = item.words as [Token, Token?];
    if (item.words.length === 1) {
      if (first.kind === 'word' && first.text === 'switches')
        return this.wrongAt(item, 'which switches? Such as "access switches"');
      const sw = this.find(this.design.switches, first.text);
      if (sw) return { by: 'switch', id: sw.id };
      const group = this.find(this.design.groups, first.text);
      if (group) return { by: 'group', id: group.id };
      return this.wrongAt(item, `there is no switch or group ${first.text}`);
    }
    if (item.words.length === 2 && second!.text === 'switches' && isTier(first))
      return { by: 'tier', tier: first.text as Tier };
    if (item.words.length === 2 && isGroupWord(first)) {
      const group = this.find(this.design.groups, second!.text);
      if (group) return { by: 'group', id: group.id };
      return this.wrongAt(item, `there is no group ${second!.text}`);
    }
    return this.wrongAt(item, 'here belongs a switch, a group, or a tier such as "access switches"');
  }

  hostsOf(item: Item): HostsOf {
    const texts = item.words.map(({ text }) => text);
    if (texts[0] === 'all' && texts[1] === 'hosts' && texts.length === 2) return { by: 'all' };
    if (texts[0] === 'hosts' && texts[1] === 'of' && texts.length > 2) {
      if (isVlans(item)) return { by: 'vlans', vlans: this.vlanSet(item.words.slice(3)) };
      return { by: 'switches', of: this.switchesOf({ words: item.words.slice(2) }) };
    }
    const host = item.words.length === 1 ? this.find(this.design.hosts, texts[0]!) : null;
    if (host) return { by: 'host', id: host.id };
    return this.wrongAt(
      item,
      `there is no host ${texts.join(' ')}; hosts are said by name, or as "all hosts", "hosts of vlan 15"`,
    );
  }

  /** A port or bundle: a switch and a label. */
  endOf(item: Item): End {
    const [first, second] = item.words as [Token, Token?];
    const sw = this.find(this.design.switches, first.text);
    if (!sw) return this.wrongAt(item, `there is no switch ${first.text}`);
    if (item.words.length !== 2) return this.wrongAt(item, `which port of ${nameOf(sw)}?`);
    return { switch: sw.id, port: this.portOf(item, sw, second!.text) };
  }

  /** The ports that a subject may go on with. */
  offerPorts(subject: Subject): void {
    this.offer(() => this.portOptions(subject.at(-1)?.words ?? []));
  }

  /** The one thing that a subject is. */
  only(subject: Subject): Item {
    if (subject.length !== 1) this.wrongAt(subject[1]!, 'one port is meant here');
    return subject[0]!;
  }

  /** A switch and a port of it, later in a line. */
  port(): End {
    this.offer(() => this.switchOptions().filter(({ detail }) => detail.endsWith('switch')));
    const first = this.peek();
    if (!first || first.kind === 'sign') this.wrong('the name of a switch belongs here');
    this.next += 1;
    this.offer(() => this.portOptions([first!]));
    const second = this.peek();
    const words = second && second.kind !== 'sign' ? [first!, second] : [first!];
    this.next += words.length - 1;
    return this.endOf({ words });
  }

  trees(): TreesOf {
    if (this.takes('all trees', 'every tree')) return { by: 'all' };
    if (this.takes('vlan', 'trees of VLANs')) return { by: 'vlans', vlans: this.vlans() };
    if (this.takes('instance', 'MST instances')) {
      const mstids = [];
      do mstids.push(this.number('the number of an instance', '', (n) => Number.isInteger(n) && n <= 4094));
      while (this.sign(','));
      return { by: 'instances', mstids };
    }
    return this.wrong('which trees? Such as vlan 15,25-29, instance 1, or all trees');
  }

  /** VLAN IDs and ranges with commas between. */
  vlans(): string {
    this.offer(() => this.design.vlans.map((vlan) => ({ text: String(vlan.id), detail: vlan.name ?? 'VLAN' })));
    const parts: Token[] = [];
    for (let token = this.peek(); token && /^[\d-]+$|^,$/.test(token.text); token = this.peek()) {
      if (parts.length > 0 && token.text !== ',' && parts.at(-1)!.text !== ',') break;
      parts.push(token);
      this.next += 1;
    }
    if (parts.length === 0) this.wrong('VLAN IDs belong here, such as 15,25-29');
    return this.vlanSet(parts);
  }

  /** A number that may have its unit behind it, with a space or without. */
  number(what: string, unit: string, legal: (value: number) => boolean): number {
    const token = this.peek();
    const [, digits, suffix] = (token?.kind === 'word' && NUMBER.exec(token.text)) || [];
    const value = digits === undefined ? NaN : Number(digits);
    if (!legal(value) || (suffix !== '' && suffix !== unit)) this.wrong(`here belongs ${what}`);
    this.next += 1;
    if (unit !== '' && suffix === '') this.takes(unit);
    return value;
  }

  /** One of some words. */
  oneOf<T extends string>(words: readonly T[], what: string): T {
    this.offer(() => words.map((text) => ({ text, detail: what })));
    const found = words.find((word) => this.isWord(word));
    if (found === undefined) this.wrong(`here belongs ${what}`);
    this.next += 1;
    return found!;
  }

  sign(text: string): boolean {
    const token = this.peek();
    if (token?.kind !== 'sign' || token.text !== text) return false;
    this.next += 1;
    return true;
  }

  wrong(message: string): never {
    const token = this.peek();
    throw new Fault({ at: token?.at ?? this.end, length: token?.length ?? 1, message });
  }

  /** Stops where something is left. */
  nothingMore(): void {
    if (!this.atEnd) this.wrong(`"${this.peek()!.text}" has no place here`);
  }

  /** What can be asked of the design while reading. */
  get of(): Design {
    return this.design;
  }

  private vlanSet(parts: readonly Token[]): string {
    const [first, last] = [parts[0]!, parts.at(-1)!];
    const text = parts.reduce(
      (all, { text: part }) => (all === '' || all.endsWith(',') || part === ',' ? all + part : `${all},${part}`),
      '',
    );
    const parsed = VlanSet.parse(text);
    if (parsed.ok) return parsed.value.format();
    const message = `${parsed.error.found}; write ${parsed.error.allowed}`;
    throw new Fault({ at: first.at, length: last.at + last.length - first.at, message });
  }

  private portOf(item: Item, sw: Switch, text: string): BridgePortId {
    const bundles = this.design.bundles.filter((each) => each.switch === sw.id);
    const port = sw.ports.find((each) => each.id === text) ?? (this.find(bundles, text) as Bundle | null);
    return port?.id ?? this.wrongAt(item, `${nameOf(sw)} has no port or bundle ${text}`);
  }

  private find<T extends { readonly id: string; readonly name?: string | undefined }>(
    all: readonly T[],
    text: string,
  ): T | null {
    const [id, name] = [all.find((each) => each.id === text), all.find((each) => each.name === text)];
    return (this.byId ? (id ?? name) : (name ?? id)) ?? null;
  }

  private wrongAt({ words }: Item, message: string): never {
    const [first, last] = [words[0]!, words.at(-1)!];
    throw new Fault({ at: first.at, length: last.at + last.length - first.at, message });
  }

  private peek(): Token | undefined {
    return this.tokens[this.next];
  }
  private isWord(word: string, ahead = 0): boolean {
    const token = this.tokens[this.next + ahead];
    return token?.kind === 'word' && token.text === word;
  }

  private written = (thing: { readonly id: string; readonly name?: string | undefined }): string =>
    writtenName(nameOf(thing), (word) => !this.reserved.has(word));
  private switchOptions(): Completion[] {
    return [
      ...this.design.switches.map((sw) => ({ text: this.written(sw), detail: `${sw.tier} switch` })),
      ...this.design.groups.map((group) => ({ text: `group ${this.written(group)}`, detail: group.kind ?? 'group' })),
      ...TIERS.map((tier) => ({ text: `${tier} switches`, detail: 'all of that tier' })),
    ];
  }
  private hostOptions(): Completion[] {
    return [
      { text: 'all hosts', detail: 'hosts of each VLAN' },
      { text: 'hosts of vlan', detail: 'hosts of some VLANs' },
      ...this.design.hosts.map((host: Host) => ({ text: this.written(host), detail: `host in VLAN ${host.vlan}` })),
    ];
  }
  private portOptions(words: readonly Token[]): Completion[] {
    const sw = words.length === 1 ? this.find(this.design.switches, words[0]!.text) : null;
    if (!sw) return [];
    return [
      ...this.design.bundles
        .filter((each) => each.switch === sw.id)
        .map((bundle) => ({ text: this.written(bundle), detail: 'bundle' })),
      ...sw.ports.map((port) => ({ text: this.written({ id: port.id }), detail: 'port' })),
    ];
  }
}

const isTier = ({ kind, text }: Token): boolean => kind === 'word' && TIERS.some((tier) => tier === text);
const isGroupWord = ({ kind, text }: Token): boolean => kind === 'word' && text === 'group';
const isVlans = ({ words }: Item): boolean =>
  words[0]?.text === 'hosts' && words[1]?.text === 'of' && words[2]?.text === 'vlan' && words.length > 3;
