/** Which pairs of hosts reach each other at any instant of a run, and why the others do not. */
import type { HostId } from '../../model/ids';
import type { Micros } from '../../modes/entity';
import { Timeline, type TimelineData } from '../trace/timeline';

/** Why frames of a pair do not arrive: no ports lead there; a switch still sends them the old way; they circle. */
export const OUTAGE_CAUSES = ['no path', 'outdated address', 'storm'] as const;
export type OutageCause = (typeof OUTAGE_CAUSES)[number];

/** Frames from one host to another, both in one VLAN. */
export interface HostPair {
  readonly from: HostId;
  readonly to: HostId;
  readonly vlan: number;
}

const coded = (cause: OutageCause | null): number => (cause === null ? 0 : 1 + OUTAGE_CAUSES.indexOf(cause));
const causeOf = (code: number): OutageCause | null => (code === 0 ? null : OUTAGE_CAUSES[code - 1]!);

/** Grows while a run goes on; times in microseconds from the start. */
export class Reach {
  private readonly timeline: Timeline;

  /** `causes` are those of the start, null for a pair that reaches. */
  readonly pairs: readonly HostPair[];

  constructor(pairs: readonly HostPair[], causes: readonly (OutageCause | null)[] | TimelineData) {
    this.pairs = pairs;

    this.timeline = 'start' in causes ? Timeline.from(causes) : new Timeline(Uint8Array.from(causes, coded));
  }

  data(): TimelineData {
    return this.timeline.data();
  }

  add(t: Micros, pair: number, cause: OutageCause | null): void {
    this.timeline.add(t, pair, coded(cause));
  }

  timeOf(i: number): Micros {
    return this.timeline.timeOf(i);
  }
  /** What happened to which pair: since then it is cut off, or reaches. */
  change(i: number): { readonly pair: number; readonly cause: OutageCause | null } {
    return { pair: this.timeline.placeOf(i), cause: causeOf(this.timeline.after(i)) };
  }

  /** What cuts each pair off at an instant, in the order of `pairs`; null where frames arrive. */
  causesAt(t: Micros): (OutageCause | null)[] {
    return Array.from(this.timeline.pictureAt(t), causeOf);
  }

  /** How often a pair was cut off or reached again. */
  get count(): number {
    return this.timeline.count;
  }
}
