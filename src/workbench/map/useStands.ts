/** Which switches folded groups stand for on the map now. In focus, and hung from the root, every switch is drawn itself. */
import { useMemo, useState } from 'react';
import { standIns, type Filled } from '../../core/analysis/groups/groups';
import type { SwitchId } from '../../core/model/ids';
import { nameOf } from '../../core/model/names';
import { useWorkbench } from '../state/context';
import { groupsOf } from '../state/folding';

type Stands = ReadonlyMap<SwitchId, Filled>;

export interface Grouping {
  readonly stands: Stands;
  /** Groups that are drawn open, the outer ones first. */
  readonly open: readonly Filled[];
}

export function useGrouping(): Grouping {
  const design = useWorkbench((state) => state.design);
  const folded = useWorkbench((state) => state.folded);
  const plain = useWorkbench((state) => state.focus !== null || state.layout === 'hung');
  const [keep] = useState(keeper);
  return useMemo(() => {
    if (plain) return keep({ stands: new Map(), open: [] });
    const groups = groupsOf(design);
    const stands = standIns(groups, folded);
    const open = groups.filter(
      ({ group, switches }) => !folded.has(group.id) && switches.some((id) => !stands.has(id)),
    );
    return keep({ stands, open });
  }, [keep, design, folded, plain]);
}

/** Keeps what says the same as the last time: most edits leave groups alone. */
function keeper(): (now: Grouping) => Grouping {
  let last: { readonly text: string; readonly grouping: Grouping } | null = null;
  const told = ({ group, switches, depth }: Filled): unknown => [group.id, nameOf(group), depth, switches];
  return (grouping) => {
    const text = JSON.stringify([[...new Set(grouping.stands.values())].map(told), grouping.open.map(told)]);
    if (last?.text !== text) last = { text, grouping };
    return last.grouping;
  };
}
