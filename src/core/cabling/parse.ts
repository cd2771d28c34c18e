/** Reads a cabling line (docs/cabling-lines.md): one statement, or the place where it goes wrong. */
import type { Host, Vlan } from '../model/document';
import type { Node } from '../model/field';
import { speed as legalSpeed, vlanId } from '../model/legal';
import { titleSchema } from '../model/document';
import { VlanSet } from '../model/vlanSet';
import { fail, ok, type Result } from '../base/result';
import { Fault, type Hint, type Parsed } from './hints';
import { expandName, expandPorts } from './patterns';
import {
  KEYWORDS,
  OPTIONS,
  isOption,
  speedOf,
  type CarriageWish,
  type End,
  type EndPart,
  type PortSettings,
  type Spot,
  type Statement,
} from './statement';
import { tokensOf, type LineFault, type Token } from './tokens';
import { FIELD_WORDS, type FieldWord } from './words';

const NUMBER = /^-?\d+(\.\d+)?$/;

/** Reads one line. */
export function parseLine(line: string): Result<Parsed, LineFault> {
  const tokens = tokensOf(line);
  if (!tokens.ok) return tokens;
  const parser = new Parser(tokens.value, line.trimEnd().length);
  try {
    const statement = parser.statement();
    return ok({ statement, hints: parser.hints });
  } catch (error) {
    if (error instanceof Fault) return fail(error.fault);
    throw error;
  }
}

/** What may stand at the end of a line that need not be whole. */
export function hintsAfter(line: string): readonly Hint[] {
  const tokens = tokensOf(line);
  if (!tokens.ok) return [];
  const parser = new Parser(tokens.value, line.length);
  try {
    parser.statement();
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
  }
  return parser.hints;
}

class Parser {
  hints: Hint[] = [];
  private next = 0;

  private readonly tokens: readonly Token[];
  private readonly end: number;

  constructor(tokens: readonly Token[], end: number) {
    this.tokens = tokens;
    this.end = end;
  }

  statement(): Statement | null {
    this.hint({ may: 'start' }, { may: 'switch' });
    const [first] = this.tokens;
    if (!first) return null;
    const keyword = first.kind === 'word' ? KEYWORDS.find((word) => word === first.text) : undefined;
    if (keyword) this.next += 1;
    const statement = this.read(keyword ?? 'cable');
    if (this.peek()) this.wrong(this.peek(), `"${this.peek()!.text}" has no place here`);
    return statement;
  }

  private read(kind: Statement['kind']): Statement {
    switch (kind) {
      case 'switch':
        return { kind, names: this.names('switch'), settings: this.settings('switch') };
      case 'group':
        return { kind, names: this.names('group'), settings: this.settings('group') };
      case 'pair':
      case 'stack':
        return { kind, names: this.names('switch') };
      case 'port':
        return { kind, end: this.side(true), settings: this.portOptions() };
      case 'vlan':
        return this.vlan();
      case 'host':
        return this.host();
      case 'cable':
        return this.cable();
    }
  }

  private cable(): Statement {
    const from = this.side();
    this.hint({ may: 'join' });
    const sign = this.peek();
    if (sign?.kind !== 'sign' || (sign.text !== '=' && sign.text !== '*')) {
      this.wrong(sign, 'here "=" joins the ends one to one, and "*" each with each');
    }
    this.next += 1;
    const to = this.side();
    const { settings, fields } = this.portSettings('cable');
    return { kind: 'cable', from, to, mesh: sign!.text === '*', settings, ...fields };
  }

  private host(): Statement {
    const names = this.names('host');
    this.hint({ may: 'words', words: ['='] });
    const end: End = this.sign('=') ? this.side() : [];
    let speed: number | undefined;
    const settings: Partial<Host> = this.settings('host', (word) => (speed = this.speed(word)));
    const { vlan, mac } = settings;
    const said = { ...(vlan === undefined ? {} : { vlan }), ...(mac === undefined ? {} : { mac }) };
    return { kind: 'host', names, end, ...said, ...(speed === undefined ? {} : { speed }) };
  }

  private vlan(): Statement {
    const vlans = this.vlanSet(true);
    const name = this.peek();
    const named = name && name.kind !== 'sign' && !(name.kind === 'word' && OPTIONS.vlan.includes(name.text));
    if (named) this.next += 1;
    const { load }: Partial<Vlan> = this.settings('vlan');
    return {
      kind: 'vlan',
      vlans,
      ...(named ? { name: this.title(name) } : {}),
      ...(load === undefined ? {} : { load }),
    };
  }

  private portOptions(): PortSettings {
    const { settings, fields } = this.portSettings('port');
    return { ...settings, ...fields };
  }

  /** Options that fields have words for; others go to `other`. */
  private settings(kind: keyof typeof OPTIONS, other: (word: Token) => void = () => undefined): object {
    const settings: Record<string, unknown> = {};
    for (let word = this.option(kind); word; word = this.option(kind)) {
      const field = FIELD_WORDS[kind].get(word.text);
      if (!field) other(word);
      else settings[field.key] = field.kind === 'words' ? (field.value ?? null) : this.valueOf(field); // null: as though it had never been set
    }
    return settings;
  }

  /** What stands after a field's word. */
  private valueOf({ node, what, offer, written }: Extract<FieldWord, { kind: 'value' }>): unknown {
    if (offer === 'vlans') return this.vlanSet(false);
    if (offer) this.hint({ may: offer });
    if (written) {
      const token = this.peek();
      const legal = node.schema.safeParse(token?.kind === 'word' ? written.read(token.text) : undefined);
      if (legal.data === undefined) this.wrong(token, `here belongs ${what}`);
      this.next += 1;
      return legal.data;
    }
    const read = (inside: Node): unknown => {
      const token = this.peek();
      const text = token && token.kind !== 'sign' ? token.text : '';
      const legal = [text, ...(NUMBER.test(text) ? [Number(text)] : [])]
        .map((value) => inside.schema.safeParse(value))
        .find((parsed) => parsed.success);
      if (text === '' || !legal) this.wrong(token, `here belongs ${what}`);
      this.next += 1;
      return legal!.data;
    };
    if (node.kind !== 'group') return read(node);
    // A place: its coordinates with commas between.
    return Object.fromEntries(
      [...node.fields].map(([key, inside], i) => {
        if (i > 0 && !this.sign(',')) this.wrong(this.peek(), `here belongs ${what}`);
        return [key, read(inside)];
      }),
    );
  }

  private speed(word: Token): number {
    return this.checked(legalSpeed, speedOf(word.text)!, word);
  }

  /** Options of a port, or of both ends of a cable; those of the cable itself go to `cable`. */
  private portSettings(kind: 'port' | 'cable'): { readonly settings: PortSettings; readonly fields: object } {
    let speed: number | undefined;
    let vlans: CarriageWish | undefined;
    let native: Spot<number> | null = null;
    const fields = this.settings(kind, (word) => {
      const { text, at, length } = word;
      if (text === 'trunk') vlans = { mode: 'trunk', allowed: this.vlanSet(false) };
      else if (text === 'native') native = { value: this.vlanNumber('a native VLAN'), at, length };
      else if (text === 'access') vlans = { mode: 'access', vlan: this.vlanNumber('the VLAN of an access port') };
      else speed = this.speed(word);
    });
    return {
      fields,
      settings: { ...(speed === undefined ? {} : { speed }), ...this.carriage(vlans, native) },
    };
  }

  private carriage(vlans: CarriageWish | undefined, native: Spot<number> | null): { readonly vlans?: CarriageWish } {
    if (native === null) return vlans ? { vlans } : {};
    const wish = vlans ?? { mode: 'trunk' as const };
    if (wish.mode === 'access')
      throw new Fault({ at: native.at, length: native.length, message: 'an access port has no native VLAN' });
    return { vlans: { ...wish, native: native.value } };
  }

  /** `ridge-a 1-2 + ridge-b 1`. */
  private side(portsWanted = false): End {
    const parts: EndPart[] = [];
    do {
      const names = this.names('switch');
      this.hint({ may: 'ports', of: names.map((name) => name.value) });
      const ports = this.mayBePort(this.peek()) ? this.list(expandPorts) : null;
      if (ports === null && portsWanted)
        this.wrong(this.peek(), 'which port? A label such as 1, or a range such as 1-4');
      parts.push({ names, ports });
    } while (this.sign('+'));
    return parts;
  }

  private mayBePort(token: Token | undefined): boolean {
    return token !== undefined && (token.kind === 'quoted' || (token.kind === 'word' && !isOption(token.text)));
  }

  private names(may: 'switch' | 'host' | 'group'): Spot<string>[] {
    this.hint({ may });
    const token = this.peek();
    if (!token || token.kind === 'sign') this.wrong(token, `the name of a ${may} belongs here`);
    return this.list(expandName);
  }

  /** Items with commas between, each of which may stand for several. */
  private list(expand: (word: string) => Result<string[], string>): Spot<string>[] {
    const found: Spot<string>[] = [];
    do {
      const token = this.peek();
      if (!token || token.kind === 'sign') this.wrong(token, 'something is missing after the comma');
      const { at, length } = token!;
      const values = token!.kind === 'quoted' ? ok([token!.text]) : expand(token!.text);
      if (!values.ok) throw new Fault({ at, length, message: values.error });
      for (const value of values.value) {
        if (!titleSchema.safeParse(value).success)
          throw new Fault({ at, length, message: 'a name is one line, not empty' });
        found.push({ value, at, length });
      }
      this.next += 1;
    } while (this.sign(','));
    return found;
  }

  /** The next option of this kind of statement, if one follows. */
  private option(kind: keyof typeof OPTIONS): Token | null {
    this.hint({ may: 'words', words: OPTIONS[kind] });
    const token = this.peek();
    if (!token) return null;
    const words: readonly string[] = OPTIONS[kind];
    if (
      token.kind !== 'word' ||
      !(words.includes(token.text) || (words.includes('10G') && speedOf(token.text) !== null))
    ) {
      this.wrong(token, `"${token.text.slice(0, 40)}" is not an option here; there are ${words.join(', ')}`);
    }
    this.next += 1;
    return token;
  }

  /** Tokens up to the next word that is no part of a VLAN set, read as one: commas split words. */
  private vlanSet(wanted: boolean): string {
    this.hint({ may: 'vlan' });
    const start = this.peek();
    const parts: Token[] = [];
    for (
      let token = this.peek();
      token && (/^[\d-]+$/.test(token.text) || token.text === ',') && token.kind !== 'quoted';
      token = this.peek()
    ) {
      if (parts.length > 0 && token.text !== ',' && parts.at(-1)!.text !== ',') break;
      parts.push(token);
      this.next += 1;
    }
    if (parts.length === 0) {
      if (start?.kind === 'word' && start.text === 'none' && !wanted) {
        this.next += 1;
        return '';
      }
      if (wanted || (start && !isOption(start.text))) this.wrong(start, 'VLAN IDs belong here, such as 15,25-29');
      return '1-4094';
    }
    const text = parts.map((token) => token.text).join('');
    const parsed = VlanSet.parse(text);
    const [first] = parts as [Token];
    const last = parts.at(-1)!;
    if (!parsed.ok)
      throw new Fault({
        at: first.at,
        length: last.at + last.length - first.at,
        message: `${parsed.error.found}; write ${parsed.error.allowed}`,
      });
    return parsed.value.format();
  }

  private vlanNumber(what: string): number {
    this.hint({ may: 'vlan' });
    return this.number(`${what}, 1 to 4094`, (n) => vlanId.safeParse(n).success);
  }

  private number(what: string, legal: (value: number) => boolean): number {
    const token = this.peek();
    const value = token?.kind === 'word' && NUMBER.test(token.text) ? Number(token.text) : NaN;
    if (!legal(value)) this.wrong(token, `here belongs ${what}`);
    this.next += 1;
    return value;
  }

  private title(token: Token): string {
    if (!titleSchema.safeParse(token.text).success) this.wrong(token, 'a name is one line, not empty');
    return token.text;
  }

  private checked<T>(
    schema: { safeParse(value: unknown): { success: boolean; data?: T; error?: { issues: { message: string }[] } } },
    value: T,
    token: Token,
  ): T {
    const parsed = schema.safeParse(value);
    if (!parsed.success) this.wrong(token, parsed.error?.issues[0]?.message ?? 'not legal');
    return value;
  }

  private sign(text: string): boolean {
    const token = this.peek();
    if (token?.kind !== 'sign' || token.text !== text) return false;
    this.next += 1;
    return true;
  }

  private peek(): Token | undefined {
    return this.tokens[this.next];
  }

  /** Notes what may stand here, if the line ends here. */
  private hint(...hints: Hint[]): void {
    if (this.next >= this.tokens.length) this.hints.push(...hints);
  }

  private wrong(token: Token | undefined, message: string): never {
    throw new Fault({ at: token?.at ?? this.end, length: token?.length ?? 1, message });
  }
}
