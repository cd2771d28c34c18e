'use client';
/** Beside each switch how many of its edges are open to a stranger, and how many guards harm, where there is room to say so. */
import { memo, useMemo } from 'react';
import { protectionOf } from '../../../core/analysis/guards/protection';
import type { SwitchId } from '../../../core/model/ids';
import type { LayerProps } from '../../map/geometry';
import { Tags } from '../../map/tags';
import { useFollowing } from '../../state/context';

export const OpenEdges = memo(function OpenEdges({ boxes, lines }: LayerProps) {
  const solution = useFollowing((state) => state.solution);
  const texts = useMemo(() => {
    const counts = new Map<SwitchId, { open: number; harms: number }>();
    for (const { switch: sw, lead, verdict } of solution ? protectionOf(solution) : []) {
      const own = counts.get(sw) ?? { open: 0, harms: 0 };
      if (lead === 'edge' && verdict === 'open') own.open += 1;
      if (verdict === 'harms') own.harms += 1;
      counts.set(sw, own);
    }
    return new Map(
      [...counts].flatMap(([id, { open, harms }]) => {
        const parts = [
          ...(open > 0 ? [`${open} open`] : []),
          ...(harms > 0 ? [`${harms} ${harms === 1 ? 'harms' : 'harm'}`] : []),
        ];
        return parts.length > 0 ? [[id, parts.join(', ')] as const] : [];
      }),
    );
  }, [solution]);
  return <Tags texts={texts} mark="data-open" boxes={boxes} lines={lines} />;
});
