/** What happened between two readings of a network, in sentences: the worst first. */
import { z } from '../../../base/zod';
import { counted } from '../../../base/words';
import { treesName, type TreeId } from '../../../model/ids';
import {
  treePortSchema,
  type Observation,
  type ObservedPort,
  type ObservedSwitch,
  type ObservedTreePort,
} from '../observation';

/** Kinds of events. `missed` and `rule` are those of a watch itself. */
export const EVENT_KINDS = [
  'silent',
  'back',
  'root',
  'signal',
  'member',
  'port',
  'change',
  'neighbour',
  'missed',
  'rule',
] as const;
export type EventKind = (typeof EVENT_KINDS)[number];

const stands = treePortSchema.pick({ role: true, state: true });
/** How a port stands in a tree. */
export type Stands = z.output<typeof stands>;

export const watchEventSchema = z.object({
  kind: z.enum(EVENT_KINDS),
  text: z.string(),
  /** As it is known in the observation: its name, and where it was read. Null where it is about the network as a whole. */
  switch: z.string().nullable(),
  source: z.string().nullable(),
  /** The number of a port of it. */
  port: z.number().nullable(),
  trees: z.array(z.string()),
  /** Of topology changes: how many more. */
  count: z.number(),
  /** Of a root: who it was, and who it is; of a bundle: how many members were active, and are. */
  was: z.string().nullable(),
  is: z.string().nullable(),
  /** Of a port in trees: how it stood, and stands. */
  turn: z.object({ was: stands, is: stands }).nullable().default(null),
});
export type WatchEvent = z.output<typeof watchEventSchema>;

/** Of an event about the network as a whole, of which no more is told. */
export const OF_THE_WHOLE: Omit<WatchEvent, 'kind' | 'text'> = {
  switch: null,
  source: null,
  port: null,
  trees: [],
  count: 0,
  was: null,
  is: null,
  turn: null,
};

/** `before`: null at the first reading. */
export function eventsBetween(before: Observation | null, after: Observation): WatchEvent[] {
  if (!before) return [];
  const events = new Between(before, after).all();
  return events.sort((a, b) => EVENT_KINDS.indexOf(a.kind) - EVENT_KINDS.indexOf(b.kind));
}

/** By what a switch is known from one reading to the next. */
export const identityOf = ({ chassis, mac, name, source }: ObservedSwitch): string =>
  chassis ?? mac ?? (name || source);

const called = ({ name, source }: ObservedSwitch): string => name || source;

/** A counter of 32 bits that goes on from the start is close to its end before; else the switch itself began anew. */
const WRAPS = 2 ** 32;
const NEAR_END = 2 ** 31;
export const grownBy = (before: number, after: number): number =>
  after >= before ? after - before : before >= NEAR_END ? after + WRAPS - before : after;

class Between {
  private readonly events: WatchEvent[] = [];
  private readonly before: Observation;
  private readonly after: Observation;
  private readonly names: ReadonlyMap<string, string>;

  constructor(before: Observation, after: Observation) {
    this.before = before;
    this.after = after;
    this.names = new Map(
      [...before.switches, ...after.switches].flatMap((sw) => (sw.mac === null ? [] : [[sw.mac, called(sw)] as const])),
    );
  }

  all(): WatchEvent[] {
    const was = new Map(this.before.switches.map((sw) => [identityOf(sw), sw]));
    const is = new Map(this.after.switches.map((sw) => [identityOf(sw), sw]));
    for (const [id, sw] of was) if (!is.has(id)) this.tell('silent', `${called(sw)} does not answer.`, sw);
    for (const [id, sw] of is) {
      const old = was.get(id);
      if (!old) this.tell('back', `${called(sw)} answers.`, sw);
      else this.ofSwitch(old, sw);
    }
    this.ofRoots();
    return this.events;
  }

  private tell(
    kind: EventKind,
    text: string,
    sw: ObservedSwitch | null,
    more: Partial<Omit<WatchEvent, 'kind' | 'text' | 'switch' | 'source'>> = {},
  ): void {
    const of = sw && { switch: called(sw), source: sw.source };
    this.events.push({ ...OF_THE_WHOLE, kind, text, ...of, ...more });
  }

  /** Roots as the network as a whole: whom most switches tell of. */
  private ofRoots(): void {
    const [was, is] = [rootsOf(this.before), rootsOf(this.after)];
    const moved = new Map<string, string[]>();
    for (const [tree, root] of is) {
      const old = was.get(tree);
      if (old === undefined || old === root) continue;
      const key = `${root}\n${old}`;
      moved.set(key, [...(moved.get(key) ?? []), tree]);
    }
    for (const [key, trees] of moved) {
      const [root = '', old = ''] = key.split('\n').map((mac) => this.names.get(mac) ?? mac);
      const where = startOf(treesText(trees, is.size));
      this.tell('root', `${where}: ${root} is the root, no longer ${old}.`, null, {
        trees,
        was: old,
        is: root,
      });
    }
  }

  private ofSwitch(was: ObservedSwitch, is: ObservedSwitch): void {
    const ports = new Map(was.ports.map((port) => [port.number, port]));
    for (const port of is.ports) {
      const old = ports.get(port.number);
      if (old) this.ofSignal(is, old, port);
    }
    this.ofMembers(was, is);
    this.ofRoles(was, is);
    this.ofChanges(was, is);
    this.ofNeighbours(was, is);
  }

  private ofSignal(sw: ObservedSwitch, was: ObservedPort, is: ObservedPort): void {
    if (was.signal === is.signal) return;
    const text = is.signal ? 'has signal again' : was.up && !is.up ? 'was switched off' : 'has lost its signal';
    this.tell('signal', `${called(sw)} ${is.interface} ${text}.`, sw, { port: is.number });
  }

  private ofMembers(was: ObservedSwitch, is: ObservedSwitch): void {
    const old = new Map(was.bundles.map((bundle) => [bundle.number, bundle]));
    for (const bundle of is.bundles) {
      const before = new Set(
        old
          .get(bundle.number)
          ?.members.filter((m) => m.active)
          .map(({ port }) => port),
      );
      const now = new Set(bundle.members.filter((m) => m.active).map(({ port }) => port));
      if (!old.has(bundle.number)) continue;
      const told = (ports: readonly number[], verb: string): void => {
        if (ports.length > 0)
          this.tell(
            'member',
            `${bundle.interface} of ${called(is)} has ${verb} ${ports.map((port) => interfaceOf(is, port)).join(', ')}: ${counted(now.size, 'member')} active.`,
            is,
            { port: bundle.number, was: counted(before.size, 'member'), is: counted(now.size, 'member') },
          );
      };
      told(
        [...before].filter((port) => !now.has(port)),
        'lost',
      );
      told(
        [...now].filter((port) => !before.has(port)),
        'taken in',
      );
    }
  }

  /** What is the same in several trees is one event. */
  private ofRoles(was: ObservedSwitch, is: ObservedSwitch): void {
    const old = new Map(
      was.trees.flatMap(({ tree, ports }) => ports.map((port) => [`${tree} ${port.port}`, port] as const)),
    );
    const moved = new Map<string, { port: number; text: string; trees: string[]; turn: WatchEvent['turn'] }>();
    for (const { tree, ports } of is.trees)
      for (const port of ports) {
        const before = old.get(`${tree} ${port.port}`);
        if (!before || standsText(before) === standsText(port)) continue;
        const text = `${standsText(port)}, before ${standsText(before)}`;
        const turn = { was: standsOf(before), is: standsOf(port) };
        const known = moved.get(`${port.port} ${text}`) ?? { port: port.port, text, trees: [], turn };
        known.trees.push(tree);
        moved.set(`${port.port} ${text}`, known);
      }
    for (const { port, text, trees, turn } of moved.values())
      this.tell(
        'port',
        `${called(is)} ${interfaceOf(is, port)} is ${text}, in ${treesText(trees, is.trees.length)}.`,
        is,
        {
          port,
          trees,
          turn,
        },
      );
  }

  /** A topology change comes of a port that begins to forward: agents count that, else those that do now are told of. */
  private ofChanges(was: ObservedSwitch, is: ObservedSwitch): void {
    const old = new Map(was.trees.map((tree) => [tree.tree, tree]));
    const grown = new Map<number, string[]>();
    for (const tree of is.trees) {
      const before = old.get(tree.tree);
      const by = before ? grownBy(before.topologyChanges, tree.topologyChanges) : 0;
      if (by > 0) grown.set(by, [...(grown.get(by) ?? []), tree.tree]);
    }
    for (const [count, trees] of grown) {
      const begun = new Set(
        is.trees.flatMap(({ tree, ports }) => {
          const before = new Map(old.get(tree)?.ports.map((port) => [port.port, port]));
          return trees.includes(tree)
            ? ports.filter((port) => hasBegun(before.get(port.port), port)).map(({ port }) => interfaceOf(is, port))
            : [];
        }),
      );
      const by = begun.size > 0 ? `, where ${[...begun].join(', ')} began to forward` : '';
      this.tell(
        'change',
        `${called(is)} counts ${counted(count, 'topology change')} more in ${treesText(trees, is.trees.length)}${by}.`,
        is,
        { trees, count },
      );
    }
  }

  private ofNeighbours(was: ObservedSwitch, is: ObservedSwitch): void {
    const text = ({ neighbours }: ObservedSwitch, port: number): string =>
      neighbours
        .filter((each) => each.port === port)
        .map(({ system, chassis, portId }) => `${system ?? chassis} ${portId}`)
        .sort()
        .join(' and ');
    const ports = new Set([...was.neighbours, ...is.neighbours].map(({ port }) => port));
    for (const port of ports) {
      const [before, now] = [text(was, port), text(is, port)];
      if (before === now) continue;
      const own = `${called(is)} ${interfaceOf(is, port)}`;
      this.tell(
        'neighbour',
        now === ''
          ? `${own} sees ${before} no longer.`
          : `${own} sees ${now}${before === '' ? '' : `, no longer ${before}`}.`,
        is,
        { port },
      );
    }
  }
}

const interfaceOf = ({ ports, bundles }: ObservedSwitch, number: number): string =>
  ports.find((port) => port.number === number)?.interface ??
  bundles.find((bundle) => bundle.number === number)?.interface ??
  `port ${number}`;

const hasBegun = (was: ObservedTreePort | undefined, is: ObservedTreePort): boolean =>
  was !== undefined && was.forwards !== null && is.forwards !== null
    ? grownBy(was.forwards, is.forwards) > 0
    : is.state === 'forwarding' && was?.state !== 'forwarding';

const standsOf = ({ role, state }: ObservedTreePort): Stands => ({ role, state });

/** `alternate and discarding`. */
export const standsText = ({ role, state }: Stands): string =>
  role === 'disabled' ? 'disabled' : `${role} and ${state === 'blocking' ? 'discarding' : state}`;

/** `all`: of how many. */
export const treesText = (trees: readonly string[], all: number): string =>
  all > 1 && trees.length === all ? 'every tree' : treesName(trees as readonly TreeId[]);

const startOf = (sentence: string): string => `${sentence.charAt(0).toUpperCase()}${sentence.slice(1)}`;

/** By tree, the address of the root that most switches tell of. */
export function rootsOf({ switches }: Observation): ReadonlyMap<string, string> {
  const told = new Map<string, Map<string, number>>();
  for (const { trees } of switches)
    for (const { tree, root } of trees) {
      const of = told.get(tree) ?? new Map<string, number>();
      told.set(tree, of.set(root.mac, (of.get(root.mac) ?? 0) + 1));
    }
  return new Map(
    [...told].map(([tree, of]) => [tree, [...of].sort((a, b) => b[1] - a[1] || (a[0] < b[0] ? -1 : 1))[0]![0]]),
  );
}
