/** LACP for one bundle: every machine of every member runs until none of them moves (IEEE 802.1AX-2020 6.4). */
import type { MemberState } from './state';
import type { SelectionRefusal } from './selectionLogic';
import type { Micros } from '../entity';
import { mux } from './mux';
import { periodicTransmission } from './periodic';
import { receive } from './receive';
import { selectionLogic, selectionOf } from './selection';
import {
  FAST_PERIODIC_TIME,
  TX_LIMIT,
  createPort,
  type LacpPort,
  type LacpSettings,
  type LacpSurroundings,
  type Lacpdu,
  type Participant,
} from './state';

/** More rounds than any bundle needs: machines that never rest are a fault of ours. */
const MOST_ROUNDS = 10_000;

/** How a member stands at this moment. */
export interface LacpView {
  readonly state: MemberState;
  readonly refusal: SelectionRefusal | null;
  readonly actor: Participant;
  /** Null where nothing was heard. */
  readonly partner: Participant | null;
  readonly rx: LacpPort['rx'];
  readonly mux: LacpPort['mux'];
  /** When what was heard is too old, and when the wait for others is over; Infinity where that is not counted. */
  readonly currentWhile: Micros;
  readonly waitWhile: Micros;
}

export class LacpEntity {
  due: Micros = Infinity;
  private readonly ports: readonly LacpPort[];

  private readonly settings: LacpSettings;
  private readonly around: LacpSurroundings;

  constructor(settings: LacpSettings, around: LacpSurroundings) {
    this.settings = settings;
    this.around = around;

    this.ports = settings.ports.map((port) => createPort(port, settings));
  }

  receive(port: number, lacpdu: Lacpdu): void {
    const to = this.ports[port]!;
    if (!to.portEnabled) return;
    to.received = lacpdu;
    this.run();
  }

  /** What a port of the system has heard: of whom a disabled port still holds that, he has moved (6.4.8 port_moved); gives whether there is one. */
  heardElsewhere({ system, port }: Participant): boolean {
    const holding = this.ports.filter(
      (each) => each.rx === 'PORT_DISABLED' && each.partner.system === system && each.partner.port === port,
    );
    for (const each of holding) each.portMoved = true;
    if (holding.length > 0) this.run();
    return holding.length > 0;
  }

  wake(): void {
    this.run();
  }

  /** Signal comes or goes. */
  enable(port: number, on: boolean): void {
    if (this.ports[port]!.portEnabled === on) return;
    this.ports[port]!.portEnabled = on;
    this.run();
  }

  /** What a member's frames go to now: the bundle, a port of its own, nothing. */
  use(port: number): 'bundle' | 'own' | 'out' {
    const { mux: state, aggregator } = this.ports[port]!;
    if (state !== 'COLLECTING_DISTRIBUTING') return 'out';
    return aggregator === 'own' ? 'own' : this.up ? 'bundle' : 'out';
  }

  get up(): boolean {
    return (
      this.ports.filter((port) => port.mux === 'COLLECTING_DISTRIBUTING' && port.aggregator === 'bundle').length >=
      this.settings.minLinks
    );
  }

  /** Whether nothing is under way. */
  get resting(): boolean {
    return this.ports.every(
      (port) => port.rx !== 'EXPIRED' && !(port.mux === 'WAITING' && port.selected === 'SELECTED') && !port.ntt,
    );
  }

  view(port: number): LacpView {
    const at = this.ports[port]!;
    const refusal = [...selectionOf(this.settings, this.ports).refused].find(([known]) => known.at === at)?.[1] ?? null;
    const { actor, rx, currentWhile, waitWhile } = at;
    return {
      state: this.stateOf(at, refusal),
      refusal,
      actor,
      partner: actor.state.defaulted ? null : at.partner,
      rx,
      mux: at.mux,
      currentWhile,
      waitWhile,
    };
  }

  private stateOf(port: LacpPort, refusal: SelectionRefusal | null): MemberState {
    if (!port.portEnabled) return 'down';
    if (port.mux === 'COLLECTING_DISTRIBUTING') return port.aggregator === 'own' ? 'individual' : 'active';
    return refusal !== null && refusal !== 'too-few' ? 'standby' : 'waiting';
  }

  private run(): void {
    const now = this.around.now();
    const before = this.ports.map(({ mux: state, aggregator }) => `${state}${aggregator}`).join();
    let moved = true;
    for (let round = 0; moved; round += 1) {
      if (round > MOST_ROUNDS) throw new Error('the LACP machines do not come to rest');
      moved = false;
      for (const port of this.ports) {
        if (receive(port, now)) moved = true;
        if (periodicTransmission(port, now)) moved = true;
      }
      if (selectionLogic(this.settings, this.ports)) moved = true;
      for (const port of this.ports) if (mux(port, this.ports, now)) moved = true;
    }
    this.ports.forEach((port, i) => this.transmit(port, i, now));
    this.due = Math.min(...this.ports.map((port) => dueOf(port, now)));
    if (this.ports.map(({ mux: state, aggregator }) => `${state}${aggregator}`).join() !== before)
      this.around.changed();
  }

  /** Transmit machine (6.4.16). */
  private transmit(port: LacpPort, i: number, now: Micros): void {
    if (!port.ntt) return;
    if (!port.portEnabled || port.periodic === 'NO_PERIODIC') {
      port.ntt = false;
      return;
    }
    port.sent = port.sent.filter((t) => t > now - FAST_PERIODIC_TIME);
    if (port.sent.length >= TX_LIMIT) return;
    port.ntt = false;
    port.sent = [...port.sent, now];
    this.around.transmit(i, { actor: port.actor, partner: port.partner });
  }
}

/** When something of a port will be due. */
function dueOf(port: LacpPort, now: Micros): Micros {
  const room = port.ntt ? (port.sent[0] ?? now) + FAST_PERIODIC_TIME : Infinity;
  const waits =
    port.mux === 'WAITING' && port.selected === 'SELECTED' && port.waitWhile > now ? port.waitWhile : Infinity;
  return Math.min(port.currentWhile, port.periodicTimer, waits, room);
}
