/** A network that is watched: nothing is told of one that rests, and every change of one that does not. */
import fc from 'fast-check';
import { fernhollow } from '../../../demo/demos';
import type { Command } from '../../../edit/commands';
import { editAll } from '../../../edit/edit';
import type { Design } from '../../../model/document';
import { SECOND } from '../../../modes/entity';
import { Simulation } from '../../../sim/engine/simulation';
import { anyDesign } from '../../../testing/networks';
import { observedAtRest } from '../../../testing/observed';
import { tries } from '../../../testing/runs';
import { compileNetwork } from '../../../topology/network';
import { treesOf } from '../../../topology/trees';
import { observeRun } from '../ofRun';
import type { Observation } from '../observation';
import { asDesigned, UNDESIGNED } from './asDesigned';
import { bandOf } from './band';
import { eventsBetween, grownBy, rootsOf, type WatchEvent } from './events';
import { keptOf, readAgain, type Kept } from './kept';
import { readRule, RULE_EXAMPLES } from './rules';
import { syslogMessage } from './syslog';
import { WatchState } from './watch';

const demo = fernhollow();
const after = (design: Design, ...commands: Command[]): Design => {
  const done = editAll(design, commands);
  if (!done.ok) throw new Error(done.error.found);
  return done.value.design;
};
const cut = after(demo, { do: 'set-link', link: demo.links[0]!.id, up: false });
const rooted = after(demo, {
  do: 'set-bridge-priority',
  switch: 'ridge-a' as never,
  tree: 'vlan:15' as never,
  priority: 4096,
});
const dark = after(demo, { do: 'set-switch', switch: 'workshop' as never, up: false });
const [rest, restCut, restRooted, restDark] = [demo, cut, rooted, dark].map(observedAtRest) as [
  Observation,
  Observation,
  Observation,
  Observation,
];
const texts = (events: readonly WatchEvent[]): string[] => events.map(({ text }) => text);

it('tells nothing of a network that rests', () => {
  fc.assert(
    fc.property(anyDesign, (design) => {
      const observation = observedAtRest(design);
      expect(eventsBetween(observation, { ...observation, at: 'later' })).toEqual([]);
    }),
    { numRuns: tries(20) },
  );
});

it('tells of a cable that is cut at both its ends, and of it again', () => {
  const [near, far] = [cut.links[0]!.a, cut.links[0]!.b];
  const gone = texts(eventsBetween(rest, restCut));
  for (const end of [near, far]) expect(gone).toContain(`${end.switch} port${end.port} has lost its signal.`);
  const again = texts(eventsBetween(restCut, rest));
  for (const end of [near, far]) expect(again).toContain(`${end.switch} port${end.port} has signal again.`);
});

it('tells by which port a topology change came, where agents count that', () => {
  const [first] = rest.switches;
  const counted = (changes: number, forwards: number): Observation => ({
    ...rest,
    switches: [
      {
        ...first!,
        trees: first!.trees.slice(0, 1).map((tree) => ({
          ...tree,
          topologyChanges: changes,
          ports: tree.ports.map((port) => ({ ...port, forwards: port.port === 3 ? forwards : 1 })),
        })),
      },
    ],
  });
  expect(texts(eventsBetween(counted(4, 1), counted(6, 3)))).toEqual([
    'ridge-a counts 2 topology changes more in VLAN 1, where port3 began to forward.',
  ]);
  expect(texts(eventsBetween(counted(4, 1), counted(5, 1)))).toEqual([
    'ridge-a counts 1 topology change more in VLAN 1.',
  ]);
});

it('tells of another root once, whoever tells of it', () => {
  const events = eventsBetween(rest, restRooted);
  const roots = events.filter(({ kind }) => kind === 'root');
  expect(roots).toMatchObject([{ was: 'lodge', is: 'ridge-a', trees: ['vlan:15'] }]);
  expect(roots[0]!.text).toBe('VLAN 15: ridge-a is the root, no longer lodge.');
});

it('tells who is silent first of all, and who answers again', () => {
  expect(texts(eventsBetween(rest, restDark))[0]).toBe('workshop does not answer.');
  expect(texts(eventsBetween(restDark, rest))[0]).toBe('workshop answers.');
});

/** Each moved port of a tree is told, however many a moment has. */
it('accounts for every port that is another, at any two moments of a run', () => {
  const simulation = new Simulation(compileNetwork(demo), treesOf(demo));
  simulation.boot();
  const moments: Observation[] = [];
  for (let second = 0; second < 60; second += 3) {
    simulation.runTo(second * SECOND);
    const switches = observeRun(simulation, demo, () => ({ count: second, at: 0 }));
    moments.push({ format: 'knot-path-observation', version: 1, at: '', switches, leftOut: [] });
  }
  const states = ({ switches }: Observation): Map<string, string> =>
    new Map(
      switches.flatMap((sw) =>
        sw.trees.flatMap(({ tree, ports }) =>
          ports.map((port) => [`${sw.name} ${port.port} ${tree}`, `${port.role} ${port.state}`] as const),
        ),
      ),
    );
  fc.assert(
    fc.property(fc.constantFrom(...moments), fc.constantFrom(...moments), (was, is) => {
      const [before, now] = [states(was), states(is)];
      const moved = [...now].filter(([key, state]) => before.get(key) !== state).map(([key]) => key);
      const told = eventsBetween(was, is)
        .filter(({ kind }) => kind === 'port')
        .flatMap(({ switch: sw, port, trees }) => trees.map((tree) => `${sw!} ${port!} ${tree}`));
      expect([...new Set(told)].sort()).toEqual(moved.sort());
      expect(told).toHaveLength(moved.length);
    }),
    { numRuns: tries(60) },
  );
});

it('counts on over the end of a counter, and from nothing after a restart', () => {
  expect(grownBy(3, 5)).toBe(2);
  expect(grownBy(2 ** 32 - 1, 1)).toBe(2);
  expect(grownBy(100, 4)).toBe(4);
});

it('keeps readings as what has changed, and gives each of them again', () => {
  const all = [rest, restCut, rest, restDark, restRooted, rest];
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...all), { minLength: 1, maxLength: 8 }), fc.nat(4), (readings, whole) => {
      const kept: Kept[] = [];
      readings.forEach((reading, i) => {
        kept.push(keptOf(i % (whole + 1) === 0 ? null : readings[i - 1]!, reading));
        expect(readAgain(kept, reading.at)!.switches).toEqual(
          [...reading.switches].sort((a, b) => (a.name < b.name ? -1 : 1)),
        );
      });
    }),
    { numRuns: tries(60) },
  );
  expect(keptOf(rest, rest).switches).toEqual([]);
  expect(keptOf(rest, restCut).switches.length).toBeLessThan(rest.switches.length);
});

describe('rules', () => {
  const given = (...lines: string[]) =>
    lines.map((text) => {
      const rule = readRule(text);
      if (!rule.ok) throw new Error(rule.error);
      return { text, rule: rule.value };
    });
  const ruleTexts = (events: readonly WatchEvent[]): string[] => texts(events.filter(({ kind }) => kind === 'rule'));

  it('are read as they are written, and refused with what may be said', () => {
    for (const line of RULE_EXAMPLES) expect(readRule(line).ok).toBe(true);
    expect(readRule('more than 3 topology changes in 2 days')).toMatchObject({ ok: false });
    expect(readRule('root of VLAN 15 is ridge-a')).toMatchObject({
      ok: false,
      error: expect.stringContaining('found "root of VLAN 15 is ridge-a"; allowed: rules such as') as string,
    });
  });

  it('speak up once, and say when that is over', () => {
    const state = new WatchState(given('root of VLAN 15 is not lodge', 'a switch does not answer'));
    const take = (observation: Observation, at: number) => ruleTexts(state.take(observation, at, UNDESIGNED));
    expect(take(rest, 0)).toEqual([]);
    expect(take(restRooted, 1)).toEqual([
      'Rule: root of VLAN 15 is not lodge. The root of VLAN 15 is ridge-a, not lodge.',
    ]);
    expect(take(restRooted, 2)).toEqual([]);
    expect(take(rest, 3)).toEqual(['No longer: root of VLAN 15 is not lodge.']);
    expect(take(restDark, 4)).toEqual(['Rule: a switch does not answer. workshop does not answer.']);
  });

  it('count topology changes over their time, also over a restart', () => {
    const rules = given('more than 3 topology changes in a minute');
    const changed = (more: number): Observation => ({
      ...rest,
      switches: rest.switches.map((sw) => ({
        ...sw,
        trees: sw.trees.map((tree) => ({ ...tree, topologyChanges: tree.topologyChanges + more })),
      })),
    });
    const first = new WatchState(rules, rest);
    const events = first.take(changed(2), 1000, UNDESIGNED);
    expect(ruleTexts(events)).toEqual([]);
    const second = new WatchState(
      rules,
      changed(2),
      events.map((event) => ({ at: 1000, event })),
    );
    expect(ruleTexts(second.take(changed(4), 2000, UNDESIGNED))).toHaveLength(1);
    expect(ruleTexts(second.take(changed(4), 90_000, UNDESIGNED))).toEqual([
      'No longer: more than 3 topology changes in a minute.',
    ]);
  });

  it('hold the network against the design and its intents', () => {
    const meant = after(demo, { do: 'add-intent', intent: { id: 'i1', line: 'lodge is root of vlan 15' } as never });
    const state = new WatchState(given('something is not as designed', 'an intent no longer holds'));
    const take = (observation: Observation) =>
      ruleTexts(
        state.take(
          observation,
          0,
          asDesigned(() => meant, observation),
        ),
      );
    expect(take(rest)).toEqual([]);
    const spoken = take(restRooted);
    expect(spoken).toHaveLength(2);
    expect(spoken[0]).toMatch(/^Rule: something is not as designed\. Not as designed: /);
    expect(spoken[1]).toMatch(/^Rule: an intent no longer holds\. It no longer holds: lodge/);
  });
});

it('lays events out over time', () => {
  const events = [
    { at: 10, event: eventsBetween(rest, restRooted).find(({ kind }) => kind === 'root')! },
    { at: 20, event: eventsBetween(rest, restDark)[0]! },
    { at: 30, event: eventsBetween(restDark, rest)[0]! },
  ];
  const roots = new Map([...rootsOf(restRooted)].map(([tree]) => [tree, tree === 'vlan:15' ? 'ridge-a' : 'lodge']));
  const band = bandOf(events, roots, 0, 40);
  expect(band.roots).toContainEqual({
    name: 'VLAN 15',
    spans: [
      { from: 0, to: 10, text: 'lodge' },
      { from: 10, to: 40, text: 'ridge-a' },
    ],
  });
  expect(band.roots).toHaveLength(2);
  expect(band.silent).toEqual([{ name: 'workshop', spans: [{ from: 20, to: 30, text: 'silent' }] }]);
  expect(band.marks.map(({ at, kind }) => [at, kind])).toEqual([
    [10, 'root'],
    [20, 'silent'],
    [30, 'back'],
  ]);
});

it('lays out how ports and bundles stood, alike whether it is told in one step or in several', () => {
  const { switch: sw, ports: members } = demo.bundles.find((each) => each.switch === 'ridge-b')!;
  const restThinner = observedAtRest(after(demo, { do: 'set-port', switch: sw, port: members[0]!, up: false }));
  const readings = [rest, restCut, restRooted, restThinner, rest];
  const events = readings.flatMap((reading, i) =>
    eventsBetween(readings[i - 1] ?? null, reading).map((event) => ({ at: i * 10, event })),
  );
  const { ports, bundles } = bandOf(events, new Map(), 0, 50);
  expect(ports.length).toBeGreaterThan(5);
  for (const { source, port, trees, stretches } of ports)
    for (const tree of trees)
      readings.forEach((reading, i) => {
        const told = reading.switches
          .find((sw) => sw.source === source)!
          .trees.find((each) => each.tree === tree)!
          .ports.find((each) => each.port === port)!;
        const { role, state } = stretches.find(({ from, to }) => from <= i * 10 && to > i * 10)!;
        expect([source, port, tree, role, state]).toEqual([source, port, tree, told.role, told.state]);
      });
  expect(bundles.map(({ spans }) => spans.map(({ text }) => text))).toEqual([
    ['2 members active', '1 member active', '2 members active'],
  ]);
});

it('is a message of syslog', () =>
  expect(
    syslogMessage({ kind: 'root', text: 'A "root" moved.', switch: 'a]b' }, '2026-01-01T00:00:00.000Z', 'desk'),
  ).toBe(
    '<131>1 2026-01-01T00:00:00.000Z desk knot-path - root [event@32473 kind="root" switch="a\\]b"] \uFEFFA "root" moved.',
  ));
