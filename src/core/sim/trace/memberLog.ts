/** How the members of bundles stand through a run. */
import type { SelectionRefusal } from '../../modes/lacp/selectionLogic';
import type { Micros } from '../../modes/entity';
import type { Participant, MemberState } from '../../modes/lacp/state';
import type { MemberUse } from '../../topology/aggregated';
import type { MemberNow } from '../engine/aggregation';
import { Timeline } from './timeline';

/** What members are used for, by their codes in a timeline. */
export const USES: readonly MemberUse[] = ['out', 'own', 'bundle', 'apart'];
/** Most marks that are kept. */
const MOST_MARKS = 200_000;

/** From this instant on a member stands so. Microseconds since the start, also of what is counted down; null where nothing is. */
export interface MemberMark {
  readonly t: Micros;
  readonly member: number;
  readonly state: MemberState;
  readonly refusal: SelectionRefusal | null;
  /** Both null of a static end. */
  readonly actor: Participant | null;
  readonly partner: Participant | null;
  /** The states of its receive and mux machines. */
  readonly machines: { readonly rx: string; readonly mux: string } | null;
  /** When what the partner said is too old; when the wait for others is over. */
  readonly expires: Micros | null;
  readonly attaches: Micros | null;
}

export class MemberLog {
  readonly marks: MemberMark[] = [];
  uses = new Timeline(new Uint8Array());
  private codes = new Uint8Array();

  begin(uses: readonly MemberUse[]): void {
    this.codes = Uint8Array.from(uses, coded);
    this.uses = new Timeline(this.codes.slice());
  }

  use(t: Micros, uses: readonly MemberUse[]): void {
    uses.forEach((use, member) => {
      const code = coded(use);
      if (code === this.codes[member]) return;
      this.codes[member] = code;
      this.uses.add(t, member, code);
    });
  }

  /** `start`: when the run began. */
  mark(t: Micros, member: number, { state, lacp }: MemberNow, start: Micros): void {
    if (this.marks.length >= MOST_MARKS) return;
    const when = (at: Micros): Micros | null => (at === Infinity || at < t ? null : at - start);
    this.marks.push({
      t: t - start,
      member,
      state,
      refusal: lacp?.refusal ?? null,
      actor: lacp?.actor ?? null,
      partner: lacp?.partner ?? null,
      machines: lacp && { rx: lacp.rx, mux: lacp.mux },
      expires: lacp && when(lacp.currentWhile),
      attaches: lacp && when(lacp.waitWhile),
    });
  }
}

const coded = (use: MemberUse): number => USES.indexOf(use);
