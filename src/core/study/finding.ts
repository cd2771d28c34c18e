/** A finding: something that a practitioner would want to know about a design, short of an error in the document. */
import type { LinkId, PortId, SwitchId, TreeId } from '../design/ids';

export interface Finding {
  /** Which rule found it. */
  readonly rule: string;
  /** What is the matter and why it matters, in one sentence or two. */
  readonly text: string;
  /** Where on the map it is. */
  readonly at: { readonly switch?: SwitchId; readonly port?: PortId; readonly link?: LinkId; readonly trees?: readonly TreeId[] };
}
