/** Mux machine, coupled control (IEEE 802.1AX-2020 6.4.15, figure 6-22): attaches ports to their aggregator and lets frames through. */
import type { Micros } from '../entity';
import { AGGREGATE_WAIT_TIME, setActor, type LacpPort } from './state';

/** 6.4.14.1: whether a port may be attached: no other that waits for the same aggregator has time left to wait. */
const ready = (port: LacpPort, all: readonly LacpPort[], now: Micros): boolean =>
  port.waitWhile <= now &&
  (port.aggregator === 'own' ||
    all.every(
      (other) =>
        other.mux !== 'WAITING' ||
        other.selected !== 'SELECTED' ||
        other.aggregator !== 'bundle' ||
        other.waitWhile <= now,
    ));

export function mux(port: LacpPort, all: readonly LacpPort[], now: Micros): boolean {
  const { selected } = port;
  switch (port.mux) {
    case 'DETACHED':
      if (selected === 'UNSELECTED') return false;
      port.mux = 'WAITING';
      port.waitWhile = now + AGGREGATE_WAIT_TIME;
      return true;
    case 'WAITING':
      if (selected === 'UNSELECTED') return detach(port);
      if (selected !== 'SELECTED' || !ready(port, all, now)) return false;
      attach(port);
      return true;
    case 'ATTACHED':
      if (selected !== 'SELECTED') return detach(port);
      if (!port.partner.state.synchronization) return false;
      port.mux = 'COLLECTING_DISTRIBUTING';
      setActor(port, { collecting: true, distributing: true });
      port.ntt = true;
      return true;
    case 'COLLECTING_DISTRIBUTING':
      if (selected === 'SELECTED' && port.partner.state.synchronization) return false;
      attach(port);
      return true;
  }
}

function detach(port: LacpPort): true {
  port.mux = 'DETACHED';
  port.waitWhile = Infinity;
  setActor(port, { synchronization: false, collecting: false, distributing: false });
  port.ntt = true;
  return true;
}

function attach(port: LacpPort): void {
  port.mux = 'ATTACHED';
  setActor(port, { synchronization: true, collecting: false, distributing: false });
  port.ntt = true;
}
