/** The elements of procedure of classic spanning tree, each under its name (IEEE 802.1D-1998 8.6). */
import type { ConfigBpdu } from '../bpdu';
import { SECOND, type Micros } from '../entity';
import { AGE_UNITS, timesOf, vectorOf } from '../vector';
import {
  HOLD_TIME,
  STOPPED,
  after,
  isDesignated,
  isRoot,
  setState,
  setTopologyChange,
  type StpBridge,
  type StpPort,
} from './state';

/** 8.6.1: at most one a Hold Time. */
export function transmitConfiguration(bridge: StpBridge, port: StpPort): void {
  if (!port.enableBPDUtx) return;
  const now = bridge.around.now();
  if (port.holdTimer !== STOPPED) {
    port.configurationPending = true;
    return;
  }
  const { rootPort } = bridge;
  const messageAge = rootPort === null ? 0 : ageNow(rootPort, now) + bridge.messageAgeIncrement;
  if (messageAge >= bridge.maxAge) return;
  const { bridgeId, designatedRoot, rootPathCost } = bridge;
  const vector = vectorOf(designatedRoot, rootPathCost, bridgeId, 0, bridgeId, port.portId);
  bridge.around.transmit(port.index, {
    kind: 'config',
    vector,
    times: timesOf(messageAge, bridge.maxAge, bridge.forwardDelay, bridge.helloTime, 0),
    tc: bridge.topologyChange,
    tcAck: port.topologyChangeAcknowledge,
  });
  port.topologyChangeAcknowledge = port.configurationPending = false;
  port.holdTimer = after(bridge, HOLD_TIME);
}

/** In whole units of what a BPDU holds, never underestimated (8.10.2). */
const ageNow = ({ messageAge, messageAgeFrom }: StpPort, now: Micros): number =>
  Math.ceil((messageAge + (now - messageAgeFrom) / SECOND) * AGE_UNITS) / AGE_UNITS;

/** 8.6.2.2: a BPDU that is better than what the port holds, or comes again from where that came from. */
export function supersedesPortInfo(bridge: StpBridge, port: StpPort, { vector }: ConfigBpdu): boolean {
  const order =
    vector.root - port.designatedRoot ||
    vector.externalCost - port.designatedCost ||
    vector.bridge - port.designatedBridge;
  if (order !== 0) return order < 0;
  return vector.bridge !== bridge.bridgeId || vector.port <= port.designatedPort;
}

/** 8.6.2. */
export function recordConfigurationInformation(bridge: StpBridge, port: StpPort, { vector, times }: ConfigBpdu): void {
  port.designatedRoot = vector.root;
  port.designatedCost = vector.externalCost;
  port.designatedBridge = vector.bridge;
  port.designatedPort = vector.port;
  port.messageAge = times.messageAge;
  port.messageAgeFrom = bridge.around.now();
  port.messageAgeTimer = after(bridge, times.maxAge - times.messageAge);
}

/** 8.6.3. */
export function recordConfigurationTimeoutValues(bridge: StpBridge, { times, tc }: ConfigBpdu): void {
  bridge.maxAge = times.maxAge;
  bridge.helloTime = times.hello;
  bridge.forwardDelay = times.forwardDelay;
  setTopologyChange(bridge, tc);
}

/** 8.6.4. */
export function configurationBpduGeneration(bridge: StpBridge): void {
  for (const port of bridge.ports)
    if (port.state !== 'disabled' && isDesignated(bridge, port)) transmitConfiguration(bridge, port);
}

/** 8.6.6. */
export function transmitTcn(bridge: StpBridge): void {
  if (bridge.rootPort?.enableBPDUtx) bridge.around.transmit(bridge.rootPort.index, { kind: 'tcn' });
}

/** 8.6.7. */
export function configurationUpdate(bridge: StpBridge): void {
  rootSelection(bridge);
  designatedPortSelection(bridge);
}

/** 8.6.8. */
function rootSelection(bridge: StpBridge): void {
  let best: StpPort | null = null;
  for (const port of bridge.ports) {
    if (port.state === 'disabled' || port.restrictedRole) continue;
    if (isDesignated(bridge, port) || port.designatedRoot >= bridge.bridgeId) continue;
    if (best === null || compareAsRootPorts(port, best) < 0) best = port;
  }
  bridge.rootPort = best;
  bridge.designatedRoot = best?.designatedRoot ?? bridge.bridgeId;
  bridge.rootPathCost = best ? best.designatedCost + best.pathCost : 0;
}

const compareAsRootPorts = (a: StpPort, b: StpPort): number =>
  a.designatedRoot - b.designatedRoot ||
  a.designatedCost + a.pathCost - b.designatedCost - b.pathCost ||
  a.designatedBridge - b.designatedBridge ||
  a.designatedPort - b.designatedPort ||
  a.portId - b.portId;

/** 8.6.9. */
function designatedPortSelection(bridge: StpBridge): void {
  for (const port of bridge.ports) {
    const order =
      bridge.rootPathCost - port.designatedCost ||
      bridge.bridgeId - port.designatedBridge ||
      port.portId - port.designatedPort;
    // Root guard: what is better than the root is not taken in, and stays at the port.
    const own = isDesignated(bridge, port);
    if (!own && port.restrictedRole && port.designatedRoot < bridge.designatedRoot) continue;
    if (own || port.designatedRoot !== bridge.designatedRoot || order <= 0) becomeDesignatedPort(bridge, port);
  }
}

/** 8.6.10. */
export function becomeDesignatedPort(bridge: StpBridge, port: StpPort): void {
  port.designatedRoot = bridge.designatedRoot;
  port.designatedCost = bridge.rootPathCost;
  port.designatedBridge = bridge.bridgeId;
  port.designatedPort = port.portId;
}

/** 8.6.11. */
export function portStateSelection(bridge: StpBridge): void {
  for (const port of bridge.ports) {
    if (port.state === 'disabled') continue;
    if (port === bridge.rootPort) {
      port.configurationPending = port.topologyChangeAcknowledge = false;
      makeForwarding(bridge, port);
    } else if (isDesignated(bridge, port) && !port.loopHeld && !port.checkHeld) {
      port.messageAgeTimer = STOPPED;
      makeForwarding(bridge, port);
    } else {
      port.configurationPending = port.topologyChangeAcknowledge = false;
      makeBlocking(bridge, port);
    }
    bridge.around.changed(port.index, 0); // its role may be another one
  }
}

/** 8.6.12; an edge port that has heard no bridge forwards at once. */
function makeForwarding(bridge: StpBridge, port: StpPort): void {
  if (port.state !== 'blocking') return;
  if (port.operEdge) return setState(bridge, port, 'forwarding');
  setState(bridge, port, 'listening');
  port.forwardDelayTimer = after(bridge, bridge.forwardDelay);
}

/** 8.6.13. */
function makeBlocking(bridge: StpBridge, port: StpPort): void {
  if (port.state === 'blocking') return;
  if ((port.state === 'forwarding' || port.state === 'learning') && !port.operEdge) topologyChangeDetection(bridge);
  setState(bridge, port, 'blocking');
  port.forwardDelayTimer = STOPPED;
  bridge.around.flush(port.index, 0);
}

/** 8.6.14. */
export function topologyChangeDetection(bridge: StpBridge): void {
  if (isRoot(bridge)) {
    setTopologyChange(bridge, true);
    bridge.topologyChangeTimer = after(bridge, bridge.bridgeTimes.maxAge + bridge.bridgeTimes.forwardDelay);
  } else if (!bridge.topologyChangeDetected) {
    transmitTcn(bridge);
    bridge.tcnTimer = after(bridge, bridge.bridgeTimes.hello);
  }
  bridge.topologyChangeDetected = true;
}

/** 8.6.15. */
export function topologyChangeAcknowledged(bridge: StpBridge): void {
  bridge.topologyChangeDetected = false;
  bridge.tcnTimer = STOPPED;
}

/** 8.6.16. */
export function acknowledgeTopologyChange(bridge: StpBridge, port: StpPort): void {
  port.topologyChangeAcknowledge = true;
  transmitConfiguration(bridge, port);
}
