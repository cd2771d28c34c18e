/** Beside the conversations: islands of the network, each shaded as one, and on links between them what a tree is taken for there. */
import { memo, useMemo } from 'react';
import { islandsOf, type Island } from '../../../core/analysis/dialects/islands';
import type { LinkId } from '../../../core/model/ids';
import type { Box, LayerProps, Line } from '../../map/geometry';
import { endsIn, type EndsOf } from '../../map/shades/ends';
import { Shades, type Shade } from '../../map/shades/Shades';
import { useWorkbench } from '../../state/context';

/** One shade for each island, those of one switch too. */
export function islandShades(
  islands: readonly Island[],
  boxes: readonly Box[],
  lines: readonly Line[],
  endsOf: EndsOf,
): Shade[] {
  const at = new Map(boxes.map((box) => [box.id, box]));
  return islands.map(({ kind, label, switches }, i) => {
    const own = new Set(switches);
    return {
      key: String(i),
      label,
      colour: COLOURS[kind],
      boxes: switches.flatMap((id) => at.get(id) ?? []),
      lines: lines.filter(({ link }) => endsOf(link as LinkId)?.every((id) => own.has(id))),
    };
  });
}

const COLOURS: Record<Island['kind'], string> = {
  vlans: 'var(--accent)',
  region: 'var(--strand-4)',
  common: 'var(--ink-soft)',
};

export const IslandOutlines = memo(function IslandOutlines(props: LayerProps) {
  const asked = useWorkbench((state) => state.rides !== null);
  return asked ? <Outlines {...props} /> : null;
});

function Outlines({ boxes, lines }: LayerProps) {
  const network = useWorkbench((state) => state.solution?.network);
  const links = useWorkbench((state) => state.design.links);
  const found = useMemo(() => (network ? islandsOf(network) : null), [network]);
  const shades = useMemo(
    () => (found && found.islands.length > 1 ? islandShades(found.islands, boxes, lines, endsIn(links)) : []),
    [found, boxes, lines, links],
  );
  const labelOf = useMemo(() => (link: LinkId) => found?.borders.get(link) ?? null, [found]);
  return shades.length > 0 ? <Shades shades={shades} labelOf={labelOf} boxes={boxes} lines={lines} /> : null;
}
