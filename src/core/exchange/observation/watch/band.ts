/** A watch as a band of time: who was root when, who was silent, and moments at which something happened. */
import { treesName, type TreeId } from '../../../model/ids';
import type { EventKind, WatchEvent } from './events';

/** Milliseconds. */
export interface Span {
  readonly from: number;
  readonly to: number;
  readonly text: string;
}
export interface Lane {
  readonly name: string;
  readonly spans: readonly Span[];
}
export interface Mark {
  readonly at: number;
  readonly kind: EventKind;
  /** How many events of the kind there were at the moment. */
  readonly count: number;
}
export interface Band {
  /** By tree: whose root had more than one keeper, the others as one lane where they have one root. */
  readonly roots: readonly Lane[];
  readonly silent: readonly Lane[];
  readonly marks: readonly Mark[];
}

interface At {
  readonly at: number;
  readonly event: Pick<WatchEvent, 'kind' | 'trees' | 'was' | 'is' | 'switch' | 'count'>;
}

/** `roots`: by tree, who is root at the end; times are milliseconds, events in their order. */
export function bandOf(events: readonly At[], roots: ReadonlyMap<string, string>, from: number, to: number): Band {
  const lanes = new Map<string, { trees: TreeId[]; spans: readonly Span[] }>();
  for (const [tree, last] of roots) {
    const own = events.filter(({ event }) => event.kind === 'root' && event.trees.includes(tree));
    const spans = spansOf(own, last, from, to);
    const key = JSON.stringify(spans);
    const lane = lanes.get(key) ?? { trees: [], spans };
    lane.trees.push(tree as TreeId);
    lanes.set(key, lane);
  }
  return {
    roots: [...lanes.values()].map(({ trees, spans }) => ({ name: treesName(trees), spans })),
    silent: silentIn(events, from, to),
    marks: marksOf(events),
  };
}

function spansOf(own: readonly At[], last: string, from: number, to: number): Span[] {
  const spans: Span[] = [];
  let start = from;
  let who = own[0]?.event.was ?? last;
  for (const { at, event } of own) {
    if (at > start) spans.push({ from: start, to: at, text: who });
    start = Math.max(start, at);
    who = event.is ?? who;
  }
  return [...spans, { from: start, to: Math.max(to, start), text: who }];
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
  const marks = new Map<string, Mark>();
  for (const { at, event } of events) {
    const key = `${at} ${event.kind}`;
    const count = (marks.get(key)?.count ?? 0) + (event.kind === 'change' ? event.count : 1);
    marks.set(key, { at, kind: event.kind, count });
  }
  return [...marks.values()];
}
