/** A watch as a band of time: who was root when, who was silent, what ports and bundles changed, and moments at which something happened. */
import { treesName, type TreeId } from '../../../model/ids';
import type { EventKind, Stands, WatchEvent } from './events';

/** A stretch of time in which something is the same, milliseconds. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}
export interface Span extends Stretch {
  readonly text: string;
}
export interface Lane {
  readonly name: string;
  readonly spans: readonly Span[];
}
/** Where a lane is about a place: as events name it. */
export interface Place {
  readonly switch: string;
  readonly source: string;
  readonly port: number;
}
export interface BundleLane extends Place {
  readonly spans: readonly Span[];
}
/** Trees in which a port does the same share a lane. */
export interface PortLane extends Place {
  readonly trees: readonly TreeId[];
  readonly stretches: readonly (Stretch & Stands)[];
}
export interface Mark {
  readonly at: number;
  readonly kind: EventKind;
  /** How many events of the kind there were at the moment; of topology changes, how many were counted. */
  readonly count: number;
  readonly texts: readonly string[];
}
export interface Band {
  /** By tree: whose root had more than one keeper, the others as one lane where they have one root. */
  readonly roots: readonly Lane[];
  readonly silent: readonly Lane[];
  /** Of bundles that lost members or took them in: how many were active. */
  readonly bundles: readonly BundleLane[];
  readonly ports: readonly PortLane[];
  readonly marks: readonly Mark[];
}

interface At {
  readonly at: number;
  readonly event: Pick<
    WatchEvent,
    'kind' | 'trees' | 'was' | 'is' | 'switch' | 'source' | 'port' | 'count' | 'text' | 'turn'
  >;
}

/** `roots`: by tree, who is root at the end; times are milliseconds, events in their order. */
export function bandOf(events: readonly At[], roots: ReadonlyMap<string, string>, from: number, to: number): Band {
  return {
    roots: rootLanes(events, roots, from, to),
    silent: silentIn(events, from, to),
    bundles: bundleLanes(events, from, to),
    ports: portLanes(events, from, to),
    marks: marksOf(events),
  };
}

function rootLanes(events: readonly At[], roots: ReadonlyMap<string, string>, from: number, to: number): Lane[] {
  const lanes = new Map<string, { trees: TreeId[]; spans: readonly Span[] }>();
  for (const [tree, last] of roots) {
    const own = events.filter(({ event }) => event.kind === 'root' && event.trees.includes(tree));
    const turns = own.map(({ at, event }) => ({ at, was: event.was ?? last, is: event.is ?? last }));
    const spans = stretchesOf(turns, last, from, to).map(({ is, ...stretch }) => ({ ...stretch, text: is }));
    const key = JSON.stringify(spans);
    const lane = lanes.get(key) ?? { trees: [], spans };
    lane.trees.push(tree as TreeId);
    lanes.set(key, lane);
  }
  return [...lanes.values()].map(({ trees, spans }) => ({ name: treesName(trees), spans }));
}

interface Turn<S> {
  readonly at: number;
  readonly was: S;
  readonly is: S;
}

/** What held from when to when; `last`: what holds where nothing ever changed. */
function stretchesOf<S>(
  turns: readonly Turn<S>[],
  last: S,
  from: number,
  to: number,
): (Stretch & { readonly is: S })[] {
  const stretches: (Stretch & { is: S })[] = [];
  let start = from;
  let is = turns[0]?.was ?? last;
  for (const turn of turns) {
    if (turn.at > start) stretches.push({ from: start, to: turn.at, is });
    start = Math.max(start, turn.at);
    is = turn.is;
  }
  return [...stretches, { from: start, to: Math.max(to, start), is }];
}

const placeKey = ({ source, port }: At['event']): string => `${source} ${port}`;

function bundleLanes(events: readonly At[], from: number, to: number): BundleLane[] {
  const of = new Map<string, { place: Place; turns: Turn<string>[] }>();
  for (const { at, event } of events) {
    const { kind, switch: sw, source, port, was, is } = event;
    if (kind !== 'member' || sw === null || source === null || port === null || was === null || is === null) continue;
    const lane = of.get(placeKey(event)) ?? { place: { switch: sw, source, port }, turns: [] };
    // What it has lost and taken in at one moment is told twice.
    if (lane.turns.at(-1)?.at !== at) lane.turns.push({ at, was, is });
    of.set(placeKey(event), lane);
  }
  return [...of.values()].map(({ place, turns }) => ({
    ...place,
    spans: stretchesOf(turns, '', from, to).map(({ is, ...stretch }) => ({ ...stretch, text: `${is} active` })),
  }));
}

function portLanes(events: readonly At[], from: number, to: number): PortLane[] {
  const of = new Map<string, { place: Place; trees: Map<TreeId, Turn<Stands>[]> }>();
  for (const { at, event } of events) {
    const { switch: sw, source, port, turn } = event;
    if (!turn || sw === null || source === null || port === null) continue;
    const lane = of.get(placeKey(event)) ?? { place: { switch: sw, source, port }, trees: new Map() };
    for (const tree of event.trees as TreeId[])
      lane.trees.set(tree, [...(lane.trees.get(tree) ?? []), { at, was: turn.was, is: turn.is }]);
    of.set(placeKey(event), lane);
  }
  return [...of.values()].flatMap(({ place, trees }) => {
    const alike = new Map<string, { trees: TreeId[]; turns: Turn<Stands>[] }>();
    for (const [tree, turns] of trees) {
      const lane = alike.get(JSON.stringify(turns)) ?? { trees: [], turns };
      lane.trees.push(tree);
      alike.set(JSON.stringify(turns), lane);
    }
    return [...alike.values()].map(({ trees: own, turns }) => ({
      ...place,
      trees: own,
      stretches: stretchesOf(turns, turns[0]!.was, from, to).map(({ is, ...stretch }) => ({ ...stretch, ...is })),
    }));
  });
}

function silentIn(events: readonly At[], from: number, to: number): Lane[] {
  const lanes = new Map<string, Span[]>();
  const since = new Map<string, number>();
  for (const { at, event } of events) {
    if (event.switch === null) continue;
    if (event.kind === 'silent') since.set(event.switch, at);
    if (event.kind !== 'back') continue;
    const start = since.get(event.switch);
    since.delete(event.switch);
    // Who answers for the first time has not been silent.
    if (start === undefined) continue;
    lanes.set(event.switch, [...(lanes.get(event.switch) ?? []), { from: start, to: at, text: 'silent' }]);
  }
  for (const [name, start] of since)
    lanes.set(name, [...(lanes.get(name) ?? []), { from: Math.max(from, start), to, text: 'silent' }]);
  return [...lanes].map(([name, spans]) => ({ name, spans }));
}

function marksOf(events: readonly At[]): Mark[] {
  const marks = new Map<string, { at: number; kind: EventKind; count: number; texts: string[] }>();
  for (const { at, event } of events) {
    const key = `${at} ${event.kind}`;
    const mark = marks.get(key) ?? { at, kind: event.kind, count: 0, texts: [] };
    mark.count += event.kind === 'change' ? event.count : 1;
    mark.texts.push(event.text);
    marks.set(key, mark);
  }
  return [...marks.values()];
}
