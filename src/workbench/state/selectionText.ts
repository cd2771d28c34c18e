import { treesName } from '../../core/model/ids';
import { roleOf, treeOf } from '../../core/tree/settled';
import { itemsOf, switchesIn } from './selection';
import type { Workbench } from './workbench';

/** What is selected in a few words, for the palette and for people who hear the screen. */
export function selectionText(state: Workbench): string {
  const items = itemsOf(state.selection);
  const [first] = items;
  if (!first) return '';
  if (items.length > 1)
    return `${items.length} things selected, ${switchesIn(state.selection).length} of them switches`;
  const { design, solution, shownTrees } = state;
  const nameOf = (id: string) => design.switches.find((sw) => sw.id === id)?.name ?? id;
  switch (first.kind) {
    case 'switch':
      return `switch ${nameOf(first.switch)}`;
    case 'host':
      return `host ${design.hosts.find((host) => host.id === first.host)?.name ?? first.host}`;
    case 'link': {
      const link = design.links.find((l) => l.id === first.link);
      return link
        ? `link from ${nameOf(link.a.switch)} port ${link.a.port} to ${nameOf(link.b.switch)} port ${link.b.port}`
        : '';
    }
    case 'port': {
      const link = design.links.find(({ a, b }) =>
        [a, b].some((end) => end.switch === first.switch && end.port === first.port),
      );
      const far = link && (link.a.switch === first.switch && link.a.port === first.port ? link.b : link.a);
      const p = solution?.network.portIndexOf(first.switch, first.port) ?? -1;
      const roles =
        p < 0
          ? []
          : shownTrees.flatMap((id) => {
              const tree = solution ? treeOf(solution, id) : undefined;
              const role = tree ? roleOf(tree, p) : null;
              return role ? [`${role === 'root' ? 'root port' : role} in ${treesName([id])}`] : [];
            });
      return [
        `${nameOf(first.switch)} port ${first.port}`,
        far ? `to ${nameOf(far.switch)} port ${far.port}` : 'nothing plugged in',
        ...roles,
      ].join(', ');
    }
  }
}
