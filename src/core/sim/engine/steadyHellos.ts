/**
 * Hellos of a network at rest, which are most of what bridges send: they are not run. An entity whose next hellos say what its
 * last ones said, to ports that make nothing of them, is hushed, and what they hold does not age; when the latest one came
 * is worked out when it speaks again: before anything that may change what it says, or what is made of it.
 */
import type { Hello, Micros } from '../../modes/entity';
import type { Running, SteadyHello } from './running';

export interface HelloSurroundings {
  readonly now: () => Micros;
  /** Whether an entity that is due now has had its turn at this moment. */
  readonly hadItsTurn: (running: Running) => boolean;
  /** Where what a port of an entity sends is heard; null where nobody hears it, undefined where it is let through to others. */
  readonly hearer: (from: Running, port: number) => Hearer | null | undefined;
  /** A hello is on its way when its sender speaks again. */
  readonly arrives: (at: Micros, hello: SteadyHello) => void;
  /** An entity is due otherwise than before. */
  readonly after: (running: Running) => void;
  /** Hellos are past: `times` of them from `t` on. */
  readonly told: (t: Micros, hello: SteadyHello, times: number) => void;
}

export interface Hearer {
  readonly running: Running;
  readonly local: number;
  readonly delay: Micros;
}

export class SteadyHellos {
  private readonly hushed = new Set<Running>();
  private readonly around: HelloSurroundings;

  constructor(around: HelloSurroundings) {
    this.around = around;
  }

  /** After an entity has sent its hellos: hushes it where its machines have not run since those before; else more is to come, as a rule. */
  hushAfterHello(running: Running): void {
    const { steady } = running.entity;
    if (!steady) return;
    const settled = running.ranBefore === steady.runs;
    running.ranBefore = steady.runs;
    if (settled) this.hush(running);
  }

  /** Hushes what it can of a tree that begins at rest. */
  hushAll(running: readonly (Running | null)[]): void {
    for (const each of running) if (each) this.hush(each);
  }

  /** Hushes an entity, where it has nothing new to say, and nobody makes anything of it. */
  private hush(running: Running): void {
    const { steady } = running.entity;
    const hellos = steady?.hellos();
    if (!steady || !hellos) return;
    const unsent: SteadyHello[] = [];
    for (const [local, hello] of hellos.entries()) {
      if (!hello) continue;
      const steadyHello = this.steadyHello(running, running.ports[local]!, hello);
      if (!steadyHello) return;
      unsent.push(steadyHello);
    }
    for (const hello of unsent) {
      if (!hello.to) continue;
      hello.to.unheard[hello.at] = hello;
      hello.to.hearing += 1;
      hello.to.entity.steady!.hold(hello.at);
    }
    running.unsent = unsent;
    steady.hush();
    this.hushed.add(running);
  }

  private steadyHello(from: Running, port: number, { bpdu, next: first, period }: Hello): SteadyHello | null {
    const hearer = this.around.hearer(from, port);
    if (hearer === undefined) return null;
    const to = hearer?.running ?? null;
    const [at, delay] = [hearer?.local ?? -1, hearer?.delay ?? 0];
    if (to && !to.entity.steady?.knows(at, bpdu)) return null;
    return { from, port, bpdu, first, period, untold: first, delay, to, at, held: to?.entity.held(at) ?? null };
  }

  /** After the machines of an entity have run: those speak again whose hellos are something new to it. */
  answer(running: Running): void {
    const { steady } = running.entity;
    if (running.hearing === 0 || running.answered === steady!.runs) return;
    running.answered = steady!.runs;
    for (const hello of running.unheard) if (hello && !steady!.knows(hello.at, hello.bpdu)) this.rouse(hello.from);
  }

  /** The entities of some switches speak again: the network changes there. */
  rouseAt(switches: ReadonlySet<number>): void {
    for (const running of [...this.hushed]) if (switches.has(running.switch)) this.rouse(running);
  }

  /** Tells of the hellos that are past, up to now. */
  tell(): void {
    for (const { unsent } of this.hushed) for (const hello of unsent!) this.tellBefore(this.around.now() + 1, hello);
  }

  /** An entity speaks again, where it was hushed: before its machines run, or what it says is something new to somebody. */
  rouse(running: Running): void {
    const { unsent } = running;
    if (!unsent) return;
    const now = this.around.now();
    // Hellos before this moment have been sent.
    const next = this.around.hadItsTurn(running) ? now + 1 : now;
    running.unsent = null;
    this.hushed.delete(running);
    for (const hello of unsent) {
      this.tellBefore(next, hello);
      const { to, at, first, period, delay } = hello;
      if (!to) continue;
      const last = latestBefore(now - delay, hello) ?? first - period;
      to.unheard[at] = null;
      to.hearing -= 1;
      to.entity.steady!.letGo(at, last + delay);
      this.around.after(to);
      for (let sent = last + period; sent < next; sent += period) this.around.arrives(sent + delay, hello);
    }
    running.entity.steady!.speak(next);
    this.around.after(running);
  }

  private tellBefore(moment: Micros, hello: SteadyHello): void {
    const last = latestBefore(moment, hello);
    if (last === null || last < hello.untold) return;
    this.around.told(hello.untold, hello, Math.round((last - hello.untold) / hello.period) + 1);
    hello.untold = last + hello.period;
  }
}

/** The last hello that is sent before a moment; null where none is. */
const latestBefore = (moment: Micros, { first, period }: SteadyHello): Micros | null =>
  moment <= first ? null : first + Math.floor((moment - 1 - first) / period) * period;
