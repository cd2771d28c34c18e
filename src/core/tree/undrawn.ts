/** What the workbench and its studies cannot work with yet: said plainly rather than shown wrongly. The solver, the simulator and the command line can. */
import type { DesignProblem } from '../design/problem';
import type { Design } from '../design/schema';

/** The first thing in a design that the workbench cannot draw, or null. */
export function undrawn(design: Design): DesignProblem | null {
  const mstp = design.switches.findIndex((sw) => sw.dialect === 'mstp');
  if (mstp >= 0) {
    return {
      path: `switches[${mstp}].dialect`,
      found: '"mstp", which the workbench can store but not draw yet',
      allowed: '"stp", "rstp", "per-vlan-stp", "per-vlan-rstp", "off"',
    };
  }
  return null;
}
