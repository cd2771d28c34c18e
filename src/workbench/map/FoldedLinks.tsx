'use client';
/** The links between folded groups, as sheaves: a band, in it each tree shown, cut where all of its links block, and how many there are. */
import { memo, useMemo } from 'react';
import type { Link } from '../../core/model/document';
import type { LinkId } from '../../core/model/ids';
import { useInstant } from '../state/clock';
import { useWorkbench, useWorkbenchStore } from '../state/context';
import { isSelected, selectionOf, type Item } from '../state/selection';
import { means } from '../ui/means';
import { counted } from '../../core/base/words';
import type { Line } from './drawn';
import type { LinkLabels } from './labels';
import { courseOf } from './run';
import { BAND, SheafDrawing, sheafOf, type Sheaf } from './sheaf';

/** The sheaves among lines, counted in the trees shown. */
export function useSheaves(lines: readonly Line[], sheaves: ReadonlyMap<LinkId, readonly Link[]>): readonly Sheaf[] {
  const settled = useWorkbench((state) => (state.lens === 'Cable' ? null : state.solution));
  const solution = useInstant((clock) => clock.picture) ?? settled;
  const shownTrees = useWorkbench((state) => state.shownTrees);
  return useMemo(
    () =>
      lines.flatMap((line) => {
        const links = sheaves.get(line.link);
        return links ? [sheafOf(line, links, solution, shownTrees)] : [];
      }),
    [lines, sheaves, solution, shownTrees],
  );
}

export const FoldedLinks = memo(function FoldedLinks({
  sheaves,
  labels,
}: {
  readonly sheaves: readonly Sheaf[];
  readonly labels: ReadonlyMap<LinkId, LinkLabels>;
}) {
  return sheaves.map((sheaf) => <SheafView key={sheaf.line.link} sheaf={sheaf} labels={labels.get(sheaf.line.link)} />);
});

function SheafView({ sheaf, labels }: { readonly sheaf: Sheaf; readonly labels: LinkLabels | undefined }) {
  const { line, links, trees } = sheaf;
  const store = useWorkbenchStore();
  const selected = useWorkbench(({ selection }) =>
    links.every((link) => isSelected(selection, { kind: 'link', link: link.id })),
  );
  const path = courseOf(line, 0).path(0, 0);
  return (
    <g data-sheaf={links.length} data-blocked={trees.map(({ block }) => block).join()}>
      {selected && <path d={path} stroke="var(--accent)" strokeOpacity={0.35} strokeWidth={BAND + 8} fill="none" />}
      <SheafDrawing sheaf={sheaf} labels={labels} />
      <path
        d={path}
        stroke="transparent"
        strokeWidth={BAND + 8}
        fill="none"
        pointerEvents="stroke"
        style={{ cursor: 'pointer' }}
        onClick={(event) => {
          const items = links.map((link): Item => ({ kind: 'link', link: link.id }));
          const { select, pick } = store.getState();
          if (means(event) === 'alone') select(selectionOf(items));
          else for (const item of items) pick(item, 'more');
        }}
      >
        <title>{[counted(links.length, 'link'), ...trees.map(told)].join('; ')}</title>
      </path>
    </g>
  );
}

const told = ({ name, carry, block }: Sheaf['trees'][0]): string => `${name}: ${carry} carry it, ${block} block`;
