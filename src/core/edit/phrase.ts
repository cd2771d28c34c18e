/** Sentences about changes, in parts, so that changes which differ in one part are told as one: `before subject tree after`. */
import { namesFrom, thingsOf, type Things } from '../model/derive/names';
import type { Bundle, Design, Port, Switch } from '../model/document';
import type { BridgePortId, SwitchId, TreeId } from '../model/ids';
import type { Names } from '../model/names';

/** What is done to a thing as a whole, as history tells it and as a preview does. */
const VERBS = {
  added: 'will add',
  removed: 'will remove',
  cabled: 'will cable',
  unplugged: 'will unplug',
  moved: 'will move',
} as const;

type Verb = keyof typeof VERBS;

/** Whether changes are told as made, or as what a preview announces. */
export type Tense = 'done' | 'to come';

export interface Phrase {
  readonly verb: Verb | null;
  readonly before: string;
  readonly subjects: readonly string[];
  readonly trees: readonly (TreeId | null)[];
  readonly after: string;
}

export const say = (before: string, subject: string, after = '', trees: readonly (TreeId | null)[] = []): Phrase => ({
  verb: null,
  before,
  subjects: [subject],
  trees,
  after,
});

export const did = (verb: Verb, what: string, subject: string): Phrase => ({ ...say(what, subject), verb });

/** The verb with the space after it; nothing where a setting is told (`priority of a: 0 to 4096`). */
export const verbText = ({ verb }: Phrase, tense: Tense): string =>
  verb === null ? '' : `${tense === 'done' ? verb : VERBS[verb]} `;

/** A design as a row of commands finds it: with what earlier ones of them add. */
export interface Naming {
  readonly design: Design;
  readonly things: Things;
  readonly names: Names;
  switch(id: SwitchId): Switch | undefined;
  /** A port, or a bundle by its id. */
  bridgePort(sw: SwitchId, port: BridgePortId): Port | Bundle | undefined;
}

export function namingOf(design: Design): Naming {
  const things = thingsOf(design);
  return {
    design,
    things,
    names: namesFrom(things),
    switch: (id) => things.switches.get(id),
    bridgePort: (sw, port) =>
      things.switches.get(sw)?.ports.find((each) => each.id === port) ??
      [...things.bundles.values()].find((bundle) => bundle.switch === sw && bundle.id === port),
  };
}
