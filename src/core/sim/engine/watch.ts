/** What is told of a running network. */
import type { Micros } from '../../modes/entity';
import type { Lacpdu } from '../../modes/lacp/state';
import type { MemberUse } from '../../topology/aggregated';
import type { MemberNow } from './aggregation';
import type { PortChange } from '../trace/recording';
import type { SentLog } from '../trace/sentLog';

/** What may be watched while it runs. */
export interface Watch {
  readonly changed?: (change: PortChange) => void;
  readonly flushed?: (t: Micros, tree: number, port: number) => void;
  /** Ports have gained or lost their signal, or what they send is lost, or arrives again. */
  readonly signalled?: (t: Micros) => void;
  /** How long a switch keeps addresses is about to change. */
  readonly ageing?: (s: number) => void;
  /**
   * A BPDU goes out of a port; `origin` is the switch that it is of, another one where it is only let through; `held` is what
   * the port at the other end holds before it comes, null where no bridge is there. Hellos that say the same may be told of
   * together, when all of them are past: `times` of them, one every `period`.
   */
  readonly sent?: (...frames: Required<Parameters<SentLog['add']>>) => void;
  /** A bundle's member stands otherwise than before; all of them do at the start. */
  readonly member?: (t: Micros, member: number, now: MemberNow) => void;
  /** Members may be used otherwise from now on. */
  readonly used?: (t: Micros, uses: readonly MemberUse[]) => void;
  /** An LACPDU goes out of a member. */
  readonly negotiated?: (t: Micros, member: number, lacpdu: Lacpdu) => void;
  /** A moment has passed in which a port, a cable or a table of addresses changed. */
  readonly moment?: (t: Micros) => void;
}
