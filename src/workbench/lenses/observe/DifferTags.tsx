'use client';
/** Beside each switch in how many things the network is other than designed there. */
import { memo, useMemo } from 'react';
import type { SwitchId } from '../../../core/model/ids';
import type { LayerProps } from '../../map/geometry';
import { Tags } from '../../map/tags';
import { useComparison } from '../../state/observation';

export const DifferTags = memo(function DifferTags({ boxes, lines }: LayerProps) {
  const comparison = useComparison();
  const texts = useMemo(() => {
    const counts = new Map<SwitchId, number>();
    for (const { switch: sw } of comparison?.differences ?? [])
      if (sw !== null) counts.set(sw, (counts.get(sw) ?? 0) + 1);
    return new Map([...counts].map(([id, count]) => [id, `${count} other`] as const));
  }, [comparison]);
  return <Tags texts={texts} mark="data-other" boxes={boxes} lines={lines} />;
});
