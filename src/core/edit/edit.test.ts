import fc from 'fast-check';
import { fernhollow } from '../demo/demos';
import { anyDesign } from '../testing/networks';
import { commandSchema, type Command } from './commands';
import { describeCommand, describeCommands } from './describe';
import { applyChange, edit, editAll, replaceDesign } from './edit';
import { readDesignText } from '../model/read';
import type { Design } from '../model/document';
import { writeDesign } from '../model/derive/write';
import { parts, tries } from '../testing/runs';

const demo = fernhollow();
const command = (input: object): Command => commandSchema.parse(input);

/** A random command on a design; some name what is not there. */
function commandsFor(design: Design): fc.Arbitrary<Command> {
  const sw = fc.constantFrom(...design.switches.map((s) => s.id), 'nobody');
  const tree = fc.constantFrom(null, 'cst', 'vlan:15');
  const port = fc.constantFrom('1', '2', '99');
  const link = fc.constantFrom(...design.links.map((l) => l.id), 'nothing');
  return fc
    .oneof(
      fc.record({
        do: fc.constant('rename-design'),
        name: fc.string({ minLength: 1, maxLength: 9 }).filter((s) => s.trim() !== ''),
      }),
      fc.record({
        do: fc.constant('set-switch'),
        switch: sw,
        name: fc.constantFrom('x', 'y'),
        dialect: fc.constantFrom('stp', 'rstp', 'off'),
      }),
      fc.record({ do: fc.constant('set-bridge-priority'), switch: sw, tree, priority: fc.constantFrom(null, 0, 4096) }),
      fc.record({ do: fc.constant('set-port'), switch: sw, port, up: fc.boolean(), speed: fc.constantFrom(100, 1000) }),
      fc.record({
        do: fc.constant('set-port-cost'),
        switch: sw,
        port,
        tree,
        cost: fc.constantFrom(null, 1, 65_535, 70_000),
      }),
      fc.record({
        do: fc.constant('set-port-priority'),
        switch: sw,
        port,
        tree,
        priority: fc.constantFrom(null, 0, 240),
      }),
      fc.record({ do: fc.constant('set-link'), link, up: fc.boolean() }),
      fc.record({ do: fc.constant('set-link'), link, delay: fc.constantFrom(null, 1, 900) }),
      fc.record({
        do: fc.constant('keep-scenario'),
        scenario: fc.record({
          id: fc.constantFrom('s1', 'root-link'),
          name: fc.constantFrom('Cut', 'Cut again'),
          look: fc.constant(''),
          actions: fc.constant([]),
          until: fc.constantFrom(1, 60),
          talk: fc.constant(0.01),
          fromBoot: fc.boolean(),
        }),
      }),
      fc.record({ do: fc.constant('forget-scenario'), scenario: fc.constantFrom('s1', 'root-link', 'none') }),
      fc.record({ do: fc.constant('remove-link'), link }),
      fc.record({
        do: fc.constant('set-switch'),
        switch: sw,
        up: fc.boolean(),
        pathCost: fc.constantFrom(null, 'short', 'long'),
      }),
      fc.record({ do: fc.constant('set-port'), switch: sw, port, number: fc.integer({ min: 1, max: 9 }) }),
      fc.record({ do: fc.constant('set-link'), link, a: fc.record({ switch: sw, port }) }),
      fc.record({ do: fc.constant('remove-port'), switch: sw, port }),
      fc.record({
        do: fc.constant('add-host'),
        host: fc.record({
          id: fc.constantFrom('h', 'i'),
          mac: fc.constant('02:00:00:00:ff:01'),
          attach: fc.array(fc.record({ switch: sw, port }), { maxLength: 2 }),
        }),
      }),
      fc.record({
        do: fc.constant('set-host'),
        host: fc.constantFrom('h', 'i'),
        vlan: fc.integer({ min: 1, max: 40 }),
        attach: fc.array(fc.record({ switch: sw, port }), { maxLength: 2 }),
      }),
      fc.record({
        do: fc.constant('set-host'),
        host: fc.constantFrom('h', 'i'),
        bundle: fc.constantFrom(null, { mode: 'passive' }),
      }),
      fc.record({
        do: fc.constant('add-bundle'),
        bundle: fc.record({
          id: fc.constantFrom('u', 'v', '1'),
          switch: sw,
          number: fc.integer({ min: 1, max: 2 }),
          ports: fc.constantFrom(['1'], ['1', '2'], ['2'], ['99']),
        }),
      }),
      fc.record({
        do: fc.constant('set-bundle'),
        bundle: fc.constantFrom('u', 'v', 'uplinks'),
        ports: fc.constantFrom(['1'], ['1', '2'], ['99']),
        mode: fc.constantFrom('static', 'passive'),
        key: fc.constantFrom(null, 5),
        name: fc.constantFrom(null, 'Up'),
      }),
      fc.record({
        do: fc.constant('set-port-cost'),
        switch: fc.constantFrom('lodge', ...design.switches.map((s) => s.id)),
        port: fc.constantFrom('u', 'uplinks'),
        tree,
        cost: fc.constantFrom(null, 7),
      }),
      fc.record({
        do: fc.constant('set-port'),
        switch: sw,
        port,
        lacp: fc.record({ priority: fc.constantFrom(1, 65_535), key: fc.constantFrom(null, 3) }),
      }),
      fc.record({ do: fc.constant('remove-bundle'), bundle: fc.constantFrom('u', 'v', 'uplinks') }),
      fc.record({ do: fc.constant('remove-host'), host: fc.constantFrom('h', 'i') }),
      fc.record({ do: fc.constant('add-vlan'), vlan: fc.record({ id: fc.integer({ min: 14, max: 16 }) }) }),
      fc.record({
        do: fc.constant('set-vlan'),
        vlan: fc.integer({ min: 14, max: 16 }),
        name: fc.constantFrom(null, 'x'),
        load: fc.constantFrom(null, 5),
      }),
      fc.record({ do: fc.constant('remove-vlan'), vlan: fc.integer({ min: 14, max: 16 }) }),
      fc.record({
        do: fc.constant('set-observed'),
        observed: fc.array(fc.record({ switch: sw, port, device: fc.constantFrom('s1', 'other') }), { maxLength: 2 }),
      }),
      fc.record({ do: fc.constant('remove-switch'), switch: sw }),
      fc.record({
        do: fc.constant('move-switches'),
        to: fc.array(
          fc.record({
            switch: sw,
            position: fc.record({ x: fc.integer({ min: -1e6, max: 1e6 }), y: fc.integer({ min: -1e6, max: 1e6 }) }),
          }),
          { maxLength: 3 },
        ),
      }),
    )
    .map(command);
}
const designAndCommands = anyDesign.chain((design) =>
  fc.tuple(fc.constant(design), fc.array(commandsFor(design), { maxLength: 8 })),
);

describe('an edit', () => {
  it.each(parts(2, 100))(
    'leads there by its patches and back by its inverse, and leaves a legal document (%#)',
    (runs) => {
      fc.assert(
        fc.property(designAndCommands, ([start, commands]) => {
          let design = start;
          for (const each of commands) {
            const edited = edit(design, each);
            if (!edited.ok) continue;
            expect(applyChange(design, edited.value.patches)).toEqual(edited.value.design);
            expect(applyChange(edited.value.design, edited.value.inverse)).toEqual(design);
            expect(readDesignText(writeDesign(edited.value.design))).toEqual({ ok: true, value: edited.value.design });
            design = edited.value.design;
          }
        }),
        runs,
      );
    },
  );

  it('of several commands is one step, or none where one of them fails', () => {
    fc.assert(
      fc.property(designAndCommands, ([design, commands]) => {
        const before = JSON.stringify(design);
        const said = JSON.stringify(commands);
        const edited = editAll(design, commands);
        expect(JSON.stringify(commands)).toBe(said);
        if (edited.ok) expect(applyChange(edited.value.design, edited.value.inverse)).toEqual(design);
        expect(JSON.stringify(design)).toBe(before);
      }),
      { numRuns: tries(50) },
    );
  });

  it('that changes nothing has no patches', () => {
    const edited = edit(
      demo,
      command({
        do: 'set-port',
        switch: 'ridge-a',
        port: '1',
        speed: 10_000,
        vlans: demo.switches[0]!.ports[0]!.vlans,
      }),
    );
    expect(edited.ok && edited.value.patches).toEqual([]);
  });

  it.each([
    [{ do: 'set-switch', switch: 'nobody', name: 'x' }, 'switch nobody'],
    [{ do: 'set-link', link: 'none', up: false }, 'link none'],
    [{ do: 'forget-scenario', scenario: 'none' }, 'scenario none'],
    [{ do: 'set-port-cost', switch: 'lodge', port: '77', tree: null, cost: 3 }, 'port 77 of lodge'],
    [
      { do: 'add-link', link: { id: 'new', a: { switch: 'lodge', port: '1' }, b: { switch: 'lodge', port: '5' } } },
      'links[15].a',
    ],
  ])('that does not fit is refused: %j', (input, path) => {
    expect(edit(demo, command(input))).toMatchObject({ ok: false, error: { path } });
  });

  it('refuses costs that the short method cannot say, and the method where such costs are set', () => {
    const costly = edit(
      demo,
      command({ do: 'set-port-cost', switch: 'lodge', port: '1', tree: 'vlan:15', cost: 70_000 }),
    );
    if (!costly.ok) throw new Error('not taken');
    expect(edit(costly.value.design, command({ do: 'set-cost-method', method: 'short' }))).toMatchObject({
      ok: false,
      error: { found: '70000' },
    });
  });

  it('takes the cables of a removed switch along and unplugs its hosts', () => {
    const edited = edit(demo, command({ do: 'remove-switch', switch: 'ridge-b' }));
    if (!edited.ok) throw new Error('not taken');
    expect(edited.value.design.links).toHaveLength(8);
    expect(edited.value.design.hosts.find((host) => host.id === 'image-store')?.attach).toEqual([]);
  });
});

describe('a name in a command', () => {
  it.each(['', '   ', 'two\nlines', 'a\u0000b', 'x'.repeat(20_001)])(
    'is refused where the document would refuse it: %j',
    (name) => {
      for (const input of [
        { do: 'rename-design', name },
        { do: 'set-switch', switch: 'lodge', name },
        { do: 'set-host', host: 'duty-desk', name },
      ]) {
        expect(commandSchema.safeParse(input).success).toBe(false);
      }
    },
  );
});

describe('a command in words', () => {
  it.each([
    [
      { do: 'set-bridge-priority', switch: 'ridge-a', tree: 'vlan:15', priority: 4096 },
      'priority of ridge-a in VLAN 15: 32768 to 4096',
    ],
    [
      { do: 'set-bridge-priority', switch: 'ridge-a', tree: null, priority: 0 },
      'priority of ridge-a in all trees: 32768 to 0',
    ],
    [
      { do: 'set-port-cost', switch: 'lodge', port: '1', tree: 'vlan:25', cost: 9000 },
      'cost of lodge port 1 in VLAN 25: from speed to 9000',
    ],
    [
      { do: 'set-port-cost', switch: 'lodge', port: '1', tree: null, cost: null },
      'cost of lodge port 1 in all trees: from speed to none of its own',
    ],
    [{ do: 'set-link', link: 'l1', up: false }, 'link ridge-a port 1 to ridge-b port 1: cut'],
    [{ do: 'set-link', link: 'l1', delay: 90 }, 'link ridge-a port 1 to ridge-b port 1: delay as usual to 90 µs'],
    [{ do: 'forget-scenario', scenario: 'root-link' }, "scenario The root's link to ridge-a is cut: forgotten"],
    [
      { do: 'set-port', switch: 'lodge', port: '5', vlans: { mode: 'access', vlan: 45 } },
      'lodge port 5: VLANs access 55 to access 45',
    ],
    [
      { do: 'set-port', switch: 'lodge', port: '5', speed: 100, up: false },
      'lodge port 5: speed 1000 to 100 Mb/s, set down',
    ],
    [
      { do: 'set-switch', switch: 'lodge', tier: 'core', dialect: 'off' },
      'lodge: tier access to core, spanning tree mode Per-VLAN rapid to no spanning tree',
    ],
    [{ do: 'move-switches', to: [{ switch: 'lodge', position: { x: 1, y: 1 } }] }, 'moved lodge'],
    [{ do: 'remove-link', link: 'l2' }, 'unplugged ridge-a port 2 from ridge-b port 2'],
    [
      { do: 'set-switch', switch: 'lodge', up: false, pathCost: 'short' },
      'lodge: switched off, path cost method that of the design to short',
    ],
    [{ do: 'set-switch', switch: 'lodge', timers: { maxAge: 10 } }, 'lodge: max age 20 to 10'],
    [
      { do: 'set-link', link: 'l2', a: { switch: 'ridge-a', port: '9' } },
      'link ridge-a port 2 to ridge-b port 2: one end ridge-a port 2 to ridge-a port 9',
    ],
    [{ do: 'remove-port', switch: 'lodge', port: '5' }, 'removed lodge port 5'],
    [
      { do: 'set-vlan', vlan: 15, name: 'Mounts', load: null },
      'VLAN 15: name Mount control to Mounts, load 120 to none',
    ],
    [{ do: 'remove-vlan', vlan: 15 }, 'removed VLAN 15 Mount control'],
    [{ do: 'rename-design', name: 'New' }, 'name: Fernhollow Observatory to New'],
  ])('%j', (input, words) => expect(describeCommand(demo, command(input))).toBe(words));
});

it('a command is not changed by the commands after it', () => {
  const added = command({ do: 'add-switch', switch: { id: 'new', mac: '02:00:00:00:00:77', ports: [] } });
  const both = [added, command({ do: 'add-port', switch: 'new', port: { id: '1', number: 1 } })];
  expect(editAll(demo, both)).toEqual(editAll(demo, both));
  expect(added).toMatchObject({ switch: { ports: [] } });
});

it('replaces one design by another, and back', () => {
  fc.assert(
    fc.property(anyDesign, anyDesign, (a, b) => {
      const { design, patches, inverse } = replaceDesign(a, b);
      expect(design).toEqual(b);
      expect(applyChange(a, patches)).toEqual(b);
      expect(applyChange(b, inverse)).toEqual(a);
      expect(replaceDesign(a, JSON.parse(JSON.stringify(a)) as Design).patches).toEqual([]);
    }),
    { numRuns: tries(25) },
  );
});

describe('several commands in words', () => {
  const priority = (sw: string, vid: number) =>
    command({ do: 'set-bridge-priority', switch: sw, tree: `vlan:${vid}`, priority: 4096 });
  it('are told together where they differ in trees or in subjects only', () => {
    expect(
      describeCommands(
        demo,
        [15, 25, 35].map((vid) => priority('ridge-a', vid)),
      ),
    ).toBe('priority of ridge-a in VLANs 15,25,35: 32768 to 4096');
    expect(
      describeCommands(
        demo,
        [15, 16, 17].flatMap((vid) => [priority('ridge-a', vid), priority('ridge-b', vid)]),
      ),
    ).toBe('priority of ridge-a, ridge-b in VLANs 15-17: 32768 to 4096');
  });
  it('are cut where they are many', () => {
    const down = demo.switches.map((sw) => command({ do: 'set-switch', switch: sw.id, up: false }));
    expect(describeCommands(demo, down)).toBe('ridge-a, ridge-b, dome-north, dome-east and 4 more: switched off');
    const names = demo.switches.map((sw) => command({ do: 'set-switch', switch: sw.id, name: `${sw.id}!` }));
    expect(describeCommands(demo, names)).toBe(
      'ridge-a: name ridge-a to ridge-a!; ridge-b: name ridge-b to ridge-b!; dome-north: name dome-north to dome-north!; and 5 more',
    );
  });
});
