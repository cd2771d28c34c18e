/** What a parser knows at the end of a line, and how it stops. */
import type { Statement } from './statement';
import type { LineFault } from './tokens';

/** What may stand next, for completion. `ports` comes with the switches whose ports they would be. */
export type Hint =
  | { readonly may: 'start' | 'switch' | 'host' | 'group' | 'join' | 'vlan' }
  | { readonly may: 'ports'; readonly of: readonly string[] }
  | { readonly may: 'words'; readonly words: readonly string[] };

export interface Parsed {
  /** Null for an empty line or a comment. */
  readonly statement: Statement | null;
  /** What may follow at the end of the line. */
  readonly hints: readonly Hint[];
}

/** Stops the parser. */
export class Fault extends Error {
  readonly fault: LineFault;

  constructor(fault: LineFault) {
    super(fault.message);
    this.fault = fault;
  }
}
