/** Receive machine (IEEE 802.1AX-2020 6.4.12, figure 6-18): keeps what the partner says, while it says it. */
import type { Micros } from '../entity';
import {
  LONG_TIMEOUT_TIME,
  NOBODY,
  SHORT_TIMEOUT_TIME,
  sameParticipant,
  setActor,
  setPartner,
  type LacpPort,
  type Lacpdu,
} from './state';

/** 6.4.9 update_Selected: another partner, or one with other parameters, is selected for anew. */
function updateSelected(port: LacpPort, { actor }: Lacpdu): void {
  if (!sameParticipant(actor, port.partner)) port.selected = 'UNSELECTED';
}

/** 6.4.9 update_Default_Selected. */
function updateDefaultSelected(port: LacpPort): void {
  if (!sameParticipant(NOBODY, port.partner)) port.selected = 'UNSELECTED';
}

/** 6.4.9 update_NTT: the partner has an old picture of this port. */
function updateNTT(port: LacpPort, { partner: seen }: Lacpdu): void {
  const { state } = port.actor;
  const stale = (['activity', 'timeout', 'synchronization', 'aggregation'] as const).some(
    (bit) => seen.state[bit] !== state[bit],
  );
  if (stale || !sameParticipant(seen, port.actor)) port.ntt = true;
}

/** 6.4.9 recordPDU: the partner is in step only where it means this very port. */
function recordPDU(port: LacpPort, { actor, partner: seen }: Lacpdu): void {
  const means = sameParticipant(seen, port.actor) || !actor.state.aggregation;
  const keptAlive = actor.state.activity || (port.actor.state.activity && seen.state.activity);
  port.partner = {
    ...actor,
    state: { ...actor.state, synchronization: actor.state.synchronization && means && keptAlive },
  };
  setActor(port, { defaulted: false });
}

/** 6.4.9 recordDefault. */
function recordDefault(port: LacpPort): void {
  port.partner = NOBODY;
  setActor(port, { defaulted: true });
}

export function receive(port: LacpPort, now: Micros): boolean {
  if (!port.portEnabled) {
    port.received = null;
    if (port.rx === 'PORT_DISABLED' && port.portMoved) {
      port.portMoved = false; // INITIALIZE: nothing is left of the partner that is elsewhere now
      port.selected = 'UNSELECTED';
      recordDefault(port);
      setActor(port, { expired: false });
      return true;
    }
    if (port.rx === 'PORT_DISABLED') return false;
    port.rx = 'PORT_DISABLED';
    port.currentWhile = Infinity;
    setPartner(port, { synchronization: false });
    setActor(port, { expired: false });
    return true;
  }
  if (port.received && port.rx !== 'PORT_DISABLED') {
    const lacpdu = port.received;
    port.received = null;
    port.rx = 'CURRENT';
    updateSelected(port, lacpdu);
    updateNTT(port, lacpdu);
    recordPDU(port, lacpdu);
    port.currentWhile = now + (port.actor.state.timeout ? SHORT_TIMEOUT_TIME : LONG_TIMEOUT_TIME);
    setActor(port, { expired: false });
    return true;
  }
  const over = port.currentWhile <= now;
  if (port.rx === 'PORT_DISABLED' || (port.rx === 'CURRENT' && over)) {
    port.rx = 'EXPIRED';
    setPartner(port, { synchronization: false, timeout: true });
    port.currentWhile = now + SHORT_TIMEOUT_TIME;
    setActor(port, { expired: true });
    return true;
  }
  if (port.rx === 'EXPIRED' && over) {
    port.rx = 'DEFAULTED';
    port.currentWhile = Infinity;
    updateDefaultSelected(port);
    recordDefault(port);
    setActor(port, { expired: false });
    return true;
  }
  return false;
}
