/** One spanning tree mode for the whole design: its switches and those to come. */
import type { Command } from '../../edit/commands';
import { isMultiple, runsTrees, traitsOf, type Design, type Dialect } from '../../model/document';
import { freshRegion, joining, keepingTrees, mainRegion } from './asDialect';

/**
 * Commands that make every switch with spanning tree run `mode`, and new ones as well. With MSTP all get the region settings
 * that most have, or new ones: where VLANs had trees of their own, with an instance for each way in which they were set.
 */
export function modeForAll(design: Design, mode: Dialect): Command[] {
  const later: Command[] = design.mode === mode ? [] : [{ do: 'set-mode', mode }];
  const running = design.switches.filter(runsTrees);
  if (!isMultiple({ dialect: mode })) {
    const others = running.filter((sw) => sw.dialect !== mode);
    return [...later, ...others.map((sw): Command => ({ do: 'set-switch', switch: sw.id, dialect: mode }))];
  }
  const region = mainRegion(design) ?? design.regions[0];
  if (region)
    return [
      ...later,
      ...joining(
        design,
        region.id,
        running.map((sw) => sw.id),
      ),
    ];
  if (running.some((sw) => traitsOf(sw.dialect).trees === 'vlan')) return [...later, ...keepingTrees(design).commands];
  const fresh = freshRegion(design, []);
  return [
    ...later,
    { do: 'add-region', region: fresh },
    ...joining(
      design,
      fresh.id,
      running.map((sw) => sw.id),
    ),
  ];
}

/** The mode of all switches that run spanning tree; null where they differ. Of a design without any, that of new ones. */
export function modeOf(design: Design): Dialect | null {
  const [first = design.mode ?? 'rstp', ...others] = new Set(design.switches.filter(runsTrees).map((sw) => sw.dialect));
  return others.length > 0 ? null : first;
}
