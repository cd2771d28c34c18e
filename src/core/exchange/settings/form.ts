/** A form in which settings leave Knot Path. */
import type { SwitchSet } from './settings';

/** A file of a switch; its name is the switch's, with this at its end: `.linux.sh`, `/10-bridge.netdev`. */
export interface WrittenFile {
  readonly end: string;
  readonly text: string;
}

/** What one switch's settings are in a form. */
export interface Written {
  /** None where nothing differs. */
  readonly files: readonly WrittenFile[];
  /** What the form cannot say, a sentence each: told, never dropped in silence. */
  readonly leftOut: readonly string[];
}

export interface SettingsForm {
  /** In commands and addresses. */
  readonly key: string;
  /** As people call it, and what it is for. */
  readonly name: string;
  readonly says: string;
  /** `text/plain`. */
  readonly type: string;
  /** The whole of a switch; or, where it is given as it was, what leads from there to what it is. */
  readonly write: (sw: SwitchSet, was: SwitchSet | null) => Written;
}

/** One file, or none where nothing is left to say. */
export const fileOf = (end: string, text: string | null): WrittenFile[] => (text === null ? [] : [{ end, text }]);

/** Notes all that no form has a place for; `who`: "The model". */
export function noteAlsoSet(sw: SwitchSet, who: string, left: LeftOut): void {
  for (const what of sw.alsoSet) left.note(`${who} has no ${what}`);
  for (const port of [...sw.ports, ...sw.bundles])
    for (const what of port.alsoSet) left.note(`${who} has no ${what}`, port.interface);
}

/** Sentences, each once, with how many ports each is about. */
export class LeftOut {
  private readonly found = new Map<string, string[]>();

  /** `where`: an interface; null for the whole switch. */
  note(what: string, where: string | null = null): void {
    const all = this.found.get(what) ?? [];
    if (where !== null) all.push(where);
    this.found.set(what, all);
  }

  get sentences(): string[] {
    return [...this.found].map(([what, where]) => (where.length === 0 ? `${what}.` : `${what} (${where.join(', ')}).`));
  }
}
