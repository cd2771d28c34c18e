/** A form in which settings leave Knot Path. */
import type { SwitchSet } from './settings';

/** What one switch's settings are in a form. */
export interface Written {
  readonly text: string;
  /** What the form cannot say, a sentence each: told, never dropped in silence. */
  readonly leftOut: readonly string[];
}

export interface SettingsForm {
  /** In commands and addresses. */
  readonly key: string;
  /** As people call it, and what it is for. */
  readonly name: string;
  readonly says: string;
  /** The end of its files' names: `.json`. */
  readonly suffix: string;
  /** `text/plain`. */
  readonly type: string;
  readonly write: (sw: SwitchSet) => Written;
}

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
