/** A finding: something that a practitioner would want to know about a design, short of an error in the document. */
import type { Command } from '../../edit/commands';
import type { LinkId, BridgePortId, SwitchId, TreeId } from '../../model/ids';

/** A change that would end a finding. */
export interface Remedy {
  /** What it does, as the words on a button. */
  readonly label: string;
  readonly commands: readonly Command[];
}

export interface Finding {
  /** Which rule found it. */
  readonly rule: string;
  /** What is the matter, in one sentence. */
  readonly text: string;
  /** Why it matters. */
  readonly why: string;
  /** Where on the map it is. */
  readonly at: {
    readonly switch?: SwitchId;
    readonly port?: BridgePortId;
    readonly link?: LinkId;
    readonly trees?: readonly TreeId[];
  };
  /** The best first; none where it takes judgement. */
  readonly remedies: readonly Remedy[];
}
