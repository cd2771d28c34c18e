/** Periodic Transmission machine (IEEE 802.1AX-2020 6.4.13, figure 6-19): how often a port speaks unasked. */
import type { Micros } from '../entity';
import { FAST_PERIODIC_TIME, SLOW_PERIODIC_TIME, type LacpPort } from './state';

export function periodicTransmission(port: LacpPort, now: Micros): boolean {
  const { actor, partner } = port;
  const silent = !port.portEnabled || (!actor.state.activity && !partner.state.activity);
  const wanted = silent ? 'NO_PERIODIC' : partner.state.timeout ? 'FAST_PERIODIC' : 'SLOW_PERIODIC';
  const over = port.periodicTimer <= now;
  if (wanted === port.periodic && !over) return false;
  // PERIODIC_TX: a timer has run out, or the partner wants to hear more often from now on.
  if (wanted !== 'NO_PERIODIC' && (over || (port.periodic === 'SLOW_PERIODIC' && wanted === 'FAST_PERIODIC')))
    port.ntt = true;
  port.periodic = wanted;
  port.periodicTimer =
    wanted === 'NO_PERIODIC' ? Infinity : now + (wanted === 'FAST_PERIODIC' ? FAST_PERIODIC_TIME : SLOW_PERIODIC_TIME);
  return true;
}
