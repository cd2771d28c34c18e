/** What an intent claims of a network, and how kinds of claims are told apart by their words. */
import type { Command } from '../../edit/commands';
import type { FailureRun } from '../failures/outages';
import type { Finding } from '../findings/finding';
import type { Wish } from '../steering/wishes';
import type { TreeId } from '../../model/ids';
import type { Reader, Subject } from './reader';
import type { Settled } from './settled';
import type { Writer } from './writer';

/** Why a claim does not hold, in one sentence, and where that is on the map. */
export interface Breach {
  readonly why: string;
  readonly at: Finding['at'];
}

/** What would make a claim hold: commands, or a wish for the Steer lens. */
export type Way =
  | { readonly label: string; readonly commands: readonly Command[] }
  | { readonly label: string; readonly wishes: readonly Wish[]; readonly trees: readonly TreeId[] };

export interface Claim {
  /** As a line has it. */
  write(writer: Writer): string;
  /** What is wrong in a settled network; null where it holds. */
  judge(of: Settled): Breach | null;
  /** What is wrong in the run of a failure, where it says something of the time that this takes; it then says nothing of what has settled. */
  judgeRun?(run: FailureRun, hosts: Settled): Breach | null;
  /** How it can be made to hold where it does not; null where that takes judgement. */
  mend?(of: Settled): Way | null;
}

/** A way to say a claim: words at the beginning of a line, or after whom it is about. */
export interface Form {
  readonly words: string;
  readonly about: 'nothing' | 'subject';
  /** A few words on what it says. */
  readonly detail: string;
  /** It says something of failures alone. */
  readonly underFailures?: true;
  /** Reads what follows the words. */
  read(reader: Reader, subject: Subject): Claim;
}
