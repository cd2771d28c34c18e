/** A watch as a state that each reading moves on: what has happened since the one before, and which rules speak up. */
import type { Observation } from '../observation';
import { eventsBetween, identityOf, OF_THE_WHOLE, type WatchEvent } from './events';
import { brokenBy, type Rule, type Situation } from './rules';

/** A rule with the words in which it was given. */
export interface GivenRule {
  readonly text: string;
  readonly rule: Rule;
}

/** What rules ask of the design, where there is one. */
export type AsDesigned = Pick<Situation, 'differences' | 'broken'>;

interface Counted {
  readonly at: number;
  readonly key: string;
  readonly count: number;
}

/** The longest time that a rule counts over, milliseconds. */
const LONGEST = 7 * 86_400_000;

export class WatchState {
  private last: Observation | null;
  private readonly rules: readonly GivenRule[];
  private counted: Counted[];
  /** Rules that have spoken up, and not stopped since. */
  private readonly speaking = new Set<string>();
  /** Who has ever answered, by identity. */
  private readonly known = new Map<string, string>();

  /** `last`, `earlier`: what went before a restart; times are milliseconds. */
  constructor(
    rules: readonly GivenRule[],
    last: Observation | null = null,
    earlier: readonly { readonly at: number; readonly event: WatchEvent }[] = [],
  ) {
    this.rules = rules;
    this.last = last;
    this.counted = earlier.flatMap(({ at, event }) => countsOf(at, event));
    for (const { event } of earlier) if (event.kind === 'rule') this.remember(event.text);
    for (const sw of last?.switches ?? []) this.known.set(identityOf(sw), sw.name || sw.source);
  }

  /** The last of what was read; null before. */
  get observation(): Observation | null {
    return this.last;
  }

  /** Takes a reading; gives what has happened since the one before. */
  take(observation: Observation, at: number, design: AsDesigned): WatchEvent[] {
    const events = eventsBetween(this.last, observation);
    this.counted = [...this.counted, ...events.flatMap((event) => countsOf(at, event))].filter(
      (each) => each.at > at - LONGEST,
    );
    for (const sw of observation.switches) this.known.set(identityOf(sw), sw.name || sw.source);
    this.last = observation;
    const there = new Set(observation.switches.map(identityOf));
    const situation: Situation = {
      observation,
      silent: [...this.known].flatMap(([id, name]) => (there.has(id) ? [] : [name])),
      changesIn: (seconds) => this.changesIn(seconds, at),
      ...design,
    };
    return [...events, ...this.rules.flatMap((given) => this.speaks(given, situation) ?? [])];
  }

  private speaks({ text, rule }: GivenRule, situation: Situation): WatchEvent | null {
    const why = brokenBy(rule, situation);
    const spoke = this.speaking.has(text);
    if ((why !== null) === spoke) return null;
    if (why === null) this.speaking.delete(text);
    else this.speaking.add(text);
    return ofWatch('rule', why === null ? `${OVER}${text}.` : `${SPEAKS}${text}. ${why}`);
  }

  private remember(text: string): void {
    for (const given of this.rules) {
      if (text.startsWith(`${SPEAKS}${given.text}. `)) this.speaking.add(given.text);
      else if (text === `${OVER}${given.text}.`) this.speaking.delete(given.text);
    }
  }

  private changesIn(seconds: number, at: number): number {
    const sums = new Map<string, number>();
    for (const each of this.counted)
      if (each.at > at - seconds * 1000) sums.set(each.key, (sums.get(each.key) ?? 0) + each.count);
    return Math.max(0, ...sums.values());
  }
}

const SPEAKS = 'Rule: ';
const OVER = 'No longer: ';

/** An event of the watch itself. */
export const ofWatch = (kind: 'rule' | 'missed', text: string): WatchEvent => ({
  ...OF_THE_WHOLE,
  kind,
  text,
});

const countsOf = (at: number, { kind, switch: sw, trees, count }: WatchEvent): Counted[] =>
  kind === 'change' ? trees.map((tree) => ({ at, key: `${sw ?? ''}\n${tree}`, count })) : [];
