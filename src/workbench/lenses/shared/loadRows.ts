/** The loads of links as rows, for the chart and for the table. */
import { treesName, treeVlan, type LinkId, type TreeId } from '../../../core/model/ids';
import type { Design } from '../../../core/model/document';
import type { LinkLoad, Loads } from '../../../core/analysis/sharing/load';
import { speedText } from '../../ui/words/units';

export interface LoadRow {
  readonly id: LinkId;
  readonly link: string;
  readonly speed: string;
  /** Per cent of the speed. */
  readonly percent: number;
  readonly load: string;
  readonly trees: string;
  readonly state: string;
  /** Per cent of the speed before the proposal that is looked at; null without one. */
  readonly was: number | null;
  /** Per cent of the speed by tree. */
  readonly byTree: Readonly<Record<string, number>>;
}

/** `5.3 Gb/s`, `48 Mb/s`. */
export const loadText = (load: number): string => speedText(Number(load.toPrecision(load >= 1000 ? 3 : 2)));

/** `ridge-a 1 = ridge-b 1`, by the names of switches. */
export function linkNames(design: Design): Map<LinkId, string> {
  const names = new Map(design.switches.map((sw) => [sw.id, sw.name ?? sw.id]));
  return new Map(
    design.links.map(({ id, a, b }) => [id, `${names.get(a.switch)} ${a.port} = ${names.get(b.switch)} ${b.port}`]),
  );
}

/** One row a link, the most loaded first; those that carry nothing last. */
export function loadRows(design: Design, { links }: Loads, before: Loads | null): LoadRow[] {
  const names = linkNames(design);
  const was = new Map(before?.links.map((each) => [each.link, each.share * 100]));
  return links
    .map((each): LoadRow => ({
      id: each.link,
      link: names.get(each.link) ?? each.link,
      speed: speedText(each.speed),
      percent: each.share * 100,
      load: loadText(each.total),
      trees: [...each.byTree].map(([tree, load]) => `${shortName(tree)}: ${loadText(load)}`).join(', '),
      state: stateText(each),
      was: before ? (was.get(each.link) ?? 0) : null,
      byTree: Object.fromEntries([...each.byTree].map(([tree, load]) => [tree, (load / each.speed) * 100])),
    }))
    .sort((x, y) => y.percent - x.percent || (y.was ?? 0) - (x.was ?? 0) || x.link.localeCompare(y.link));
}

const stateText = ({ state, total }: LinkLoad): string =>
  state === 'idle' ? 'idle' : state === 'down' ? 'no signal' : total > 0 ? 'carries' : 'carries no load';

/** `15`, or the tree's whole name. */
export const shortName = (tree: TreeId): string => String(treeVlan(tree) ?? treesName([tree]));

/** `552 %`; one digit below 10. */
export const percentText = (percent: number): string =>
  `${percent >= 10 || percent === 0 ? Math.round(percent) : percent.toFixed(1)} %`;
