/** What is taken over makes the design like the network: row by row, until nothing is other that a setting could mend. */
import { fernhollow, valleyStation } from '../../../demo/demos';
import { editAll } from '../../../edit/edit';
import type { Command } from '../../../edit/commands';
import type { Design } from '../../../model/document';
import { namesOf } from '../../../model/derive/names';
import type { SwitchId } from '../../../model/ids';
import { observedAtRest } from '../../../testing/observed';
import { solve } from '../../../tree/solve';
import type { Observation } from '../observation';
import { allTakenOver } from './allTaken';
import { compareObserved } from './compare';
import { differenceText } from './difference';

const after = (design: Design, commands: readonly Command[]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const left = (design: Design, observation: Observation): string[] =>
  compareObserved(solve(design), observation).differences.map((each) => differenceText(namesOf(design), each));

/** Takes every row over that can be, one after the other, as long as there is one. */
function takenOver(design: Design, observation: Observation): Design {
  for (let rounds = 0; rounds < 100; rounds += 1) {
    const rows = compareObserved(solve(design), observation).differences;
    const commands = rows.map(({ takeOver }) => takeOver?.() ?? []).find((each) => each.length > 0);
    if (!commands) return design;
    design = after(design, commands);
  }
  throw new Error('it does not come to an end');
}

const at = (id: string): { switch: SwitchId } => ({ switch: id as SwitchId });
const demo = fernhollow();
const station = valleyStation();
const linkOf = (design: Design, from: string) => design.links.find(({ a }) => a.switch === from)!;

const networks: readonly (readonly [what: string, designed: Design, there: readonly Command[]])[] = [
  ['a root', demo, [{ do: 'set-bridge-priority', ...at('lodge'), tree: 'vlan:15' as never, priority: 0 }]],
  ['a cost', demo, [{ do: 'set-port-cost', ...at('ridge-a'), port: '3' as never, tree: 'vlan:25' as never, cost: 77 }]],
  ['an external cost', station, [{ do: 'set-port-cost', ...at('mill-a'), port: '1' as never, tree: null, cost: 77 }]],
  ['a cable that is gone', demo, [{ do: 'remove-link', link: linkOf(demo, 'ridge-a').id }]],
  ['a cable that is cut', demo, [{ do: 'set-link', link: linkOf(demo, 'ridge-b').id, up: false }]],
  ['a port that is down', demo, [{ do: 'set-port', ...at('ridge-a'), port: '3' as never, up: false }]],
  ['a speed', demo, [{ do: 'set-link', link: linkOf(demo, 'ridge-a').id, speed: 100 }]],
  [
    'VLANs',
    demo,
    [{ do: 'set-port', ...at('ridge-a'), port: '3' as never, vlans: { mode: 'trunk', native: 15, allowed: '1,15' } }],
  ],
  ['a bundle that is not there', demo, demo.bundles.map(({ id }) => ({ do: 'remove-bundle', bundle: id }))],
  ['an MST configuration', station, [{ do: 'set-region', region: 'valley' as never, revision: 5 }]],
  ['timers', station, [{ do: 'set-switch', ...at('mill-a'), timers: { hello: 1, maxAge: 30 } }]],
  ['a mode', demo, [{ do: 'set-switch', ...at('lodge'), dialect: 'rstp' }]],
];

it.each(networks)('takes over %s', (_, designed, commands) => {
  const observation = observedAtRest(after(designed, commands));
  expect(left(designed, observation)).not.toEqual([]);
  expect(left(takenOver(designed, observation), observation)).toEqual([]);
});

it('takes over ports, VLANs and bundles that the design does not have', () => {
  const observation = observedAtRest(demo);
  const bundle = demo.bundles.find((each) => each.switch === 'ridge-b')!;
  const poorer = after(demo, [
    ...demo.bundles.map(({ id }): Command => ({ do: 'remove-bundle', bundle: id })),
    ...bundle.ports.slice(0, 1).map((port): Command => ({ do: 'remove-port', ...at('ridge-b'), port })),
    { do: 'remove-vlan', vlan: 65 },
  ]);
  expect(left(poorer, observation).join()).toContain('VLAN 65: on 8 switches; the design says no such VLAN');
  const again = after(poorer, allTakenOver(poorer, observation));
  expect(left(again, observation)).toEqual([]);
  expect(again.bundles).toHaveLength(demo.bundles.length);
});

it('takes over a switch that the design does not have, with its cables', () => {
  const observation = observedAtRest(demo);
  const without = after(demo, [{ do: 'remove-switch', ...at('ridge-b') }]);
  const again = takenOver(without, observation);
  expect(left(again, observation)).toEqual([]);
  expect(again.links).toHaveLength(demo.links.length);
});

it('takes nothing over from those who were not read', () => {
  const all = observedAtRest(demo);
  const commands = allTakenOver(demo, { ...all, switches: all.switches.slice(0, 1) });
  expect(commands).toEqual([]);
});

it('changes nothing where all is as designed', () => expect(takenOver(demo, observedAtRest(demo))).toBe(demo));

it('takes all of it over at once', () => {
  const there = after(
    demo,
    networks
      .filter(([what, designed]) => designed === demo && what !== 'VLANs' && what !== 'a speed')
      .flatMap(([, , commands]) => commands),
  );
  const observation = observedAtRest(there);
  const commands = allTakenOver(demo, observation);
  expect(commands.length).toBeGreaterThan(5);
  expect(left(after(demo, commands), observation)).toEqual([]);
  expect(allTakenOver(after(demo, commands), observation)).toEqual([]);
});
