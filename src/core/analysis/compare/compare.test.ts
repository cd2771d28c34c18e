import { settingDifferences } from '../../model/derive/compare';
import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { commandSchema } from '../../edit/commands';
import { editAll } from '../../edit/edit';
import { anyDesign, solutionOf } from '../../testing/networks';
import type { Design } from '../../model/document';
import { compareDesigns } from './compare';
import { tries } from '../../testing/runs';

const demo = fernhollow();
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;
const after = (...commands: object[]): Design => {
  const edited = editAll(
    demo,
    commands.map((command) => commandSchema.parse(command)),
  );
  if (!edited.ok) throw new Error(edited.error.path);
  return edited.value.design;
};

describe('comparing', () => {
  it('a thing with itself finds nothing', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        const twin = copy(design);
        expect(compareDesigns(design, twin, [solutionOf(design), solutionOf(twin)])).toEqual({
          settings: [],
          ends: [],
          trees: [],
        });
      }),
      { numRuns: tries(30) },
    );
  });

  it('finds something wherever two designs are not the same, and the same things the other way round', () => {
    fc.assert(
      fc.property(anyDesign, anyDesign, (a, b) => {
        const there = settingDifferences(a, b);
        const facts = (design: Design) => JSON.stringify({ ...design, vlans: [] });
        expect(there.length > 0).toBe(facts(a) !== facts(b));
        const other = (setting: string) =>
          setting === 'added' ? 'taken away' : setting === 'taken away' ? 'added' : setting;
        const turned = settingDifferences(b, a).map(
          ({ setting, before, after: is }) => `${other(setting)} ${is} ${before}`,
        );
        expect(turned.sort()).toEqual(
          there.map(({ setting, before, after: is }) => `${setting} ${before} ${is}`).sort(),
        );
      }),
      { numRuns: tries(30) },
    );
  });

  it('names settings and ends', () => {
    const changed = after(
      { do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: 4096 },
      { do: 'set-link', link: 'l1', up: false },
      { do: 'set-host', host: 'duty-desk', vlan: 55 },
      { do: 'remove-vlan', vlan: 65 },
    );
    const { settings, ends, trees } = compareDesigns(demo, changed, [solutionOf(demo), solutionOf(changed)]);
    expect(settings.map(({ on, setting, before, after: is }) => `${on}: ${setting} ${before} -> ${is}`)).toEqual([
      'VLAN 65: taken away name Management; load, Mb/s 25 -> null',
      'ridge-a: priority in VLAN 15 as for all trees -> 4096',
      'ridge-a port 1 to ridge-b port 1: cable up -> cut',
      'host Duty desk: VLAN 45 -> 55',
    ]);
    expect(ends.filter((end) => end.tree === 'vlan:15').length).toBeGreaterThan(5);
    expect(trees).toEqual([{ tree: 'vlan:65', only: 'before' }]);
  });
});
