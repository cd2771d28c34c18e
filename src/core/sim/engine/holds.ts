/** Ports that a check holds, each until what it is held for has not come for three hellos. */
import { SECOND, type Micros } from '../../modes/entity';

/** How many hello times a check remembers. */
const HELLOS = 3;

interface Clock {
  readonly now: Micros;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
}

export class Holds {
  private readonly until = new Map<number, Micros>();
  private readonly clock: Clock;

  private readonly changed: (port: number, on: boolean) => void;

  /** `changed`: a port is held from now on, or no longer. */
  constructor(clock: Clock, changed: (port: number, on: boolean) => void) {
    this.clock = clock;
    this.changed = changed;
  }

  has(port: number): boolean {
    return this.until.has(port);
  }

  /** What holds a port has come; `hello`: seconds. */
  renew(port: number, hello: number): void {
    const lasts = this.clock.now + HELLOS * hello * SECOND;
    const isNew = !this.until.has(port);
    this.until.set(port, lasts);
    if (!isNew) return;
    this.changed(port, true);
    this.lookAt(lasts, port);
  }

  /** Those ports are held by nothing any more, and nobody is told. */
  forget(which: (port: number) => boolean): void {
    for (const port of this.until.keys()) if (which(port)) this.until.delete(port);
  }

  private lookAt(t: Micros, port: number): void {
    this.clock.at(t, () => {
      const until = this.until.get(port);
      if (until === undefined) return;
      if (until > t) return this.lookAt(until, port);
      this.until.delete(port);
      this.changed(port, false);
    });
  }
}
