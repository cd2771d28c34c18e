/**
 * Intents: what must hold of a network, a line each (docs/intents.md), of the network as it is or whatever one thing fails. A
 * line is kept with ids in it, so that names may change.
 */
import { completionsIn, type Completions } from '../../cabling/complete';
import { Fault } from '../../cabling/hints';
import { tokensOf, type LineFault } from '../../cabling/tokens';
import { fail, ok, type Result } from '../../base/result';
import type { Design, Intent } from '../../model/document';
import { TIERS } from '../../model/switch';
import { FAILURE_KINDS, type FailureKind } from '../failures/failure';
import type { Breach, Claim, Way } from './claim';
import { endForms } from './claims/ends';
import { otherForms } from './claims/others';
import { reachForms } from './claims/reach';
import { rootForms } from './claims/roots';
import { Reader } from './reader';
import type { Settled } from './settled';
import { Writer } from './writer';

/** Every way to claim something. */
const FORMS = [...rootForms, ...endForms, ...reachForms, ...otherForms];
const OPENINGS = FORMS.filter(({ about }) => about === 'nothing');
const VERBS = FORMS.filter(({ about }) => about === 'subject');
const VERB_WORDS: ReadonlySet<string> = new Set(VERBS.map(({ words }) => words.split(' ')[0]!));
/** Words that cannot be names unless they are quoted. */
const RESERVED: ReadonlySet<string> = new Set([
  ...FORMS.flatMap(({ words }) => words.split(' ')),
  ...[
    'whatever',
    'fails',
    'or',
    'all',
    'hosts',
    'of',
    'group',
    'switches',
    'vlan',
    'instance',
    'not',
    'over',
    'within',
  ],
  ...TIERS,
]);

/** A line that was read. */
export interface Meant {
  /** What may fail while it holds; null for the network as it is. */
  readonly whatever: readonly FailureKind[] | null;
  readonly claim: Claim;
}

/** Things of a failure as lines call them. */
const FAILING: Readonly<Record<FailureKind, readonly [word: string, detail: string]>> = {
  link: ['link', 'each cable by itself, those of bundles left out'],
  switch: ['switch', 'each switch by itself'],
  member: ['member', 'each cable of a bundle by itself'],
  card: ['card', 'each card of a host by itself'],
  group: ['group', 'all switches of a group at once'],
};

function read(reader: Reader): Meant {
  let whatever: FailureKind[] | null = null;
  if (reader.takes('whatever', 'holds under every failure of a kind')) {
    whatever = [];
    do {
      const kind = FAILURE_KINDS.find((each) => reader.takes(...FAILING[each]));
      if (!kind) reader.wrong(`what fails? There are ${FAILURE_KINDS.join(', ')}`);
      if (!whatever.includes(kind!)) whatever.push(kind!);
    } while (reader.takes('or', 'something else, one thing at a time'));
    reader.needs('fails');
    reader.sign(',');
  }
  const opening = reader.takesOne(OPENINGS);
  if (opening) return { whatever, claim: opening.read(reader, []) };
  const subject = reader.subject(VERB_WORDS);
  const verb = reader.takesOne(VERBS);
  if (!verb) {
    reader.offerPorts(subject);
    reader.wrong(`what of it? Such as "${VERBS[0]!.words}" or "${VERBS.at(-1)!.words}"`);
  }
  if (verb!.underFailures && !whatever)
    reader.wrong(`this is about failures: begin with "whatever link fails," or another thing`);
  if (verb!.underFailures && whatever!.includes('card'))
    reader.wrong('this is found by running the protocols, where no card fails; name other things');
  return { whatever, claim: verb!.read(reader, subject) };
}

function reading(design: Design, line: string, byId: boolean): Result<Reader, LineFault> {
  const tokens = tokensOf(line);
  return tokens.ok
    ? ok(new Reader(tokens.value, { end: line.trimEnd().length, design, byId, reserved: RESERVED }))
    : tokens;
}

/** Reads a line as it is typed, by names, or, `byId`, as it is kept. */
export function readIntent(design: Design, line: string, byId = false): Result<Meant, LineFault> {
  const reader = reading(design, line, byId);
  if (!reader.ok) return reader;
  try {
    const meant = read(reader.value);
    reader.value.nothingMore();
    return ok(meant);
  } catch (error) {
    if (error instanceof Fault) return fail(error.fault);
    throw error;
  }
}

/** As people read it, or, `byId`, as it is kept. */
export function writeIntent(design: Design, { whatever, claim }: Meant, byId = false): string {
  const before = whatever ? `whatever ${whatever.join(' or ')} fails, ` : '';
  return before + claim.write(new Writer(design, byId, RESERVED));
}

/** What is kept of a line that people typed. */
export const keptLine = (design: Design, meant: Meant): string => writeIntent(design, meant, true);

/** A kept intent in words; as it is kept where it names what is gone. */
export function intentText(design: Design, { line }: Pick<Intent, 'line'>): string {
  const meant = readIntent(design, line, true);
  return meant.ok ? writeIntent(design, meant.value) : line;
}

/** What may follow at a place in a line. */
export const intentCompletions = (design: Design, line: string, cursor: number): Completions =>
  completionsIn(line, cursor, (before) => {
    const reader = reading(design, before, false);
    if (!reader.ok) return [];
    try {
      read(reader.value);
    } catch (error) {
      if (!(error instanceof Fault)) throw error;
    }
    return reader.value.options;
  });

/** Whether an intent holds in the network as it is; `later` where that hangs on failures; `unreadable` where it names what is gone. */
export type Verdict =
  | { readonly is: 'holds' | 'later' }
  | ({ readonly is: 'broken'; readonly way: Way | null } & Breach)
  | { readonly is: 'unreadable'; readonly why: string };

export const verdictOf = (claim: Claim, of: Settled): Verdict => {
  const breach = claim.judge(of);
  return breach ? { is: 'broken', way: claim.mend?.(of) ?? null, ...breach } : { is: 'holds' };
};

/** The verdict on each intent of a design that is settled, by its id. */
export function judged(of: Settled, intents: readonly Intent[]): Map<string, Verdict> {
  const { design } = of.network;
  return new Map(
    intents.map(({ id, line }): [string, Verdict] => {
      const meant = readIntent(design, line, true);
      if (!meant.ok) return [id, { is: 'unreadable', why: meant.error.message }];
      return [id, meant.value.whatever ? { is: 'later' } : verdictOf(meant.value.claim, of)];
    }),
  );
}
