/** Which switches folded groups stand for on the map now. In focus, and hung from the root, every switch is drawn itself. */
import { useMemo, useState } from 'react';
import type { Filled } from '../../core/analysis/groups/groups';
import { nameOf } from '../../core/model/names';
import { useWorkbench } from '../state/context';
import { mapGroups, UNGROUPED, type MapGroups } from '../state/folding';

export function useGrouping(): MapGroups {
  const design = useWorkbench((state) => state.design);
  const folded = useWorkbench((state) => state.folded);
  const plain = useWorkbench((state) => state.focus !== null || state.layout === 'hung');
  const [keep] = useState(keeper);
  return useMemo(() => {
    return keep(plain ? UNGROUPED : mapGroups(design, folded));
  }, [keep, design, folded, plain]);
}

/** Keeps what says the same as the last time: most edits leave groups alone. */
function keeper(): (now: MapGroups) => MapGroups {
  let last: { readonly text: string; readonly grouping: MapGroups } | null = null;
  const told = ({ group, switches, depth }: Filled): unknown => [group.id, nameOf(group), depth, switches];
  return (grouping) => {
    const text = JSON.stringify([[...new Set(grouping.stands.values())].map(told), grouping.open.map(told)]);
    if (last?.text !== text) last = { text, grouping };
    return last.grouping;
  };
}
