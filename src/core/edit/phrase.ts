/** Sentences about changes, in parts, so that changes which differ in one part are told as one: `before subject tree after`. */
import { namesFrom, thingsOf, type Things } from '../model/derive/names';
import type { Bundle, Design, Port, Switch } from '../model/document';
import type { BridgePortId, SwitchId, TreeId } from '../model/ids';
import type { Names } from '../model/names';

export interface Phrase {
  readonly before: string;
  readonly subjects: readonly string[];
  readonly trees: readonly (TreeId | null)[];
  readonly after: string;
}

export const say = (before: string, subject: string, after = '', trees: readonly (TreeId | null)[] = []): Phrase => ({
  before,
  subjects: [subject],
  trees,
  after,
});

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
