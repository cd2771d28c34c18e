/** A design held against a network that does what it says has nothing to tell; against another, what is other, and why. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../../demo/demos';
import { editAll } from '../../../edit/edit';
import type { Command } from '../../../edit/commands';
import type { Design } from '../../../model/document';
import type { SwitchId, TreeId } from '../../../model/ids';
import { namesOf } from '../../../model/derive/names';
import { bundledDesign } from '../../../testing/bundles';
import { anyDesign } from '../../../testing/networks';
import { observedAtRest } from '../../../testing/observed';
import { withPair } from '../../../testing/pairs';
import { tries } from '../../../testing/runs';
import { solve } from '../../../tree/solve';
import { compareObserved, type Comparison } from './compare';
import { differenceText } from './difference';
import { readObservation } from '../observation';

const held = (design: Design, there: Design): Comparison => compareObserved(solve(design), observedAtRest(there));
const texts = (design: Design, { differences }: Comparison): string[] =>
  differences.map((each) => differenceText(namesOf(design), each));
const after = (design: Design, ...commands: Command[]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const demo = fernhollow();
const id = (name: string): SwitchId => name as SwitchId;

it('has nothing to say of a network that is as designed', () => {
  for (const design of [demo, valleyStation()]) {
    const comparison = held(design, design);
    expect(texts(design, comparison)).toEqual([]);
    expect(comparison.compared).toBeGreaterThan(100);
  }
  fc.assert(
    fc.property(anyDesign, (design) => expect(texts(design, held(design, design))).toEqual([])),
    { numRuns: tries(40) },
  );
});

it('names another root with the setting that made it so, before what follows from it', () => {
  const designed = after(demo, {
    do: 'set-bridge-priority',
    switch: id('ridge-a'),
    tree: 'vlan:25' as TreeId,
    priority: 4096,
  });
  const all = texts(designed, held(designed, demo));
  expect(all[0]).toMatch(
    /^ridge-a: root in VLAN 25: lodge, as 7 switches tell; the design says ridge-a \(ridge-a is set to 32768, the design says 4096\)$/,
  );
  expect(all.filter((text) => text.includes('it follows from the other root')).length).toBeGreaterThan(0);
  expect(all.at(-1)).toContain('bridge priority');
});

it('names cables, members and VLANs that are other', () => {
  const [link] = demo.links;
  const without = after(demo, { do: 'remove-link', link: link!.id });
  const all = texts(demo, held(demo, without));
  expect(all.some((text) => /cable: nobody is seen there; the design says/.test(text))).toBe(true);
  const vlans = after(demo, {
    do: 'set-port',
    switch: id('ridge-a'),
    port: '3' as never,
    vlans: { mode: 'trunk', native: 1 as never, allowed: '1,15' },
  });
  expect(texts(demo, held(demo, vlans))).toContain('ridge-a port 3: VLANs: 1,15; the design says 1,15,25,35,45,55,65');
});

it('tells of switches that nobody has read, and of those that the design does not have', () => {
  const all = observedAtRest(demo);
  const [first, ...rest] = all.switches;
  const stranger = { ...first!, name: 'nobody', mac: '02:99:00:00:00:01', chassis: null };
  const { differences, matches } = compareObserved(solve(demo), { ...all, switches: [stranger, ...rest] });
  expect(matches.unseen.map(({ id: sw }) => sw)).toEqual([first!.source]);
  expect(differences.slice(0, 2).map(({ harm }) => harm)).toEqual(['silent', 'silent']);
});

it('finds a switch again by its name where its address is another', () => {
  const all = observedAtRest(demo);
  const renumbered = all.switches.map((sw, i) => (i === 0 ? { ...sw, mac: '02:99:00:00:00:01', chassis: null } : sw));
  const { matches } = compareObserved(solve(demo), { ...all, switches: renumbered });
  expect(matches.pairs.filter(({ by }) => by === 'name')).toHaveLength(1);
  expect(matches.unknown).toEqual([]);
});

it('of a pair and a stack differs in nothing, either', () => {
  const town = townOffice();
  expect(held(town, town).compared).toBeGreaterThan(100);
  expect(texts(town, held(town, town))).toEqual([]);
  fc.assert(
    fc.property(withPair(fc.oneof(anyDesign, bundledDesign({ modes: ['active', 'passive'] }))), (design) => {
      fc.pre(design !== null);
      expect(texts(design!, held(design!, design!))).toEqual([]);
    }),
    { numRuns: tries(20) },
  );
});

it('reads its file again, and says what is none', () => {
  const all = observedAtRest(demo);
  expect(readObservation(JSON.stringify(all))).toEqual({ ok: true, value: all });
  for (const [text, found] of [
    ['{', 'This is no observation: found'],
    [JSON.stringify({ ...all, version: 2 }), 'version: found 2'],
    [JSON.stringify({ ...all, switches: [{}] }), 'switches.0'],
  ] as const)
    expect(readObservation(text)).toMatchObject({ ok: false, error: expect.stringContaining(found) as string });
});

it('names an MST configuration that is another', () => {
  const station = valleyStation();
  const there = after(station, { do: 'set-region', region: 'valley' as never, revision: 5 });
  const all = texts(station, held(station, there));
  expect(all.filter((text) => text.includes('MST configuration'))).toHaveLength(6);
  expect(all[0]).toContain('MST configuration: "VALLEY", revision 5, 1: 15,35,65,75');
});
