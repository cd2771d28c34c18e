/** Links cut and plugged in again, one after the other. */
import type { Design } from '../model/document';
import type { Micros } from '../modes/entity';
import type { Simulation } from '../sim/engine/simulation';

/** Each turn cuts a link, or plugs it in again; once the network has had `rest`, `look` is told of the design as it is then. */
export function turnLinks(
  sim: Simulation,
  design: Design,
  turns: readonly number[],
  rest: Micros,
  look: (now: Design) => void,
): void {
  let now = design;
  for (const turn of design.links.length > 0 ? turns : []) {
    const l = turn % design.links.length;
    now = { ...now, links: now.links.map((link, i) => (i === l ? { ...link, up: !link.up } : link)) };
    sim.follow(now);
    sim.runTo(sim.now + rest);
    look(now);
  }
}
