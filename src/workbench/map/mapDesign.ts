/** The design that the map draws: the one in hand, and in the Break lens what its scenario brings along. */
import { useMemo } from 'react';
import type { Design } from '../../core/design/schema';
import { useInstant } from '../state/clock';
import { useWorkbench } from '../state/context';

export function useMapDesign(): Design {
  const design = useWorkbench((state) => state.design);
  const stage = useInstant((clock) => clock.player?.film.stage ?? null);
  return useMemo(() => {
    if (!stage) return design;
    const switches = stage.switches.filter((sw) => !design.switches.some((each) => each.id === sw.id));
    const links = stage.links.filter((link) => !design.links.some((each) => each.id === link.id));
    if (switches.length + links.length === 0) return design;
    const there = new Set([...design.switches, ...switches].map((sw) => sw.id));
    return { ...design, switches: [...design.switches, ...switches], links: [...design.links, ...links.filter(({ a, b }) => there.has(a.switch) && there.has(b.switch))] };
  }, [design, stage]);
}
