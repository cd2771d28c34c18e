import fc from 'fast-check';
import { editAll } from '../../edit/edit';
import { BUNDLE_MODES } from '../../model/document';
import { networkOf } from '../../testing/networks';
import { bundlesOf } from '../../topology/lag/ends';
import { modePair, type EndMode } from '../../topology/lag/modes';
import { settleBundles } from '../../topology/lag/settled';
import { bundleThese } from './bundling';
import { pairCommands } from './setModes';

const pairOf = () => {
  const bare = networkOf({ a: {}, b: {} }, ['a 1 = b 1', 'a 2 = b 2']);
  const made = bundleThese(
    bare,
    bare.links.map((link) => link.id),
  );
  if (!made.ok) throw new Error(made.error);
  const edited = editAll(bare, made.value.commands);
  if (!edited.ok) throw new Error('not bundled');
  return edited.value.design;
};

it('any pair of modes can be set, in one step, and comes to what the matrix says of it', () => {
  const design = pairOf();
  fc.assert(
    fc.property(fc.constantFrom(...BUNDLE_MODES), fc.constantFrom<EndMode>(...BUNDLE_MODES, 'none'), (a, b) => {
      const { ends } = bundlesOf(design);
      const commands = pairCommands(design, [ends[0]!, ends[1]!], [a, b])!;
      const edited = editAll(design, commands);
      if (!edited.ok) throw new Error('refused');
      const after = bundlesOf(edited.value.design);
      expect(after.ends.map(({ mode }) => mode)).toEqual(b === 'none' ? [a] : [a, b]);
      const up = settleBundles(after).ends[0]!.up;
      expect(up).toBe(modePair(a, b).outcome === 'up' || a === 'static');
      // An end without a bundle gets none by this.
      if (b === 'none') expect(pairCommands(edited.value.design, [after.ends[0]!, null], [a, 'active'])).toBeNull();
    }),
  );
});
