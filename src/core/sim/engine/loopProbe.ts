/** Loop probe: a switch's own test frames go out of its ports at an interval, and are looked out for (trade practice). */
import { SECOND, type Micros } from '../../modes/entity';
import type { Network } from '../../topology/network';
import { probeReturn, probes, probeVlan } from '../../topology/shut';

export interface ProbedNetwork {
  readonly network: Network;
  readonly now: Micros;
  /** Puts something on the clock. */
  at(t: Micros, act: () => void): void;
  /** Whether frames of a VLAN pass a port now, and whether what it sends gets there. */
  passes(vid: number, port: number): boolean;
  carries(port: number): boolean;
}

/** Sends test frames for as long as the clock runs; `cameBack` is told the port at which one does. */
export function probeLoops(around: ProbedNetwork, cameBack: (port: number) => void): void {
  const { switches, firstPort } = around.network;
  for (const [s, sw] of switches.entries()) {
    const own = sw.ports.map((_, i) => firstPort[s]! + i).filter((p) => probes(around.network, p));
    if (own.length > 0) probeLater(around, own, sw.probeInterval * SECOND, cameBack);
  }
}

function probeLater(
  around: ProbedNetwork,
  own: readonly number[],
  interval: Micros,
  cameBack: (port: number) => void,
): void {
  around.at(around.now + interval, () => {
    const { network } = around;
    for (const p of own) {
      const vid = probeVlan(network.ports[p]!);
      const back = probeReturn(network, p, (q) => around.passes(vid, q) && around.carries(q));
      if (back < 0) continue;
      cameBack(back);
      break; // with this one stopped, the others may have no loop
    }
    probeLater(around, own, interval, cameBack);
  });
}
