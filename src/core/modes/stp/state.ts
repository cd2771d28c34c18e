/** Parameters and timers of classic spanning tree under the standard's names (IEEE 802.1D-1998 8.5). Timers hold the moment at which they expire. */
import { AGE_UNITS } from '../vector';
import { SECOND, type EntitySettings, type Micros, type RunState, type Surroundings } from '../entity';

/** A timer that does not run. */
export const STOPPED: Micros = Infinity;
/** Seconds (8.10.2). */
export const HOLD_TIME = 1;

/** 8.5.5. */
export interface StpPort {
  readonly index: number;
  readonly adminEdge: boolean;
  /** Root guard: never the root port (the role of 802.1Q-2018 13.27 restrictedRole, which classic bridges do not know). */
  readonly restrictedRole: boolean;
  readonly restrictedTcn: boolean;
  readonly enableBPDUrx: boolean;
  readonly enableBPDUtx: boolean;
  readonly loopGuard: boolean;
  /** Loop guard holds it: what it heard has outlived its time, and nothing has come since. */
  loopHeld: boolean;
  /** A check holds it, for as long as it is told to. */
  checkHeld: boolean;
  portId: number;
  state: RunState;
  pathCost: number;
  designatedRoot: number;
  designatedCost: number;
  designatedBridge: number;
  designatedPort: number;
  topologyChangeAcknowledge: boolean;
  configurationPending: boolean;
  /** No bridge has been heard on an edge port since it has had signal: it needs no delay, and its changes are not told. */
  operEdge: boolean;
  /** The age of the information as it came, seconds, and when that was. */
  messageAge: number;
  messageAgeFrom: Micros;
  messageAgeTimer: Micros;
  forwardDelayTimer: Micros;
  holdTimer: Micros;
}

/** 8.5.3. */
export interface StpBridge {
  readonly ports: StpPort[];
  readonly around: Surroundings;
  /** Seconds: the bridge's own, and those in use, which are the root's. */
  readonly bridgeTimes: { readonly maxAge: number; readonly hello: number; readonly forwardDelay: number };
  /** What is added to the age of a message on its way through, seconds (8.10.2). */
  readonly messageAgeIncrement: number;
  bridgeId: number;
  designatedRoot: number;
  rootPathCost: number;
  rootPort: StpPort | null;
  maxAge: number;
  helloTime: number;
  forwardDelay: number;
  topologyChangeDetected: boolean;
  topologyChange: boolean;
  helloTimer: Micros;
  tcnTimer: Micros;
  topologyChangeTimer: Micros;
}

/** A bridge that takes itself for the root, its ports without signal (8.8.1). */
export function createStpBridge(
  { bridge: bridgeId, times, ports, offset }: EntitySettings,
  around: Surroundings,
): StpBridge {
  const { maxAge, hello, forwardDelay, ageIncrement } = times;
  return {
    around,
    bridgeId,
    designatedRoot: bridgeId,
    rootPathCost: 0,
    rootPort: null,
    bridgeTimes: { maxAge, hello, forwardDelay },
    messageAgeIncrement: ageIncrement / AGE_UNITS,
    maxAge,
    helloTime: hello,
    forwardDelay,
    topologyChangeDetected: false,
    topologyChange: false,
    helloTimer: around.now() + offset,
    tcnTimer: STOPPED,
    topologyChangeTimer: STOPPED,
    ports: ports.map((port, index): StpPort => ({
      index,
      adminEdge: port.edge,
      operEdge: port.edge,
      restrictedRole: port.restrictedRole,
      restrictedTcn: port.restrictedTcn,
      enableBPDUrx: port.enableBPDUrx,
      enableBPDUtx: port.enableBPDUtx,
      loopGuard: port.loopGuard,
      loopHeld: false,
      checkHeld: false,
      portId: port.id,
      state: 'disabled',
      pathCost: port.cost.external,
      designatedRoot: bridgeId,
      designatedCost: 0,
      designatedBridge: bridgeId,
      designatedPort: port.id,
      topologyChangeAcknowledge: false,
      configurationPending: false,
      messageAge: 0,
      messageAgeFrom: 0,
      messageAgeTimer: STOPPED,
      forwardDelayTimer: STOPPED,
      holdTimer: STOPPED,
    })),
  };
}

export const isRoot = (bridge: StpBridge): boolean => bridge.designatedRoot === bridge.bridgeId;
export const isDesignated = (bridge: StpBridge, port: StpPort): boolean =>
  port.designatedBridge === bridge.bridgeId && port.designatedPort === port.portId;
export const after = ({ around }: StpBridge, seconds: number): Micros => around.now() + Math.round(seconds * SECOND);

export function setState(bridge: StpBridge, port: StpPort, state: RunState): void {
  if (port.state === state) return;
  port.state = state;
  bridge.around.changed(port.index, 0);
}

/** 8.5.3.8: while it is set, addresses age in Forward Delay. */
export function setTopologyChange(bridge: StpBridge, on: boolean): void {
  if (bridge.topologyChange === on) return;
  bridge.topologyChange = on;
  bridge.around.fastAgeing(on ? bridge.forwardDelay : null);
}
