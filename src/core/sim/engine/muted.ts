/** Ports whose frames no longer reach the other end, though there is light: a fibre that carries one way only. */
import type { Network } from '../../topology/network';

export class Muted {
  private readonly ports = new Set<number>();

  set(port: number, on: boolean): void {
    if (on) this.ports.add(port);
    else this.ports.delete(port);
  }

  has(aggregationPort: number): boolean {
    return this.ports.has(aggregationPort);
  }

  /** Whether what a bridge port sends reaches the other end. */
  carries({ live, transmitPort }: Network, port: number): boolean {
    return live[port] === 1 && !this.ports.has(transmitPort[port]!);
  }

  /** Whether what goes out of an aggregation port comes out of the cable. */
  arrives({ macOperational }: Network, aggregationPort: number): boolean {
    return macOperational[aggregationPort] === 1 && !this.ports.has(aggregationPort);
  }
}
