/** One protocol entity on a bench: a clock to turn, BPDUs to let it hear, and everything that it does written down. */
import { DEFAULT_TIMERS } from '../model/switch';
import type { Bpdu, ConfigBpdu, MstBpdu, MstiMessage, RstBpdu, RstFlags } from '../modes/bpdu';
import { SECOND, type EntitySettings, type ProtocolEntity, type Surroundings } from '../modes/entity';
import type { MstConfigurationId } from '../wire/mstConfiguration';
import type { Vector } from '../modes/vector';

/** The identifier of the bridge on the bench; lower ones are better. */
export const OWN = 100;
export const COST = 20_000;

export interface Sent {
  /** Seconds. */
  readonly t: number;
  readonly port: number;
  readonly bpdu: Bpdu;
}

export class EntityBench {
  readonly entity: ProtocolEntity;
  readonly sent: Sent[] = [];
  readonly flushed: number[] = [];
  /** Port and tree of each flush. */
  readonly flushedIn: (readonly [number, number])[] = [];
  fast = false;
  private now = 0;

  /** `edges` are the ports that are set as edge ports. */
  constructor(
    make: (settings: EntitySettings, around: Surroundings) => ProtocolEntity,
    count: number,
    edges: readonly number[] = [],
    times: Partial<EntitySettings['times']> = {},
    region: EntitySettings['region'] = null,
  ) {
    this.entity = make(
      {
        bridge: OWN,
        offset: 0,
        region,
        times: { ...DEFAULT_TIMERS, ...times },
        ports: Array.from({ length: count }, (_, i) => ({
          id: 0x8001 + i,
          cost: { external: COST, internal: COST },
          edge: edges.includes(i),
          autoEdge: true,
          pointToPoint: true,
          restrictedRole: false,
          restrictedTcn: false,
          loopGuard: false,
          enableBPDUrx: true,
          enableBPDUtx: true,
          rstpVersion: true,
        })),
      },
      {
        now: () => this.now,
        transmit: (port, bpdu) => this.sent.push({ t: this.now / SECOND, port, bpdu }),
        changed: () => undefined,
        flush: (port, tree) => {
          this.flushed.push(port);
          this.flushedIn.push([port, tree]);
        },
        fastAgeing: (seconds) => (this.fast = seconds !== null),
      },
    );
    for (let port = 0; port < count; port += 1) this.entity.enable(port, true);
  }

  /** Turns the clock to a second. */
  to(seconds: number): this {
    const until = Math.round(seconds * SECOND);
    while (this.entity.due <= until) {
      this.now = this.entity.due;
      this.entity.wake();
    }
    this.now = until;
    return this;
  }

  hear(port: number, bpdu: Bpdu): this {
    this.entity.receive(port, bpdu);
    return this;
  }

  /** Turns the clock while a neighbour repeats itself each hello. */
  hearing(seconds: number, port: number, bpdu: Bpdu): this {
    for (let t = this.now / SECOND; t <= seconds; t += 2) this.to(t).hear(port, bpdu);
    return this.to(seconds);
  }

  /** `root forwarding` of a port. */
  is(port: number): string {
    return `${this.entity.role(port)} ${this.entity.state(port)}`;
  }

  /** What a port has sent since a second. */
  from(port: number, since = 0): Bpdu[] {
    return this.sent.filter((each) => each.port === port && each.t >= since).map((each) => each.bpdu);
  }
}

const TIMES = { messageAge: 0, maxAge: 20, forwardDelay: 15, hello: 2, remainingHops: 20 };

/** What a neighbour says: its root, what it costs it to get there, itself. */
export interface Said {
  readonly root: number;
  readonly cost?: number;
  readonly bridge?: number;
  readonly port?: number;
  readonly messageAge?: number;
  readonly regionalRoot?: number;
  readonly internalCost?: number;
}

function vectorOf({
  root,
  cost = 0,
  bridge = root,
  port = 0x8001,
  regionalRoot = bridge,
  internalCost = 0,
}: Said): Vector {
  return { root, externalCost: cost, regionalRoot, internalCost, bridge, port };
}

export const rst = (said: Said, flags: Partial<RstFlags> = {}): RstBpdu => ({
  kind: 'rst',
  vector: vectorOf(said),
  times: { ...TIMES, messageAge: said.messageAge ?? 0 },
  role: 'designated',
  tc: false,
  proposal: false,
  learning: true,
  forwarding: true,
  agreement: false,
  ...flags,
});

export const config = (said: Said, flags: Partial<Pick<ConfigBpdu, 'tc' | 'tcAck'>> = {}): ConfigBpdu => ({
  kind: 'config',
  vector: vectorOf(said),
  times: { ...TIMES, messageAge: said.messageAge ?? 0 },
  tc: false,
  tcAck: false,
  ...flags,
});

type InstanceFlags = Partial<RstFlags & Pick<MstiMessage, 'master'>>;

/** What a neighbour of the region says of an instance: its root there, and what it costs to get there. */
export const msti = (
  mstid: number,
  { root, cost = 0, bridge = root, port = 0x8001 }: Said,
  flags: InstanceFlags = {},
  remainingHops = 20,
): MstiMessage => ({
  kind: 'msti',
  mstid,
  vector: { root: 0, externalCost: 0, regionalRoot: root, internalCost: cost, bridge, port },
  remainingHops,
  role: 'designated',
  tc: false,
  proposal: false,
  learning: true,
  forwarding: true,
  agreement: false,
  master: false,
  ...flags,
});

export const mst = (
  said: Said,
  configurationId: MstConfigurationId,
  instances: readonly MstiMessage[],
  flags: Parameters<typeof rst>[1] = {},
): MstBpdu => ({ ...rst(said, flags), kind: 'mst', configurationId, instances });
