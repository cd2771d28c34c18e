/** Draws maps of a design, one after the other, for a page that has the colours and fonts itself. */
import { foldableGroups, standIns } from '../../../core/analysis/groups/groups';
import type { Draw } from '../../../core/exchange/report/html';
import type { Design } from '../../../core/model/document';
import type { SwitchId } from '../../../core/model/ids';
import { solve } from '../../../core/tree/solve';
import type { PictureOf } from './pictureOf';
import { pictureText } from './svgText';

/** Longest title, in characters. */
const LONGEST = 120;

/** Switches that are drawn each by itself; of more, groups are folded to boxes. */
const MOST_OPEN = 60;

/** `before`: what is drawn as it was; null where nothing is. */
export function drawer(design: Design, before: Design | null): Draw {
  const now = pictureOf(design);
  const was = before && pictureOf(before);
  return (trees, of, title) =>
    pictureText({ ...(of === 'before' && was ? was : now), trees, title: title.slice(0, LONGEST) });
}

function pictureOf(design: Design): PictureOf {
  const groups = foldableGroups(design);
  const folded = design.switches.length > MOST_OPEN;
  return {
    design,
    solution: solve(design),
    trees: [],
    stands: folded ? standIns(groups, new Set(groups.map(({ group }) => group.id))) : new Map<SwitchId, never>(),
    open: folded || design.groups.length === 0 ? [] : groups,
    scale: 1,
    title: '',
    css: '',
  };
}
