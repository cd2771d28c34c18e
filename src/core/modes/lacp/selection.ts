/** Selection Logic (IEEE 802.1AX-2020 6.4.14): which aggregator each port belongs to, and which ports stand by. */
import { selectMembers, type SelectedPort, type PortSelection } from './selectionLogic';
import type { Aggregator, LacpPort, LacpSettings } from './state';

export interface Known extends SelectedPort {
  readonly at: LacpPort;
}

/** What is known of the ports whose partner can aggregate. */
const candidates = (ports: readonly LacpPort[]): Known[] =>
  ports
    .filter((port) => port.portEnabled && !port.actor.state.defaulted && port.partner.state.aggregation)
    .map((at) => {
      const {
        settings: { number, priority, key, speed },
        partner: { systemPriority, system, key: theirs, portPriority, port },
      } = at;
      return { at, number, priority, key, speed, partner: { systemPriority, system, key: theirs, portPriority, port } };
    });

/** What the bundle takes now. */
export const selectionOf = (settings: LacpSettings, ports: readonly LacpPort[]): PortSelection<Known> =>
  selectMembers(settings, candidates(ports));

export function selectionLogic(settings: LacpSettings, ports: readonly LacpPort[]): boolean {
  const { selected, refused } = selectionOf(settings, ports);
  let moved = false;
  const want = (port: LacpPort, to: Aggregator, as: 'SELECTED' | 'STANDBY'): void => {
    if (port.aggregator === to && port.selected === as) return;
    // A port leaves its aggregator before it is selected for another one.
    const leaves = port.selected !== 'UNSELECTED' && port.aggregator !== to;
    if (!leaves && port.selected === 'UNSELECTED' && port.mux !== 'DETACHED') return;
    port.selected = leaves ? 'UNSELECTED' : as;
    if (!leaves) port.aggregator = to;
    moved = true;
  };
  for (const { at } of selected) want(at, 'bundle', 'SELECTED');
  for (const { at } of refused.keys()) want(at, 'bundle', 'STANDBY');
  for (const port of ports) {
    if (port.portEnabled && port.rx === 'DEFAULTED') want(port, 'own', 'SELECTED');
    else if ((!port.portEnabled || port.actor.state.defaulted) && port.selected !== 'UNSELECTED') {
      port.selected = 'UNSELECTED';
      moved = true;
    }
  }
  return moved;
}
