/** What a command may write is exactly what the document's schema accepts. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../demo/demos';
import { fromSchema, type Pools } from '../testing/fromSchema';
import { commandSchema, type Command } from './commands';
import { sentencesOf } from './describe';
import { editAll } from './edit';
import { problemText } from '../model/problem';
import { changeProblems, readDesign, readDesignText } from '../model/read';
import type { GroupId } from '../model/ids';
import { mostOf, type Design } from '../model/document';
import { stackField } from '../model/stack';
import { leanDesign, writeDesign } from '../model/derive/write';
import { tries } from '../testing/runs';

/** Texts and numbers that fit a design here and there, with some that fit nothing. */
function poolsOf(design: Design): Pools {
  const ids = [
    ...design.switches.slice(0, 3),
    ...design.links.slice(0, 2),
    ...design.bundles.slice(0, 2),
    ...design.hosts.slice(0, 2),
  ].map(({ id }) => id as string);
  const switches = [...design.switches.slice(0, 4).map(({ id }) => id as string), 'new', '__proto__'];
  return {
    texts: {
      tree: ['cst', 'vlan:15', 'mst:1', 'mst:0', 'vlan:9999', '__proto__'],
      switch: switches,
      root: switches,
      port: ['1', '2', '3', '99', 'constructor'],
      ports: ['1', '2', '3', '99'],
      mac: ['02:00:00:00:00:77', '02:AB:00:00:00:01', 'x'],
      vlans: ['15', '1-4094', '25, 15', '9-5', ''],
      allowed: ['15', '1-4094', ''],
      at: ['2026-11-23T10:00:00Z', 'today'],
      hash: ['2', 'layer 2+3', '9'],
      name: ['plain', '', 'two\nlines', 'é'.repeat(20)],
      region: design.regions.map(({ id }) => id as string).concat('none'),
      group: ['new', 'g1', 'g2', 'none'],
      within: ['g1', 'g2', 'none'],
      id: ['new', '__proto__', 'other', ...ids],
      link: [design.links[0]!.id, 'none'],
      bundle: [...design.bundles.map(({ id }) => id as string), 'none'],
      host: [...design.hosts.slice(0, 2).map(({ id }) => id as string), 'none'],
      intent: ['kept', 'none'],
      place: ['switches', 'lodge', 'name', '__proto__'],
      template: ['g1', 'none'],
      decision: ['g1', 'none'],
      scenario: ['new', ...design.scenarios.map(({ id }) => id)],
      device: ['lodge', 'other'],
      devicePort: ['1'],
      look: ['', 'here'],
    },
    numbers: {
      priority: [0, 4096, 128, 240, 5],
      vlan: [15, 25, 4095],
      cost: [1, 70_000, 65_535, 0],
      instance: [0, 1, 2, 4094],
      of: [1, 3],
      x: [0, 1.5],
      y: [0, -2],
    },
    other: { texts: ['a', '__proto__', ...ids], numbers: [1, 2, 15, 4094, 0.5, -1] },
  };
}

const stackOf = (count: number) =>
  stackField.parse({ members: Array.from({ length: count }, (_, i) => ({ id: i + 1, mac: `02:4b:00:00:01:0${i}` })) });

const grouped = ((): Design => {
  const demo = fernhollow();
  const groups = [{ id: 'g1' as GroupId }, { id: 'g2' as GroupId, within: 'g1' as GroupId }];
  return {
    ...demo,
    groups,
    decisions: [{ id: 'g1', rule: 'root-by-mac', at: { switch: 'lodge' }, decided: 'stays', why: 'kept' }],
    templates: [{ id: 'g1', name: 'kept', end: '.txt', text: '{{ name }}' }],
    intents: [{ id: 'kept', line: 'no finding', severity: 'must', note: '' }],
    switches: demo.switches.map((sw, i) => ({ ...sw, stack: stackOf(2), ...(i < 3 && { group: groups[i % 2]!.id }) })),
  };
})();
const designs = [grouped, valleyStation(), townOffice()];
const options = commandSchema.options;

it.each(options.map((option) => [[...option.shape.do.values][0]!, option] as const))(
  '%s leaves a document that is read back as it is, or is refused',
  (name, option) => {
    let taken = 0;
    for (const design of designs) {
      const commands = fc.array(fromSchema(option, poolsOf(design)), { minLength: 12, maxLength: 20 }).map((list) =>
        list.flatMap((each): Command[] => {
          const parsed = commandSchema.safeParse(each);
          return parsed.success ? [parsed.data] : [];
        }),
      );
      fc.assert(
        fc.property(commands, (list) => {
          // One after the other, past those that are refused: so that what is legal is seldom missed by chance.
          let edited = design;
          for (const command of list) {
            const after = editAll(edited, [command]);
            if (after.ok) edited = after.value.design;
          }
          if (edited === design) return;
          taken += 1;
          expect(readDesignText(writeDesign(edited))).toEqual({ ok: true, value: edited });
        }),
        { numRuns: tries(6) },
      );
    }
    // Things with many keys are seldom legal by chance; the plain ones must be taken, or nothing was tried.
    if (
      ![
        'add-switch',
        'add-port',
        'add-link',
        'add-bundle',
        'add-host',
        'add-region',
        'keep-worksheet',
        'keep-scenario',
        'keep-template',
        'set-region',
        'set-switch',
        'set-pair',
        'set-bundle',
        'forget-worksheets',
        'remove-instance',
        'set-link',
        'set-host',
        'put',
      ].includes(name)
    )
      expect(taken).toBeGreaterThan(0);
  },
);

/** The same design with ids that nobody could take for a name, and a name for everything that can have one. */
function withSecretIds(design: Design): Design {
  const listed = [design.switches, design.links, design.hosts, design.bundles, design.regions, design.groups];
  const ids = new Set(listed.flat().map(({ id }) => id as string));
  const secret = (value: unknown): unknown =>
    typeof value === 'string' && ids.has(value)
      ? `secret-${value}`
      : Array.isArray(value)
        ? value.map(secret)
        : value !== null && typeof value === 'object'
          ? Object.fromEntries(Object.entries(value).map(([key, each]) => [key, secret(each)]))
          : value;
  const named = (things: readonly { readonly id: string }[]) =>
    things.map((thing, i) => ({ ...thing, name: `Thing ${i}` }));
  const all = JSON.parse(JSON.stringify(secret(design))) as Design;
  const read = readDesign({
    ...(JSON.parse(writeDesign(all)) as object),
    switches: named(all.switches),
    hosts: named(all.hosts),
    groups: named(all.groups),
  });
  if (!read.ok) throw new Error(JSON.stringify(read.error));
  return read.value;
}

it('tells what a command does by names: no id of a switch, link, host, region or group is read', () => {
  let told = 0;
  for (const design of [grouped, valleyStation()].map(withSecretIds)) {
    const { texts, numbers } = poolsOf(design);
    // What is new has a name where it needs one, and no id of what is there.
    const pools = { texts: { ...texts, id: ['new'] }, numbers, other: { texts: ['a'], numbers: [1, 2, 15] } };
    for (const option of commandSchema.options) {
      const command = fromSchema(option, pools);
      fc.assert(
        fc.property(command, (each) => {
          const parsed = commandSchema.safeParse(each);
          if (!parsed.success || !editAll(design, [parsed.data]).ok) return;
          told += 1;
          for (const tense of ['done', 'to come'] as const)
            for (const sentence of sentencesOf(design, [parsed.data], tense)) expect(sentence).not.toContain('secret-');
        }),
        { numRuns: tries(40) },
      );
    }
  }
  expect(told).toBeGreaterThan(100);
});

it.each([
  { do: 'set-bridge-priority', priority: 0 },
  { do: 'set-port-cost', port: '1', cost: 3 },
  { do: 'set-port-priority', port: '1', priority: 16 },
])('$do takes no text as a tree', (rest) => {
  const taken = (tree: string): boolean => commandSchema.safeParse({ ...rest, switch: 'lodge', tree }).success;
  expect(['vlan:15', 'cst', 'mst:0', 'anything', 'vlan:0', 'vlan:4095', '__proto__', ''].filter(taken)).toEqual([
    'vlan:15',
    'cst',
    'mst:0',
  ]);
});

it('keeps no more scenarios than a document may hold, and says so', () => {
  const scenario = (n: number): Command =>
    commandSchema.parse({ do: 'keep-scenario', scenario: { id: `n${n}`, name: `n${n}`, actions: [] } });
  const full = editAll(
    fernhollow(),
    Array.from({ length: mostOf('scenarios') - fernhollow().scenarios.length }, (_, n) => scenario(n)),
  );
  if (!full.ok) throw new Error(problemText(full.error));
  expect(editAll(full.value.design, [scenario(1000)])).toEqual({
    ok: false,
    error: { path: 'scenarios', found: '101 scenarios', allowed: 'at most 100' },
  });
  expect(editAll(full.value.design, [scenario(5)]).ok).toBe(true);
});

it('asks the schema of what an edit changed alone, with the same answer as of the whole', () => {
  const spoil = (design: Design, change: (copy: Design) => void): Design => {
    const copy = { ...design, switches: [...design.switches], scenarios: [...design.scenarios] };
    change(copy);
    return copy;
  };
  const demo = fernhollow();
  const first = demo.switches[0]!;
  const put = (sw: object) => spoil(demo, (copy) => Object.assign(copy.switches, { 0: { ...first, ...sw } }));
  for (const next of [
    put({ priority: 3 }),
    put({ mac: 'x' }),
    put({ trees: { 'vlan:0': { priority: 0 } } }),
    put({ id: 'constructor' }),
    spoil(demo, (copy) => Object.assign(copy, { colour: 'red' })),
    spoil(demo, (copy) => Object.assign(copy, { name: '' })),
  ]) {
    const whole = readDesign(leanDesign(next));
    const parts = changeProblems(demo, next);
    expect(parts).not.toEqual([]);
    if (!('colour' in next)) expect(whole.ok ? [] : whole.error.map(problemText)).toEqual(parts.map(problemText));
  }
  expect(changeProblems(demo, put({ priority: 4096 }))).toEqual([]);
});
