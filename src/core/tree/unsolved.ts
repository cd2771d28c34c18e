/** What this version cannot solve: said plainly rather than answered wrongly. */
import type { DesignProblem } from '../design/problem';
import type { Design } from '../design/schema';

/** The first thing in a design that this version's solver has no answer for, or null. */
export function unsolved(design: Design): DesignProblem | null {
  const mstp = design.switches.findIndex((sw) => sw.dialect === 'mstp');
  if (mstp >= 0) {
    return {
      path: `switches[${mstp}].dialect`,
      found: '"mstp", which this version can store but not solve yet',
      allowed: '"stp", "rstp", "per-vlan-stp", "per-vlan-rstp", "off"',
    };
  }
  return null;
}
