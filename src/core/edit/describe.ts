/** Commands in words, for the history: `priority of ridge-a in VLANs 15-35: 32768 to 4096`. */
import type { Command } from './commands';
import { treesName, type LinkId, type PortId, type SwitchId, type TreeId } from '../model/ids';
import { BRIDGE_PRIORITY } from '../model/legal';
import type { Carriage, Design, Dialect, LinkEnd, Timers } from '../model/document';
import { VlanSet } from '../model/vlanSet';

/** A sentence in parts, so that commands which differ in one part can be told as one: `before subject tree after`. */
interface Phrase {
  readonly before: string;
  readonly subjects: readonly string[];
  readonly trees: readonly (TreeId | null)[];
  readonly after: string;
}

/** How many subjects and sentences are told before the rest is only counted. */
const MOST = { subjects: 4, sentences: 3 } as const;

/** What a command will do to this design, in one line. */
export const describeCommand = (design: Design, command: Command): string =>
  phraseText(phraseOf(namesOf(design), command));

/** What several commands will do as one step, alike ones told together. */
export function describeCommands(design: Design, commands: readonly Command[]): string {
  const sentences = sentencesOf(design, commands);
  const more = sentences.length > MOST.sentences ? `; and ${sentences.length - MOST.sentences} more` : '';
  return sentences.slice(0, MOST.sentences).join('; ') + more;
}

/** One sentence for each kind of change that several commands make. */
export function sentencesOf(design: Design, commands: readonly Command[]): string[] {
  const names = namesOf(design);
  const phrases = commands.map((command) => {
    names.learn(command);
    return phraseOf(names, command);
  });
  const bySubject = merged(
    phrases,
    (p) => [p.before, p.trees, p.after],
    (p, q) => ({ ...p, subjects: [...p.subjects, ...q.subjects] }),
  );
  const byTree = merged(
    bySubject,
    (p) => [p.before, p.subjects, p.after, p.trees[0] === null],
    (p, q) => ({ ...p, trees: [...p.trees, ...q.trees] }),
  );
  return byTree.map(phraseText);
}

function merged(
  phrases: readonly Phrase[],
  keyOf: (p: Phrase) => unknown,
  join: (p: Phrase, q: Phrase) => Phrase,
): Phrase[] {
  const found = new Map<string, Phrase>();
  for (const phrase of phrases) {
    const key = JSON.stringify(keyOf(phrase));
    const before = found.get(key);
    found.set(key, before ? join(before, phrase) : phrase);
  }
  return [...found.values()];
}

function phraseText({ before, subjects, trees, after }: Phrase): string {
  const more = subjects.length - MOST.subjects;
  const who = more > 1 ? `${subjects.slice(0, MOST.subjects).join(', ')} and ${more} more` : subjects.join(', ');
  const [first] = trees;
  const where =
    first === undefined
      ? ''
      : first === null
        ? ' in all trees'
        : ` in ${treesName(trees.filter((tree) => tree !== null))}`;
  return `${before}${who}${where}${after}`;
}

const say = (before: string, subject: string, after = '', trees: readonly (TreeId | null)[] = []): Phrase => ({
  before,
  subjects: [subject],
  trees,
  after,
});

/** What things are called, found in one pass: several hundred commands may be told at once. */
interface Names {
  readonly design: Design;
  switch(id: SwitchId): Design['switches'][0] | undefined;
  nameOf(id: SwitchId): string;
  end(at: LinkEnd): string;
  link(id: LinkId): string;
  /** Takes in what a command adds. */
  learn(command: Command): void;
}

function namesOf(design: Design): Names {
  const switches = new Map(design.switches.map((sw) => [sw.id, sw]));
  const links = new Map(design.links.map((link) => [link.id, link]));
  const nameOf = (id: SwitchId): string => switches.get(id)?.name ?? id;
  const end = (at: LinkEnd): string => `${nameOf(at.switch)} port ${at.port}`;
  return {
    design,
    nameOf,
    end,
    switch: (id) => switches.get(id),
    link(id) {
      const link = links.get(id);
      return link ? `${end(link.a)} to ${end(link.b)}` : id;
    },
    learn(command) {
      if (command.do === 'add-switch') switches.set(command.switch.id, command.switch);
      if (command.do === 'add-link') links.set(command.link.id, command.link);
    },
  };
}

function phraseOf(names: Names, command: Command): Phrase {
  const { design, nameOf, end } = names;
  const portOf = (sw: SwitchId, port: PortId) =>
    names.switch(sw)?.ports.find((p) => p.id === port) ??
    design.bundles.find((b) => b.switch === sw && b.id === (port as string));
  const portName = (at: { switch: SwitchId; port: PortId }) => `${nameOf(at.switch)} port ${at.port}`;
  switch (command.do) {
    case 'rename-design':
      return say('name: ', design.name, ` to ${command.name}`);
    case 'set-cost-method':
      return say('path cost method: ', design.pathCost, ` to ${command.method}`);
    case 'set-switch': {
      const sw = names.switch(command.switch);
      return say(
        '',
        nameOf(command.switch),
        `: ${listed([
          command.name !== undefined && `name to ${command.name}`,
          command.tier !== undefined && `tier ${sw?.tier} to ${command.tier}`,
          command.dialect !== undefined &&
            `${sw ? `${DIALECT_NAMES[sw.dialect]} ` : ''}to ${DIALECT_NAMES[command.dialect]}`,
          command.mac !== undefined && `MAC ${sw?.mac} to ${command.mac}`,
          command.up !== undefined && (command.up ? 'switched on' : 'switched off'),
          command.pathCost !== undefined &&
            `path cost method ${sw?.pathCost ?? 'of the design'} to ${command.pathCost ?? 'that of the design'}`,
          command.region !== undefined &&
            `region settings ${regionText(design, sw?.region)} to ${regionText(design, command.region ?? undefined)}`,
          command.systemPriority !== undefined && `LACP system priority to ${command.systemPriority}`,
          command.timers !== undefined && timersText(sw?.timers, command.timers),
        ])}`,
      );
    }
    case 'set-bridge-priority': {
      const sw = names.switch(command.switch);
      const before =
        (command.tree === null ? sw?.priority : (sw?.trees[command.tree]?.priority ?? sw?.priority)) ??
        BRIDGE_PRIORITY.default;
      return say('priority of ', nameOf(command.switch), `: ${before} to ${command.priority ?? 'as in all trees'}`, [
        command.tree,
      ]);
    }
    case 'set-port': {
      const port = names.switch(command.switch)?.ports.find((p) => p.id === command.port);
      return say(
        '',
        portName(command),
        `: ${listed([
          command.speed !== undefined && `speed ${port?.speed} to ${command.speed} Mb/s`,
          command.up !== undefined && (command.up ? 'set up' : 'set down'),
          command.edge !== undefined && (command.edge ? 'edge port' : 'not an edge port'),
          command.vlans !== undefined &&
            `${port ? `${carriageText(port.vlans)} to ` : ''}${carriageText(command.vlans)}`,
          command.number !== undefined && `number ${port?.number} to ${command.number}`,
          command.lacpPriority !== undefined && `LACP priority to ${command.lacpPriority}`,
          command.lacpKey !== undefined && `LACP key to ${command.lacpKey ?? 'that of its bundle'}`,
        ])}`,
      );
    }
    case 'set-port-cost': {
      const port = portOf(command.switch, command.port);
      const before = command.tree === null ? port?.cost : (port?.trees[command.tree]?.cost ?? port?.cost);
      return say('cost of ', portName(command), `: ${before ?? 'from speed'} to ${command.cost ?? 'none of its own'}`, [
        command.tree,
      ]);
    }
    case 'set-external-cost': {
      const port = portOf(command.switch, command.port);
      return say(
        'external cost of ',
        portName(command),
        `: ${port?.externalCost ?? 'as its cost'} to ${command.cost ?? 'as its cost'}`,
      );
    }
    case 'set-port-priority': {
      const port = portOf(command.switch, command.port);
      const before = command.tree === null ? port?.priority : (port?.trees[command.tree]?.priority ?? port?.priority);
      return say('port priority of ', portName(command), `: ${before} to ${command.priority ?? 'none of its own'}`, [
        command.tree,
      ]);
    }
    case 'set-link': {
      const link = design.links.find((l) => l.id === command.link);
      return say(
        'link ',
        names.link(command.link),
        `: ${listed([
          command.up !== undefined && (command.up ? 'restored' : 'cut'),
          command.delay !== undefined && (command.delay === null ? 'delay as usual' : `delay ${command.delay} µs`),
          command.speed !== undefined && `speed ${command.speed} Mb/s at both ends`,
          (command.a ?? command.b) !== undefined && `now ${end(command.a ?? link!.a)} to ${end(command.b ?? link!.b)}`,
        ])}`,
      );
    }
    case 'move-switches':
      return command.to.length === 1
        ? say('moved ', nameOf(command.to[0]!.switch))
        : say('moved ', `${command.to.length} switches`);
    case 'add-switch':
      return say('added switch ', command.switch.name ?? command.switch.id);
    case 'add-port':
      return say('added ', `${nameOf(command.switch)} port ${command.port.id}`);
    case 'add-link':
      return say('cabled ', `${end(command.link.a)} to ${end(command.link.b)}`);
    case 'remove-switch':
      return say('removed switch ', nameOf(command.switch));
    case 'remove-link':
      return say('unplugged ', names.link(command.link).replace(' to ', ' from '));
    case 'remove-port':
      return say('removed ', portName(command));
    case 'add-bundle':
      return say('added bundle ', `${command.bundle.name ?? command.bundle.id} on ${nameOf(command.bundle.switch)}`);
    case 'set-bundle': {
      const bundle = design.bundles.find((b) => b.id === command.bundle);
      return say(
        'bundle ',
        bundle ? `${bundle.name ?? bundle.id} on ${nameOf(bundle.switch)}` : command.bundle,
        `: ${listed([
          command.name !== undefined && `name to ${command.name ?? 'none'}`,
          command.number !== undefined && `number ${bundle?.number} to ${command.number}`,
          command.ports !== undefined && `members ${bundle?.ports.join(', ')} to ${command.ports.join(', ')}`,
          command.mode !== undefined && `mode ${bundle?.mode} to ${command.mode}`,
          command.timeout !== undefined && `timeout ${bundle?.timeout} to ${command.timeout}`,
          command.key !== undefined && `key to ${command.key ?? 'its number'}`,
          command.minLinks !== undefined && `minimum links ${bundle?.minLinks} to ${command.minLinks}`,
          command.maxActive !== undefined && `most active links ${bundle?.maxActive} to ${command.maxActive}`,
          command.hash !== undefined && `hash to layer ${command.hash}`,
          command.edge !== undefined && (command.edge ? 'edge port' : 'not an edge port'),
          command.vlans !== undefined &&
            `${bundle ? `${carriageText(bundle.vlans)} to ` : ''}${carriageText(command.vlans)}`,
        ])}`,
      );
    }
    case 'remove-bundle': {
      const bundle = design.bundles.find((b) => b.id === command.bundle);
      return say(
        'removed bundle ',
        bundle ? `${bundle.name ?? bundle.id} on ${nameOf(bundle.switch)}` : command.bundle,
      );
    }
    case 'add-host':
      return say('added host ', command.host.name ?? command.host.id);
    case 'remove-host':
      return say('removed host ', hostName(design, command.host));
    case 'set-host':
      return say(
        'host ',
        hostName(design, command.host),
        `: ${listed([
          command.name !== undefined && `name to ${command.name}`,
          command.mac !== undefined && `MAC to ${command.mac}`,
          command.vlan !== undefined && `VLAN to ${command.vlan}`,
          command.attach !== undefined &&
            (command.attach.length === 0 ? 'unplugged' : `on ${command.attach.map(end).join(' and ')}`),
          command.bundle !== undefined &&
            (command.bundle === null ? 'its cards are separate' : `its cards are one bundle, ${command.bundle.mode}`),
        ])}`,
      );
    case 'add-vlan':
      return say('added VLAN ', vlanText(command.vlan.id, command.vlan.name));
    case 'set-vlan': {
      const before = design.vlans.find((vlan) => vlan.id === command.vlan);
      return say(
        'VLAN ',
        String(command.vlan),
        `: ${listed([
          command.name !== undefined && `name ${before?.name ?? 'none'} to ${command.name ?? 'none'}`,
          command.load !== undefined &&
            `load ${before?.load ?? 'none'} to ${command.load ?? 'none'}${command.load === null ? '' : ' Mb/s'}`,
        ])}`,
      );
    }
    case 'add-region':
      return say('added region settings ', regionText({ regions: [command.region] }, command.region.id));
    case 'set-region': {
      const before = design.regions.find((region) => region.id === command.region);
      return say(
        'region ',
        regionText(design, command.region),
        `: ${listed([
          command.name !== undefined && `name to ${command.name || 'none'}`,
          command.revision !== undefined && `revision ${before?.revision} to ${command.revision}`,
          command.instances !== undefined && `VLAN map to ${mapText(command.instances)}`,
        ])}`,
      );
    }
    case 'map-vlans':
      return say(
        'region ',
        regionText(design, command.region),
        `: VLANs ${command.vlans} to ${command.instance === 0 ? 'the IST' : `instance ${command.instance}`}`,
      );
    case 'remove-instance':
      return say(
        'region ',
        regionText(design, command.region),
        `: instance ${command.instance} removed, its VLANs to the IST`,
      );
    case 'remove-region':
      return say('removed region settings ', regionText(design, command.region));
    case 'remove-vlan':
      return say('removed VLAN ', vlanText(command.vlan, design.vlans.find((vlan) => vlan.id === command.vlan)?.name));
    case 'set-observed':
      return say('observed neighbours: ', `${command.observed.length} rows`);
    case 'keep-worksheet':
      return say(
        'worksheet for ',
        `${treesName([command.worksheet.tree])}: ${command.worksheet.right} of ${command.worksheet.of} right`,
      );
    case 'keep-scenario':
      return say(
        'scenario ',
        `${command.scenario.name}: ${design.scenarios.some((each) => each.id === command.scenario.id) ? 'changed' : 'kept'}`,
      );
    case 'forget-scenario':
      return say(
        'scenario ',
        `${design.scenarios.find((each) => each.id === command.scenario)?.name ?? command.scenario}: forgotten`,
      );
    case 'forget-worksheets':
      return say('worksheets ', 'forgotten');
  }
}

const listed = (parts: readonly (string | false)[]): string => parts.filter(Boolean).join(', ');
const hostName = (design: Design, id: string): string => design.hosts.find((host) => host.id === id)?.name ?? id;
/** What people call a region's settings: their name, else their id. */
export const regionText = ({ regions }: Pick<Design, 'regions'>, id: string | undefined): string => {
  if (id === undefined) return 'of its own';
  const name = regions.find((region) => region.id === id)?.name;
  return !name ? id : regions.filter((region) => region.name === name).length > 1 ? `${name} (${id})` : name;
};
/** `1: 15,25; 2: 35`. */
export const mapText = (instances: Design['regions'][0]['instances']): string =>
  instances.map(({ id, vlans }) => `${id}: ${vlans || 'no VLAN'}`).join('; ') || 'every VLAN in the IST';
const vlanText = (id: number, name: string | undefined): string => (name === undefined ? String(id) : `${id} ${name}`);

/** The dialects as people call them. */
export const DIALECT_NAMES: Readonly<Record<Dialect, string>> = {
  stp: 'Classic STP',
  rstp: 'RSTP',
  mstp: 'MSTP',
  'per-vlan-stp': 'Per-VLAN classic',
  'per-vlan-rstp': 'Per-VLAN rapid',
  off: 'no spanning tree',
};

/** The timers, in the words of the standard. */
export const TIMER_NAMES: Readonly<Record<keyof Timers, string>> = {
  hello: 'hello time',
  maxAge: 'max age',
  forwardDelay: 'forward delay',
  maxHops: 'max hops',
  txHold: 'transmit hold count',
};

function timersText(before: Timers | undefined, after: Timers): string {
  const changed = (Object.keys(TIMER_NAMES) as (keyof Timers)[]).filter((key) => before?.[key] !== after[key]);
  return changed.length === 0
    ? 'timers'
    : changed.map((key) => `${TIMER_NAMES[key]} ${before?.[key]} to ${after[key]}`).join(', ');
}

/** `trunk 1-4094, native 1` or `access 15`. */
export const carriageText = (vlans: Carriage): string =>
  vlans.mode === 'access'
    ? `access ${vlans.vlan}`
    : `trunk ${vlans.allowed === '' ? 'no VLAN' : vlans.allowed}, native ${vlans.native}`;

/** `15,25-29` of a list of VLAN IDs. */
export const vlansText = (vids: Iterable<number>): string => VlanSet.of([...vids].map((vid) => [vid, vid])).format();
