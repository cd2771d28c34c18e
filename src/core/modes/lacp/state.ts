/** What the LACP machines of a system know (IEEE 802.1AX-2020 6.4.4 to 6.4.8); names as in the clause. */
import { SECOND, type Micros } from '../entity';

/** Carries frames of the bundle; is kept in reserve or out; is a port of its own; is not in step with the other end; has no signal. */
export const MEMBER_STATES = ['active', 'standby', 'individual', 'waiting', 'down'] as const;
export type MemberState = (typeof MEMBER_STATES)[number];

/** The bits of a port's state, from the first (802.1AX-2020 6.4.2.3 m). */
export const STATE_BITS = [
  'activity',
  'timeout',
  'aggregation',
  'synchronization',
  'collecting',
  'distributing',
  'defaulted',
  'expired',
] as const;
export type StateBit = (typeof STATE_BITS)[number];

/** 6.4.4: Fast_Periodic_Time, Slow_Periodic_Time, Short_Timeout_Time, Long_Timeout_Time, Aggregate_Wait_Time. */
export const FAST_PERIODIC_TIME = 1 * SECOND;
export const SLOW_PERIODIC_TIME = 30 * SECOND;
export const SHORT_TIMEOUT_TIME = 3 * SECOND;
export const LONG_TIMEOUT_TIME = 90 * SECOND;
export const AGGREGATE_WAIT_TIME = 2 * SECOND;
/** 6.4.16: no more LACPDUs than this in a Fast_Periodic_Time. */
export const TX_LIMIT = 3;

/** The octet of a port's state (6.4.2.3 m), bit by bit. */
export type LacpState = Readonly<Record<StateBit, boolean>>;

/** What one end says of itself, or believes of the other. */
export interface Participant {
  readonly systemPriority: number;
  readonly system: string;
  readonly key: number;
  readonly portPriority: number;
  readonly port: number;
  readonly state: LacpState;
}

/** An LACPDU, version 1 (6.4.2). */
export interface Lacpdu {
  readonly actor: Participant;
  readonly partner: Participant;
}

export interface LacpPortSettings {
  readonly number: number;
  readonly priority: number;
  readonly key: number;
  /** Mbit/s. */
  readonly speed: number;
}

/** One aggregator with the ports that are meant for it. */
export interface LacpSettings {
  readonly systemPriority: number;
  readonly mac: string;
  readonly key: number;
  /** Whether it speaks first: LACP_Activity. */
  readonly active: boolean;
  /** Whether it wants to hear every second: LACP_Timeout. */
  readonly fast: boolean;
  readonly minLinks: number;
  readonly maxActive: number;
  readonly ports: readonly LacpPortSettings[];
}

/** What the machines ask of the system that they run in. */
export interface LacpSurroundings {
  readonly now: () => Micros;
  readonly transmit: (port: number, lacpdu: Lacpdu) => void;
  /** A port is used otherwise than before, or its partner is another. */
  readonly changed: () => void;
}

/** Where a port's frames go: the bundle's aggregator, or one of its own as an individual link. */
export type Aggregator = 'bundle' | 'own';

export interface LacpPort {
  readonly settings: LacpPortSettings;
  portEnabled: boolean;
  actor: Participant;
  partner: Participant;
  received: Lacpdu | null;
  /** While it is disabled, its partner has been heard at another port of the system: a cable was moved (6.4.8 port_moved). */
  portMoved: boolean;
  rx: 'PORT_DISABLED' | 'EXPIRED' | 'DEFAULTED' | 'CURRENT';
  currentWhile: Micros;
  periodic: 'NO_PERIODIC' | 'FAST_PERIODIC' | 'SLOW_PERIODIC';
  periodicTimer: Micros;
  selected: 'SELECTED' | 'STANDBY' | 'UNSELECTED';
  aggregator: Aggregator | null;
  mux: 'DETACHED' | 'WAITING' | 'ATTACHED' | 'COLLECTING_DISTRIBUTING';
  waitWhile: Micros;
  ntt: boolean;
  /** When LACPDUs went out last, within the time that the limit is about. */
  sent: readonly Micros[];
}

const NO_BITS = Object.fromEntries(STATE_BITS.map((bit) => [bit, false])) as LacpState;

/** What is assumed of a partner that says nothing (6.4.6 partner_admin values): an individual link that is in step. */
export const NOBODY: Participant = {
  systemPriority: 0,
  system: '00:00:00:00:00:00',
  key: 0,
  portPriority: 0,
  port: 0,
  state: { ...NO_BITS, synchronization: true },
};

/** A port as at BEGIN. */
export function createPort(settings: LacpPortSettings, { systemPriority, mac, active, fast }: LacpSettings): LacpPort {
  return {
    settings,
    portEnabled: false,
    actor: {
      systemPriority,
      system: mac,
      key: settings.key,
      portPriority: settings.priority,
      port: settings.number,
      state: { ...NO_BITS, activity: active, timeout: fast, aggregation: true, defaulted: true },
    },
    partner: NOBODY,
    received: null,
    portMoved: false,
    rx: 'PORT_DISABLED',
    currentWhile: Infinity,
    periodic: 'NO_PERIODIC',
    periodicTimer: Infinity,
    selected: 'UNSELECTED',
    aggregator: null,
    mux: 'DETACHED',
    waitWhile: Infinity,
    ntt: false,
    sent: [],
  };
}

/** Sets bits of the actor's state. */
export function setActor(port: LacpPort, bits: Partial<LacpState>): void {
  port.actor = { ...port.actor, state: { ...port.actor.state, ...bits } };
}

export function setPartner(port: LacpPort, bits: Partial<LacpState>): void {
  port.partner = { ...port.partner, state: { ...port.partner.state, ...bits } };
}

/** Whether two participants are the same port with the same parameters, and can or cannot aggregate alike. */
export const sameParticipant = (a: Participant, b: Participant): boolean =>
  a.port === b.port &&
  a.portPriority === b.portPriority &&
  a.system === b.system &&
  a.systemPriority === b.systemPriority &&
  a.key === b.key &&
  a.state.aggregation === b.state.aggregation;
