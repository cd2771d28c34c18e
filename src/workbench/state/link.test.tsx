/** A link shows again what was shown, as far as it is still there. */
import fc from 'fast-check';
import { fernhollow } from '../../core/demo/demos';
import type { Item } from './selection';
import { followLink, linkTo } from './link';
import { LENSES } from './lens';
import { renderWith } from '../testing';

it('shows again the view, the trees and the selection, and clears the address', async () => {
  const design = fernhollow();
  const items: Item[] = [
    ...design.switches.map((sw): Item => ({ kind: 'switch', switch: sw.id })),
    ...design.links.map((link): Item => ({ kind: 'link', link: link.id })),
    ...design.hosts.map((host): Item => ({ kind: 'host', host: host.id })),
    { kind: 'port', switch: design.switches[0]!.id, port: design.switches[0]!.ports[0]!.id },
  ];
  const from = await renderWith(<i />, design);
  const to = await renderWith(<i />, design);
  const trees = from.getState().solution!.trees.map(({ id }) => id);
  await fc.assert(
    fc.asyncProperty(
      fc.constantFrom(...LENSES),
      fc.subarray(trees, { minLength: 1, maxLength: 4 }),
      fc.constantFrom(...items),
      async (lens, shown, item) => {
        from.getState().setLens(lens);
        shown.forEach((tree, i) => from.getState().showTree(tree, i === 0 ? 'alone' : 'toggle'));
        from.getState().select(item);
        const link = linkTo(from.getState());
        await followLink(to, link.slice(link.indexOf('?')));
        const { lens: view, shownTrees, selection } = to.getState();
        expect([view, shownTrees, selection]).toEqual([lens, from.getState().shownTrees, item]);
        expect(window.location.search).toBe('');
      },
    ),
    { numRuns: 20 },
  );
});

it('passes over what is not there, and what is no link', async () => {
  const store = await renderWith(<i />);
  const before = store.getState();
  await followLink(
    store,
    '?view=Nowhere&trees=vlan:999,cst&selected=switch/nobody&selected=port/lodge&selected=%25&revision=x',
  );
  await followLink(store, '');
  const { lens, shownTrees, selection, looking } = store.getState();
  expect([lens, shownTrees, selection, looking]).toEqual([before.lens, before.shownTrees, null, before.looking]);
});
