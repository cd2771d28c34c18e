/** The tables are the only lists of keys: whatever field they have is written, read, compared, told, and solved again where they say so. */
import fc from 'fast-check';
import { fernhollow, valleyStation } from '../../demo/demos';
import { anyDesign, regionsDesign } from '../../testing/networks';
import { bundledDesign } from '../../testing/bundles';
import { changedIn, furnished, placesIn, valueFor, withValue, type FieldPlace } from '../../testing/variants';
import { simulate } from '../../sim/simulate';
import { solve } from '../../tree/solve';
import { viewTree, type Solution } from '../../tree/settled';
import { resolve } from '../../tree/resolve';
import { BUNDLE_MODES, type Design } from '../document';
import { readDesignText } from '../read';
import { settingDifferences } from './compare';
import { dirtyBetween } from './dirty';
import { writeDesign } from './write';
import { tries } from '../../testing/runs';

const view = ({ network, trees }: Solution) => trees.map((tree) => viewTree(network, tree));

/** What a design says: LACP settings that hold nothing but defaults say nothing. */
const meantBy = (design: Design): string => writeDesign(design).replaceAll('"lacp": {}', '').replaceAll(/[\s,]/g, '');

/** Networks of every kind, with whatever a design may hold. */
const anything = fc
  .oneof(anyDesign, regionsDesign(6), bundledDesign({ modes: BUNDLE_MODES, cables: 2 }), fc.constant(valleyStation()))
  .chain((design) => furnished(design, 5));

/** The demo, and what it has none of. */
function fullDesign(): Design {
  let design = fernhollow();
  const put = (path: (string | number)[], value: unknown): void => {
    const next = withValue(design, path, value);
    if (!next) throw new Error(`cannot set ${path.join('.')}`);
    design = next;
  };
  const [a, b] = [design.switches[0]!, design.switches[1]!];
  put(['regions'], [{ id: 'r1', name: 'ONE', instances: [{ id: 1, vlans: '15' }] }]);
  put(['groups'], [{ id: 'g2', kind: 'floor', within: 'g1' }, { id: 'g1', name: 'North' }, { id: 'g3' }]);
  put(['switches', 0, 'group'], 'g2');
  const free = a.ports.filter((port) =>
    design.links.every((link) => link.a.port !== port.id || link.a.switch !== a.id),
  );
  put(['bundles'], [...design.bundles, { id: 'spare', switch: a.id, number: 77, ports: [free.at(-1)!.id] }]);
  const spare = Array.from({ length: 12 }, (_, i) => ({ id: String(i + 1), number: i + 1 }));
  put(['switches'], [...design.switches, { id: 'spare', mac: '02:4b:00:00:00:f0', ports: spare }]);
  put(['switches', 0, 'lacp'], { systemPriority: 5 });
  put(['switches', 0, 'ports', 0, 'lacp'], { priority: 5, key: 9 });
  put(['hosts', 0, 'bundle'], { mode: 'passive' });
  put(['observed'], [{ switch: a.id, port: '1', device: b.id }]);
  return design;
}

const full = fullDesign();
const byField = new Map<string, FieldPlace[]>();
for (const place of placesIn(full)) byField.set(place.field, [...(byField.get(place.field) ?? []), place]);

const before = solve(full);

describe.each([...byField])('%s', (field, places) => {
  /** Some ways to set it otherwise, at several of its places. */
  const variants = places
    .slice(0, 6)
    .flatMap((place) =>
      fc
        .sample(valueFor(full, place), { numRuns: tries(12), seed: 7 })
        .flatMap((value) => withValue(full, place.path, value) ?? []),
    )
    .filter((other) => writeDesign(other) !== writeDesign(full));

  it('is written, read back, and compared as different', () => {
    expect(variants.length).toBeGreaterThan(0);
    for (const other of variants.slice(0, 4)) {
      expect(readDesignText(writeDesign(other))).toEqual({ ok: true, value: other });
      const differences = settingDifferences(full, other);
      expect(differences.length).toBeGreaterThan(0);
      for (const { on, setting, before, after } of differences) {
        expect(on).not.toBe('');
        expect(setting).not.toMatch(/undefined|something/);
        expect(before).not.toBe(after);
      }
    }
  });

  it('is read by trees or not, as its table says', () => {
    for (const other of variants.slice(0, 4)) {
      const after = solve(other);
      const { trees } = dirtyBetween(full, other);
      const mayMove = places[0]!.node.facts!.reads;
      // Of a group whose presence is told the fields inside speak for themselves.
      if (places[0]!.node.kind !== 'group') expect(trees === 'all').toBe(['trees', 'settings'].includes(mayMove));
      if (trees !== 'all')
        for (const tree of view(before))
          if (!trees.has(tree.id))
            expect({ field, tree: view(after).find((each) => each.id === tree.id) }).toEqual({ field, tree });
    }
  });
});

/** What happens in a few seconds from boot, with a link cut on the way: every change of every port, member and pair of hosts. */
function whatHappens(design: Design): unknown {
  const actions = [{ at: 4, do: 'link-down' as const, link: design.links[0]!.id, light: true }];
  const run = simulate(design, { actions, until: 6, talk: 0.5, fromBoot: true }, { mostFrames: 0, views: false });
  if (!run.ok) throw new Error(run.error);
  const { recording, outages, members, settledAt } = run.value;
  return {
    changes: recording.data(),
    outages: outages.map(({ start, end }) => [start, end]),
    marks: members.marks,
    settledAt,
  };
}
const happened = whatHappens(full);
const beside = [...byField].filter(([, places]) => ['nothing', 'layout'].includes(places[0]!.node.facts!.reads));

it.each(beside)('a run does not know of %s', (_, places) => {
  const [place] = places;
  const other = fc
    .sample(valueFor(full, place!), { numRuns: tries(12), seed: 7 })
    .flatMap((value) => withValue(full, place!.path, value) ?? [])[0]!;
  expect(dirtyBetween(full, other).run).toBe(false);
  expect(whatHappens(other)).toEqual(happened);
});

it('has a field for every key but identifiers', () => {
  const fields = [...byField.keys()];
  // The places of what is told as one value, and what tells things apart, are no fields of their own.
  expect(fields).toEqual(
    expect.arrayContaining([
      'name',
      'notes',
      'pathCost',
      'vlans.load',
      'switches.ports.speed',
      'links.delay',
      'bundles.hash',
      'hosts.bundle.mode',
      'hosts.attach',
      'scenarios.talk',
      'observed',
      'worksheets',
      'switches.trees.priority',
    ]),
  );
  expect(fields.length).toBeGreaterThan(60);
});

it('gives back what it wrote, whatever a design holds', () => {
  fc.assert(
    fc.property(anything, (design) => expect(readDesignText(writeDesign(design))).toEqual({ ok: true, value: design })),
    { numRuns: tries(15) },
  );
});

it('finds a difference wherever there is one, and the same one the other way round', () => {
  fc.assert(
    fc.property(
      anything.chain((design) => fc.tuple(fc.constant(design), changedIn(design))),
      ([before, after]) => {
        const there = settingDifferences(before, after);
        expect(there.length > 0).toBe(meantBy(before) !== meantBy(after));
        expect(settingDifferences(after, before).length).toBe(there.length);
      },
    ),
    { numRuns: tries(15) },
  );
});

it('gives what solving from scratch gives, whatever changed', () => {
  fc.assert(
    fc.property(
      anything.chain((design) => fc.tuple(fc.constant(design), changedIn(design))),
      ([before, after]) => {
        const [was, is] = [solve(before), solve(after)];
        const again = resolve(was, after);
        expect(view(again.solution)).toEqual(view(is));
      },
    ),
    { numRuns: tries(15) },
  );
});
