/** The clock of a run: what happens at each moment, in an order that does not hang on what was put there first. */
import type { Micros } from '../../modes/entity';
import { EventQueue } from './eventQueue';
import type { Event } from './running';

export abstract class Clock {
  now: Micros = 0;
  /** How many events have happened. */
  events = 0;
  /** The rank of the wake-up that happens now: those below it have happened at this moment; none where something else does. */
  protected turn = Infinity;
  private readonly queue = new EventQueue<Event>();
  protected readonly rankOf: (event: Event) => number;

  constructor(rankOf: (event: Event) => number) {
    this.rankOf = rankOf;
  }

  protected abstract happen(event: Event): void;
  /** All that was put at this moment has happened. */
  protected abstract endMoment(): void;

  /** Whether nothing more is to happen at this moment. */
  protected get isOver(): boolean {
    return this.queue.next > this.now;
  }

  /** When something happens next; Infinity for never. */
  get next(): Micros {
    return this.queue.next;
  }

  /** Puts something on the clock. */
  readonly schedule = (t: Micros, event: Event): void => this.queue.push(t, event, this.rankOf(event));

  /** Does something at a moment to come. */
  at(t: Micros, act: () => void): void {
    this.schedule(t, { kind: 'do', act });
  }

  /** Runs up to a moment, everything that happens at it included; no farther than so many events take it. True where it got there. */
  runTo(until: Micros, most = Infinity): boolean {
    const { queue } = this;
    for (let count = 0; queue.next <= until; count += 1) {
      if (count >= most) return false;
      if (queue.next < this.now) throw new Error('something was put before the present');
      this.now = queue.next;
      this.events += 1;
      const event = queue.pop();
      this.turn = event.kind === 'wake' ? this.rankOf(event) : -1;
      this.happen(event);
      this.turn = Infinity;
      if (queue.next > this.now) this.endMoment();
    }
    this.now = Math.max(this.now, until);
    return true;
  }
}
