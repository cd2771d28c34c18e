/** Cables, power and ports while time runs: which ports have signal now. Starts as the design says. */
import type { Network } from '../tree/network';

export class Medium {
  readonly linkUp: boolean[];
  readonly switchUp: boolean[];
  readonly portUp: boolean[];
  /** Ports that a host's card is plugged into. */
  private readonly hosted: ReadonlySet<number>;

  constructor(readonly network: Network) {
    const { design, switches, ports } = network;
    this.linkUp = design.links.map((link) => link.up);
    this.switchUp = switches.map((sw) => sw.up);
    this.portUp = ports.map((port) => port.up);
    this.hosted = new Set(design.hosts.flatMap((host) => host.attach.map((at) => network.portIndexOf(at.switch, at.port))));
  }

  /** Whether a port has signal: itself and its switch up, and a host's card or a live far end at the other end of the cable. */
  live(p: number): boolean {
    if (!this.ready(p)) return false;
    const l = this.network.link[p]!;
    return l < 0 ? this.hosted.has(p) : this.linkUp[l]! && this.ready(this.network.far[p]!);
  }

  private ready(p: number): boolean {
    return this.portUp[p]! && this.switchUp[this.network.owner[p]!]!;
  }
}
