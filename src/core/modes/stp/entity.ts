/** Classic STP as an entity of a switch: its operation (IEEE 802.1D-1998 8.7) and its management (8.8). */
import type { Bpdu, ConfigBpdu } from '../bpdu';
import type { EntitySettings, Micros, PortCost, ProtocolEntity, RunRole, RunState, Surroundings } from '../entity';
import { vectorOf, type Vector } from '../vector';
import {
  acknowledgeTopologyChange,
  becomeDesignatedPort,
  configurationBpduGeneration,
  configurationUpdate,
  portStateSelection,
  recordConfigurationInformation,
  recordConfigurationTimeoutValues,
  supersedesPortInfo,
  topologyChangeAcknowledged,
  topologyChangeDetection,
  transmitConfiguration,
  transmitTcn,
} from './procedures';
import {
  STOPPED,
  after,
  createStpBridge,
  isDesignated,
  isRoot,
  setState,
  setTopologyChange,
  type StpBridge,
  type StpPort,
} from './state';

/** A classic entity: its ports have no signal yet. */
export function stpEntity(settings: EntitySettings, around: Surroundings): ProtocolEntity {
  return new StpEntity(createStpBridge(settings, around));
}

class StpEntity implements ProtocolEntity {
  readonly beginning = null;
  readonly steady = null;
  due: Micros;
  private readonly bridge: StpBridge;

  constructor(bridge: StpBridge) {
    this.bridge = bridge;

    this.due = bridge.helloTimer;
  }

  receive(index: number, bpdu: Bpdu): void {
    const port = this.bridge.ports[index]!;
    if (port.state === 'disabled' || !port.enableBPDUrx) return;
    if (port.loopHeld) {
      port.loopHeld = false;
      portStateSelection(this.bridge);
    }
    if (bpdu.kind === 'config') this.receivedConfiguration(port, bpdu);
    else if (bpdu.kind === 'tcn') this.receivedTcn(port);
    this.rest(); // other types are not known to it (9.3.4)
  }

  /** 8.7.1. */
  private receivedConfiguration(port: StpPort, bpdu: ConfigBpdu): void {
    const { bridge } = this;
    port.operEdge = false;
    if (!supersedesPortInfo(bridge, port, bpdu)) {
      if (isDesignated(bridge, port)) transmitConfiguration(bridge, port); // 8.6.5
      return;
    }
    const wasRoot = isRoot(bridge);
    recordConfigurationInformation(bridge, port, bpdu);
    configurationUpdate(bridge);
    portStateSelection(bridge);
    if (!isRoot(bridge) && wasRoot) {
      bridge.helloTimer = STOPPED;
      if (bridge.topologyChangeDetected) {
        bridge.topologyChangeTimer = STOPPED;
        transmitTcn(bridge);
        bridge.tcnTimer = after(bridge, bridge.bridgeTimes.hello);
      }
    }
    if (port !== bridge.rootPort) return;
    recordConfigurationTimeoutValues(bridge, bpdu);
    configurationBpduGeneration(bridge);
    if (bpdu.tcAck) topologyChangeAcknowledged(bridge);
  }

  /** 8.7.2. */
  private receivedTcn(port: StpPort): void {
    if (!isDesignated(this.bridge, port)) return;
    if (!port.restrictedTcn) topologyChangeDetection(this.bridge);
    acknowledgeTopologyChange(this.bridge, port);
  }

  wake(): void {
    const { bridge } = this;
    const now = bridge.around.now();
    if (bridge.helloTimer <= now) {
      configurationBpduGeneration(bridge); // 8.7.3
      bridge.helloTimer = after(bridge, bridge.bridgeTimes.hello);
    }
    for (const port of bridge.ports) {
      if (port.messageAgeTimer <= now) this.messageAgeExpired(port);
      if (port.forwardDelayTimer <= now) this.forwardDelayExpired(port);
      if (port.holdTimer <= now) {
        port.holdTimer = STOPPED; // 8.7.8
        if (port.configurationPending) transmitConfiguration(bridge, port);
      }
    }
    if (bridge.tcnTimer <= now) {
      transmitTcn(bridge); // 8.7.6
      bridge.tcnTimer = after(bridge, bridge.bridgeTimes.hello);
    }
    if (bridge.topologyChangeTimer <= now) {
      bridge.topologyChangeDetected = false; // 8.7.7
      bridge.topologyChangeTimer = STOPPED;
      setTopologyChange(bridge, false);
    }
    this.rest();
  }

  /** 8.7.4. */
  private messageAgeExpired(port: StpPort): void {
    const { bridge } = this;
    port.messageAgeTimer = STOPPED;
    port.loopHeld = port.loopGuard;
    this.reconfigure(() => becomeDesignatedPort(bridge, port));
  }

  /** 8.7.5. */
  private forwardDelayExpired(port: StpPort): void {
    const { bridge } = this;
    port.forwardDelayTimer = STOPPED;
    if (port.state === 'listening') {
      setState(bridge, port, 'learning');
      port.forwardDelayTimer = after(bridge, bridge.forwardDelay);
    } else if (port.state === 'learning') {
      setState(bridge, port, 'forwarding');
      if (bridge.ports.some((other) => other.state !== 'disabled' && isDesignated(bridge, other)))
        topologyChangeDetection(bridge);
    }
  }

  enable(index: number, on: boolean): void {
    const { bridge } = this;
    const port = bridge.ports[index]!;
    if ((port.state !== 'disabled') === on) return;
    port.topologyChangeAcknowledge = port.configurationPending = port.loopHeld = false;
    port.messageAgeTimer = port.forwardDelayTimer = port.holdTimer = STOPPED;
    if (on) {
      becomeDesignatedPort(bridge, port); // 8.8.2
      port.operEdge = port.adminEdge;
      setState(bridge, port, 'blocking');
      portStateSelection(bridge);
      // As a bridge that comes up it speaks at its next hello.
    } else {
      this.reconfigure(() => {
        becomeDesignatedPort(bridge, port); // 8.8.3
        setState(bridge, port, 'disabled');
        bridge.around.changed(index, 0);
        bridge.around.flush(index, 0);
      });
    }
    this.rest();
  }

  setHeld(index: number, on: boolean): void {
    const port = this.bridge.ports[index]!;
    const had = port.state !== 'disabled';
    this.enable(index, false);
    port.checkHeld = on;
    if (had) this.enable(index, true);
  }

  /** 8.8.6. */
  setPathCost(index: number, cost: PortCost): void {
    this.bridge.ports[index]!.pathCost = cost.external;
    this.reconfigure(() => undefined);
    this.rest();
  }

  /** 8.8.5. */
  setPortId(index: number, id: number): void {
    const { bridge } = this;
    const port = bridge.ports[index]!;
    this.reconfigure(() => {
      if (isDesignated(bridge, port)) port.designatedPort = id;
      port.portId = id;
      if (bridge.bridgeId === port.designatedBridge && port.portId < port.designatedPort)
        becomeDesignatedPort(bridge, port);
    });
    this.rest();
  }

  /** 8.8.4. */
  setBridge(key: number): void {
    const { bridge } = this;
    this.reconfigure(() => {
      for (const port of bridge.ports) if (isDesignated(bridge, port)) port.designatedBridge = key;
      bridge.bridgeId = key;
    });
    this.rest();
  }

  /** Changes something and follows: a bridge that thereby becomes the root takes its own times and begins to speak (8.7.4, 8.8.3 to 8.8.6). */
  private reconfigure(change: () => void): void {
    const { bridge } = this;
    const wasRoot = isRoot(bridge);
    change();
    configurationUpdate(bridge);
    portStateSelection(bridge);
    if (!isRoot(bridge) || wasRoot) return;
    bridge.maxAge = bridge.bridgeTimes.maxAge;
    bridge.helloTime = bridge.bridgeTimes.hello;
    bridge.forwardDelay = bridge.bridgeTimes.forwardDelay;
    topologyChangeDetection(bridge);
    bridge.tcnTimer = STOPPED;
    configurationBpduGeneration(bridge);
    bridge.helloTimer = after(bridge, bridge.bridgeTimes.hello);
  }

  /** When the next timer expires. */
  private rest(): void {
    const { bridge } = this;
    let due = Math.min(bridge.helloTimer, bridge.tcnTimer, bridge.topologyChangeTimer);
    for (const port of bridge.ports) due = Math.min(due, port.messageAgeTimer, port.forwardDelayTimer, port.holdTimer);
    this.due = due;
  }

  role(index: number): RunRole {
    const { bridge } = this;
    const port = bridge.ports[index]!;
    if (port.state === 'disabled') return 'disabled';
    if (port === bridge.rootPort) return 'root';
    if (isDesignated(bridge, port)) return 'designated';
    return port.designatedBridge === bridge.bridgeId ? 'backup' : 'alternate';
  }
  state(index: number): RunState {
    return this.bridge.ports[index]!.state;
  }
  isHeld(index: number): boolean {
    const { loopHeld, checkHeld } = this.bridge.ports[index]!;
    return loopHeld || checkHeld;
  }
  held(index: number): Vector {
    const { designatedRoot, designatedCost, designatedBridge, designatedPort } = this.bridge.ports[index]!;
    return vectorOf(designatedRoot, designatedCost, designatedBridge, 0, designatedBridge, designatedPort);
  }
  inside(): boolean {
    return false;
  }
  get resting(): boolean {
    const { ports, tcnTimer, topologyChangeTimer } = this.bridge;
    return (
      tcnTimer === STOPPED &&
      topologyChangeTimer === STOPPED &&
      ports.every((port) => port.forwardDelayTimer === STOPPED)
    );
  }
  rootVector(): Vector {
    const { bridgeId, designatedRoot, rootPathCost } = this.bridge;
    return vectorOf(designatedRoot, rootPathCost, bridgeId, 0, bridgeId, 0);
  }
  rootPort(): number {
    return this.bridge.rootPort?.index ?? -1;
  }
}
