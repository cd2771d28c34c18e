/** The design that the map draws: the one in hand, and in the Break view what its scenario brings along. */
import { useMemo } from 'react';
import { oncePer } from '../../core/base/cache';
import { focused } from '../../core/analysis/focus/focus';
import type { SwitchId } from '../../core/model/ids';
import type { Design, Switch } from '../../core/model/document';
import { useInstant } from '../state/clock';
import { useWorkbench } from '../state/context';

/** The switches in focus; null where all are shown. What blocks and what leads to the root follow the trees. */
export function useFocused(): ReadonlySet<SwitchId> | null {
  const focus = useWorkbench((state) => state.focus);
  const design = useWorkbench((state) => state.design);
  const solution = useWorkbench((state) => (focus?.kind === 'around' ? null : state.solution));
  const shownTrees = useWorkbench((state) => state.shownTrees);
  return useMemo(
    () => (focus ? new Set(focused(design, focus, solution, shownTrees)) : null),
    [focus, design, solution, shownTrees],
  );
}

export function useMapDesign(): Design {
  const whole = useWorkbench((state) => state.design);
  const inFocus = useFocused();
  const design = useMemo(() => (inFocus ? onlyOf(whole, inFocus) : whole), [whole, inFocus]);
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

/** What of a design is between some of its switches. */
const onlyOf = (design: Design, shown: ReadonlySet<SwitchId>): Design => ({
  ...design,
  switches: design.switches.filter((sw) => shown.has(sw.id)),
  links: design.links.filter(({ a, b }) => shown.has(a.switch) && shown.has(b.switch)),
  hosts: design.hosts.filter((host) => host.attach.some((at) => shown.has(at.switch))),
});

/** Asked by every box at every change of the state. */
const byId = oncePer(
  (switches: readonly Switch[]): ReadonlyMap<SwitchId, Switch> => new Map(switches.map((sw) => [sw.id, sw])),
);

/** One switch of a design. */
export const mapSwitch = ({ switches }: Pick<Design, 'switches'>, id: SwitchId): Switch | undefined =>
  byId(switches).get(id);

/** One switch of the map's design. */
export function useMapSwitch(id: SwitchId): Switch | undefined {
  const own = useWorkbench((state) => mapSwitch(state.design, id));
  const arrived = useInstant((clock) => clock.arrivals?.switches.find((sw) => sw.id === id) ?? null);
  return own ?? arrived ?? undefined;
}
