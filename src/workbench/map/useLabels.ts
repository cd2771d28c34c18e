/** Which labels the links in view have room for; what has not changed keeps its identity, so that its link is not drawn again. */
import { useMemo, useState } from 'react';
import type { Link } from '../../core/model/document';
import type { LinkId } from '../../core/model/ids';
import { useWorkbench } from '../state/context';
import { useBundles } from '../state/useBundles';
import { bandsOf, pointsAlong } from './bundleBands';
import type { Box, Line } from './drawn';
import { labelledSheaf, type Sheaf } from './sheaf';
import type { Rectangle } from './occupied';
import { placeLabels, type LinkLabels } from './labels';
import { drawnLink, linkText } from './linkStrands';

/** A link in view. */
export interface NearLink {
  readonly link: Link;
  readonly line: Line;
  readonly speed: number;
}

export function useLabels(
  near: readonly NearLink[],
  links: readonly Link[],
  lines: readonly Line[],
  boxes: readonly Box[],
  sheaves: readonly Sheaf[],
  kept: readonly Rectangle[],
): ReadonlyMap<LinkId, LinkLabels> {
  const solution = useWorkbench((state) => state.solution);
  const shownTrees = useWorkbench((state) => state.shownTrees);
  const moved = useWorkbench((state) => state.moved);
  const lens = useWorkbench((state) => state.lens);
  const cabling = lens === 'Cable';
  // While things break any link may have to say so.
  const mayBreak = lens === 'Break';
  const { bundles, settled } = useBundles();
  const bands = useMemo(
    () => bandsOf(links, lines, bundles, settled).flatMap(({ points }) => pointsAlong(points)),
    [links, lines, bundles, settled],
  );
  const [keep] = useState(keeper);
  return useMemo(() => {
    const labelled = near.map(({ link, line, speed }) => {
      const drawn = drawnLink({ solution, shownTrees, moved, lens }, link);
      const { strands } = drawn;
      const text = linkText(link, speed, drawn, cabling);
      return { line, strands: cabling ? [] : strands, text, reserves: text === null && mayBreak ? 'no signal' : null };
    });
    return keep(placeLabels([...labelled, ...sheaves.map(labelledSheaf)], boxes, bands, kept));
  }, [keep, near, sheaves, kept, boxes, bands, solution, shownTrees, moved, lens, cabling, mayBreak]);
}

function keeper(): (now: Map<LinkId, LinkLabels>) => Map<LinkId, LinkLabels> {
  let before = new Map<LinkId, { readonly text: string; readonly labels: LinkLabels }>();
  return (now) => {
    before = new Map(
      [...now].map(([id, labels]) => {
        const text = JSON.stringify(labels);
        const old = before.get(id);
        return [id, old?.text === text ? old : { text, labels }];
      }),
    );
    return new Map([...before].map(([id, { labels }]) => [id, labels]));
  };
}
