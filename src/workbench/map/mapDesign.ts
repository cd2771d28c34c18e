/** The design that the map draws: the one in hand, and in the Break lens what its scenario brings along. */
import { useMemo } from 'react';
import type { SwitchId } from '../../core/model/ids';
import type { Design, Switch } from '../../core/model/document';
import { useInstant } from '../state/clock';
import { useWorkbench } from '../state/context';

export function useMapDesign(): Design {
  const design = useWorkbench((state) => state.design);
  const arrivals = useInstant((clock) => clock.arrivals);
  return useMemo(() => {
    if (!arrivals) return design;
    const there = new Set([...design.switches, ...arrivals.switches].map((sw) => sw.id));
    return {
      ...design,
      switches: [...design.switches, ...arrivals.switches],
      links: [...design.links, ...arrivals.links.filter(({ a, b }) => there.has(a.switch) && there.has(b.switch))],
    };
  }, [design, arrivals]);
}

/** One switch of the map's design. */
export function useMapSwitch(id: SwitchId): Switch | undefined {
  const own = useWorkbench((state) => state.design.switches.find((sw) => sw.id === id));
  const arrived = useInstant((clock) => clock.arrivals?.switches.find((sw) => sw.id === id) ?? null);
  return own ?? arrived ?? undefined;
}
