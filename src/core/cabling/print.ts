/** Statements as text: `parseLine(printStatement(s))` gives `s` again. And a design, or a part of it, as lines. */
import {
  portSchema,
  switchSchema,
  type Design,
  type Group,
  type Host,
  type Link,
  type Port,
  type Switch,
} from '../model/document';
import type { GroupId, SwitchId } from '../model/ids';
import { VlanSet } from '../model/vlanSet';
import {
  KEYWORDS,
  isOption,
  speedWord,
  type CarriageWish,
  type End,
  type PortSettings,
  type Statement,
} from './statement';
import { writtenName } from './tokens';
import { FIELD_WORDS, saidOf, settingWords } from './words';

const keyword = (word: string): boolean => KEYWORDS.some((each) => each === word);
const nameText = (name: string): string => writtenName(name, (word) => !keyword(word) && word !== 'load');
const portText = (label: string): string => writtenName(label, (word) => !isOption(word) && !/^\d+-\d+$/.test(word));
const values = (spots: readonly { readonly value: string }[]): string[] => spots.map((spot) => spot.value);

/** One line. */
export function printStatement(statement: Statement): string {
  switch (statement.kind) {
    case 'switch':
      return words(
        'switch',
        values(statement.names).map(nameText).join(', '),
        ...settingWords(FIELD_WORDS.switch, statement.settings),
      );
    case 'group':
      return words(
        'group',
        values(statement.names).map(nameText).join(', '),
        ...settingWords(FIELD_WORDS.group, statement.settings),
      );
    case 'pair':
    case 'stack':
      return words(statement.kind, values(statement.names).map(nameText).join(', '));
    case 'port':
      return words('port', endText(statement.end), ...portWords(statement.settings));
    case 'vlan':
      return words(
        'vlan',
        statement.vlans,
        statement.name !== undefined && `"${statement.name.replace(/[\\"]/g, '\\$&')}"`,
        ...settingWords(FIELD_WORDS.vlan, { load: statement.load }),
      );
    case 'host': {
      const { names, end, vlan, mac, speed } = statement;
      return words(
        'host',
        values(names).map(nameText).join(', '),
        end.length > 0 && `= ${endText(end)}`,
        ...settingWords(FIELD_WORDS.host, { vlan, mac }),
        speed !== undefined && speedWord(speed),
      );
    }
    case 'cable': {
      const { from, to, mesh, settings, up } = statement;
      return words(
        endText(from),
        mesh ? '*' : '=',
        endText(to),
        ...portWords(settings),
        ...settingWords(FIELD_WORDS.cable, { up }),
      );
    }
  }
}

const words = (...parts: (string | false)[]): string => parts.filter((part) => part !== false && part !== '').join(' ');

const endText = (end: End): string =>
  end
    .map(({ names, ports }) => words(values(names).map(nameText).join(', '), ports !== null && listText(values(ports))))
    .join(' + ');

/** Labels with commas between; rising whole numbers as ranges. */
function listText(labels: readonly string[]): string {
  const parts: string[] = [];
  for (let i = 0; i < labels.length; i += 1) {
    let last = i;
    const plain = (label: string | undefined) => label !== undefined && /^(0|[1-9]\d{0,8})$/.test(label);
    while (plain(labels[last]) && plain(labels[last + 1]) && Number(labels[last + 1]) === Number(labels[last]) + 1)
      last += 1;
    parts.push(last > i ? `${labels[i]}-${labels[last]}` : portText(labels[i]!));
    i = last;
  }
  return parts.join(',');
}

function portWords({ speed, vlans, ...settings }: PortSettings): (string | false)[] {
  return [
    speed !== undefined && speedWord(speed),
    vlans !== undefined && carriageWords(vlans),
    ...settingWords(FIELD_WORDS.port, settings),
  ];
}

function carriageWords(wish: CarriageWish): string {
  if (wish.mode === 'access') return `access ${wish.vlan}`;
  const { allowed, native } = wish;
  return words(
    allowed !== undefined && words('trunk', allowed === '' ? 'none' : allowed !== VlanSet.all.format() && allowed),
    native !== undefined && `native ${native}`,
    allowed === undefined && native === undefined && 'trunk',
  );
}

/** Switches, their ports, the cables among them and their hosts as lines; all of the design, or the switches named. */
export function linesOf(design: Design, only?: ReadonlySet<SwitchId>): string[] {
  const within = (id: SwitchId): boolean => !only || only.has(id);
  const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  const at = (end: Link['a']): string => `${nameText(names.get(end.switch) ?? end.switch)} ${portText(end.port)}`;
  const hostsHere = design.hosts.filter((host) =>
    only ? host.attach.length > 0 && host.attach.every((end) => within(end.switch)) : true,
  );
  return [
    ...(only
      ? []
      : design.vlans.map(({ id, name, load }) =>
          printStatement({
            kind: 'vlan',
            vlans: String(id),
            ...(name === undefined ? {} : { name }),
            ...(load === undefined ? {} : { load }),
          }),
        )),
    ...groupLines(design, within),
    ...design.switches.filter((sw) => within(sw.id)).flatMap((sw) => switchLines(design, sw)),
    ...design.links
      .filter((link) => within(link.a.switch) && within(link.b.switch))
      .map((link) => words(at(link.a), '=', at(link.b), !link.up && 'cut')),
    ...hostsHere.map((host) => hostLine(host, at)),
  ];
}

/** Plugs as a line has them: `ridge-b 8 + ridge-b 9`. */
export function endWords(design: Design, ends: readonly Link['a'][]): string {
  const nameOf = (id: SwitchId): string => design.switches.find((sw) => sw.id === id)?.name ?? id;
  return ends.map((end) => `${nameText(nameOf(end.switch))} ${portText(end.port)}`).join(' + ');
}

const hostLine = (host: Host, at: (end: Host['attach'][0]) => string): string =>
  words(
    'host',
    nameText(host.name ?? host.id),
    host.attach.length > 0 && `= ${host.attach.map(at).join(' + ')}`,
    ...settingWords(FIELD_WORDS.host, host),
  );

/** Groups, those around others first; of a part of a design, the ones that its switches are in. */
function groupLines({ groups, switches }: Design, within: (id: SwitchId) => boolean): string[] {
  const byId = new Map(groups.map((group) => [group.id, group]));
  const wanted = new Set<Group>();
  const want = (id: GroupId | undefined): void => {
    const group = id === undefined ? undefined : byId.get(id);
    if (!group || wanted.has(group)) return;
    want(group.within);
    wanted.add(group);
  };
  const all = switches.every((sw) => within(sw.id));
  if (all) for (const { id } of groups) want(id);
  else for (const sw of switches) if (within(sw.id)) want(sw.group);
  return [...wanted].map(({ id, name, kind, within: around }) => {
    const settings = {
      ...(kind ? { kind } : {}),
      ...(around === undefined ? {} : { within: nameIn(byId, around) }),
    };
    return words('group', nameText(name ?? id), ...settingWords(FIELD_WORDS.group, settings));
  });
}

const nameIn = (groups: ReadonlyMap<GroupId, Group>, id: GroupId): string => groups.get(id)?.name ?? id;

function switchLines({ groups }: Pick<Design, 'groups'>, sw: Switch): string[] {
  const name = nameText(sw.name ?? sw.id);
  const { tier, dialect, group } = sw;
  const settings = {
    ...{ tier, dialect },
    ...saidOf(switchSchema, sw),
    ...(group === undefined ? {} : { group: groups.find(({ id }) => id === group)?.name ?? group }),
  };
  const alike = new Map<string, Port[]>();
  for (const port of sw.ports) {
    const key = portWords(printed(port)).filter(Boolean).join(' ');
    alike.set(key, [...(alike.get(key) ?? []), port]);
  }
  const ports = [...alike].map(([key, list]) => words('port', name, listText(list.map((port) => port.id)), key));
  return [words('switch', name, ...settingWords(FIELD_WORDS.switch, settings)), ...ports];
}

/** A port's settings without the ones that go without saying. */
const printed = (port: Port): PortSettings => {
  const { id, number, speed, vlans } = port;
  const { number: _, ...said } = saidOf(portSchema, port);
  return {
    ...said,
    speed,
    vlans: vlans.mode === 'trunk' && vlans.native === 1 ? { mode: 'trunk', allowed: vlans.allowed } : vlans,
    ...(String(number) === id ? {} : { number }),
  };
};
