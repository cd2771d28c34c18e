/** Commands in words, for the history: `priority of ridge-a in VLANs 15-35: 32768 to 4096`. */
import type { Design } from '../model/document';
import { treesName } from '../model/ids';
import { kindOf, type Command } from './commands';
import { say, namingOf, verbText, type Phrase, type Naming, type Tense } from './phrase';

/** How many subjects and sentences are told before the rest is only counted. */
const MOST = { subjects: 4, sentences: 3 } as const;

/** What a command does to this design, in one line. */
export const describeCommand = (design: Design, command: Command): string =>
  phraseText(phraseOf(namingOf(design), command), 'done');

/** What several commands do as one step, alike ones told together. */
export function describeCommands(design: Design, commands: readonly Command[]): string {
  const sentences = sentencesOf(design, commands);
  const more = sentences.length > MOST.sentences ? `; and ${sentences.length - MOST.sentences} more` : '';
  return sentences.slice(0, MOST.sentences).join('; ') + more;
}

/** One sentence for each kind of change that several commands make; where they are only announced, `to come`. */
export function sentencesOf(design: Design, commands: readonly Command[], tense: Tense = 'done'): string[] {
  const naming = namingOf(design);
  const phrases = commands.map((command) => {
    kindOf(command)?.learn?.(naming, command);
    return phraseOf(naming, command);
  });
  const bySubject = merged(
    phrases,
    (p) => [p.verb, p.before, p.trees, p.after],
    (p, q) => ({ ...p, subjects: [...p.subjects, ...q.subjects] }),
  );
  const byTree = merged(
    bySubject,
    (p) => [p.verb, p.before, p.subjects, p.after, p.trees[0] === null],
    (p, q) => ({ ...p, trees: [...p.trees, ...q.trees] }),
  );
  return byTree.map((phrase) => phraseText(phrase, tense));
}

const phraseOf = (naming: Naming, command: Command): Phrase =>
  kindOf(command)?.say(naming, command) ?? say('a change that this version does not know: ', String(command.do));

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

function phraseText(phrase: Phrase, tense: Tense): string {
  const { before, subjects, trees, after } = phrase;
  const more = subjects.length - MOST.subjects;
  const who = more > 1 ? `${subjects.slice(0, MOST.subjects).join(', ')} and ${more} more` : subjects.join(', ');
  const [first] = trees;
  const where =
    first === undefined
      ? ''
      : first === null
        ? ' in all trees'
        : ` in ${treesName(trees.filter((tree) => tree !== null))}`;
  return `${verbText(phrase, tense)}${before}${who}${where}${after}`;
}
