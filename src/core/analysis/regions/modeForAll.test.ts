import fc from 'fast-check';
import { planLines } from '../../cabling/plan';
import { editAll } from '../../edit/edit';
import { freshSwitch } from '../../edit/fresh';
import { SPOKEN, isMultiple, runsTrees, type Design } from '../../model/document';
import { anyDesign, designOf } from '../../testing/networks';

import { modeForAll, modeOf } from './modeForAll';
import { regionsInUse } from './mapping';

const changed = (design: Design, mode: (typeof SPOKEN)[0]): Design => {
  const edited = editAll(design, modeForAll(design, mode));
  if (!edited.ok) throw new Error(JSON.stringify(edited.error));
  return edited.value.design;
};

describe('one mode for all', () => {
  it('is what every switch with spanning tree runs, and the next new one', () =>
    fc.assert(
      fc.property(anyDesign, fc.constantFrom(...SPOKEN), (design, mode) => {
        const after = changed(design, mode);
        expect(modeOf(after)).toBe(mode);
        expect(after.switches.filter((sw) => !runsTrees(sw))).toEqual(design.switches.filter((sw) => !runsTrees(sw)));
        const { command } = freshSwitch(after, { x: 0, y: 0 });
        expect(command).toMatchObject({ switch: { dialect: mode } });
        if (isMultiple({ dialect: mode })) expect(regionsInUse(after).length).toBeLessThanOrEqual(1);
        expect(modeForAll(after, mode)).toEqual([]);
      }),
      { numRuns: 60 },
    ));

  it('holds for a design without switches: those to come share one region', () => {
    const empty = changed(designOf({}), 'mstp');
    expect(modeOf(empty)).toBe('mstp');
    const cabled = editAll(empty, planLines(empty, 'a 1 = b 1').commands);
    if (!cabled.ok) throw new Error('not cabled');
    const { switches, regions } = cabled.value.design;
    expect(switches.map(({ dialect, region }) => [dialect, region])).toEqual([
      ['mstp', regions[0]!.id],
      ['mstp', regions[0]!.id],
    ]);
  });
});
