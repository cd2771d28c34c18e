/** The command line as people run it: the bundle that the set-up builds. */
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { fernhollow } from '../core/demo/demos';
import { writeDesign } from '../core/model/derive/write';
import { settledTree } from '../core/testing/networks';
import { decodePcapng } from '../core/wire/pcapng';
import { clearFolder, file, folder, knotPath } from './testing';

afterAll(clearFolder);
const demo = file('demo.knot.json', writeDesign(fernhollow()));
const minimal = (more: object) =>
  JSON.stringify({ format: 'knot-path-design', version: 1, name: 'n', switches: [], links: [], ...more });

describe('knot-path solve', () => {
  it('prints every tree as JSON', () => {
    const { status, stdout } = knotPath(['solve', demo, '--json']);
    const { trees } = JSON.parse(stdout) as { trees: { id: string }[] };
    expect(status).toBe(0);
    expect(trees.map((tree) => tree.id)).toEqual([1, 15, 25, 35, 45, 55, 65].map((vid) => `vlan:${vid}`));
    expect(trees[1]).toEqual(settledTree(fernhollow(), 'vlan:15'));
    expect(trees[1]).toMatchObject({
      switches: {
        lodge: {
          root: 'lodge',
          rootPathCost: 0,
          rootPort: null,
          ports: { 1: { role: 'designated', state: 'forwarding', cost: 20_000 } },
        },
      },
    });
  });

  it('prints the trees that are asked for, from standard input too', () => {
    const { stdout } = knotPath(['solve', '-', '--tree', 'vlan:15', 'vlan:25', '--json'], writeDesign(fernhollow()));
    expect((JSON.parse(stdout) as { trees: { id: string }[] }).trees.map((tree) => tree.id)).toEqual([
      'vlan:15',
      'vlan:25',
    ]);
  });

  it('prints words without --json', () =>
    expect(knotPath(['solve', demo, '--tree', 'vlan:15']).stdout).toContain(
      'ridge-a: root lodge, root path cost 20000, root port 7',
    ));
});

it('solves and explains MSTP, whose trees tell costs inside of regions and outside apart', () => {
  const region = file(
    'region',
    minimal({
      regions: [{ id: 'r', name: 'R', instances: [{ id: 2, vlans: '15' }] }],
      switches: ['a', 'b'].map((id, i) => ({
        id,
        mac: `02:00:00:00:00:0${i + 1}`,
        dialect: 'mstp',
        region: 'r',
        ports: [{ id: '1', number: 1 }],
      })),
      links: [{ id: 'l', a: { switch: 'a', port: '1' }, b: { switch: 'b', port: '1' } }],
    }),
  );
  const { trees } = JSON.parse(knotPath(['solve', region, '--json']).stdout) as {
    trees: { id: string; switches: object }[];
  };
  expect(trees.map((tree) => tree.id)).toEqual(['mst:0', 'mst:2']);
  expect(trees[0]!.switches).toMatchObject({
    b: { root: 'a', rootPathCost: 0, regionalRoot: 'a', externalRootPathCost: 0, internalRootPathCost: 20_000 },
  });
  expect(knotPath(['explain', region, 'b', '1', '--tree', 'mst:0']).stdout).toMatch(
    /Root port: .* at a root path cost of 0 outside of regions and 20.000 inside of its own/,
  );
});

describe('knot-path bundles', () => {
  it('prints what LACP settles to as JSON, and in words', () => {
    const { status, stdout } = knotPath(['bundles', demo, '--json']);
    const { bundles } = JSON.parse(stdout) as { bundles: { id: string }[] };
    expect(status).toBe(0);
    expect(bundles).toMatchObject([
      {
        switch: 'lodge',
        id: 'uplinks',
        up: false,
        members: { 1: { state: 'individual', partner: null }, 2: { state: 'individual' } },
      },
      {
        switch: 'ridge-b',
        id: 'image-store-cards',
        up: true,
        members: {
          8: {
            state: 'active',
            actor: { system: '02:4b:00:00:00:0b', key: 2, port: 8 },
            partner: { system: '02:4b:00:00:01:05', key: 1, port: 1 },
          },
        },
      },
      { host: 'image-store', up: true, members: { 1: { state: 'active' } } },
    ]);
    expect(knotPath(['bundles', demo]).stdout).toContain('lodge uplinks: Down: ridge-a port 7 is in no bundle');
    expect(knotPath(['bundles', '-'], minimal({})).stdout).toBe('no bundles\n');
  });

  it('a bundle stands in the settled trees as one port, its members point to it', () => {
    const text = knotPath(['solve', demo, '--tree', 'vlan:25', '--json']).stdout;
    const {
      trees: [tree],
    } = JSON.parse(text) as { trees: { switches: Record<string, { ports: object }> }[] };
    expect(tree!.switches['ridge-b']!.ports).toMatchObject({
      8: { memberOf: 'image-store-cards' },
      'image-store-cards': { role: 'designated', state: 'forwarding', cost: 10_000 },
    });
    expect(tree!.switches.lodge!.ports).toMatchObject({
      1: { role: 'designated', memberOf: 'uplinks' },
      uplinks: { role: 'disabled', state: 'discarding' },
    });
    expect(knotPath(['solve', demo, '--tree', 'vlan:25']).stdout).toContain('member of image-store-cards');
  });
});

describe('knot-path explain', () => {
  it('says why, with the vectors', () => {
    const { status, stdout } = knotPath(['explain', demo, 'ridge-b', '1', '--tree', 'vlan:15']);
    expect(status).toBe(0);
    expect(stdout).toContain('ridge-b port 1 in vlan:15: alternate, discarding');
    expect(stdout).toMatch(/^ {2}1\. 32783\.02:4b:00:00:00:01 {2}lodge$/m);
    expect(stdout).toMatch(/bridge ID .*32783\.02:4b:00:00:00:0a .*32783\.02:4b:00:00:00:0b +<- decides/);
  });
});

describe('knot-path check', () => {
  it('ends with 1 where there are findings and with 0 where there are none', () => {
    expect(knotPath(['check', demo])).toMatchObject({
      status: 1,
      stdout: expect.stringContaining('root-by-mac: lodge is root') as string,
    });
    expect(knotPath(['check', file('empty.knot.json', minimal({}))])).toMatchObject({
      status: 0,
      stdout: 'no findings\n',
    });
  });
});

describe('knot-path prove', () => {
  const intents = (...lines: readonly string[]) =>
    file(
      'intents.knot.json',
      JSON.stringify({
        ...(JSON.parse(readFileSync(demo, 'utf8')) as object),
        intents: lines.map((line, i) => ({
          id: `i${i}`,
          line,
          severity: line.startsWith('no link') ? 'should' : 'must',
        })),
      }),
    );

  it('says what holds whatever fails, and which failure breaks what', () => {
    const { status, stdout } = knotPath([
      'prove',
      intents('all hosts reach each other', 'whatever link fails, access switches never become root'),
    ]);
    expect(status).toBe(1);
    expect(stdout).toMatch(/^holds: all hosts reach each other\nbroken \(must\): whatever link fails/);
    expect(stdout).toContain('  if ridge-a port 1 to ridge-b port 1 is cut: The root of VLANs');
  });

  it('runs the protocols for what is said of times', () => {
    const { status, stdout } = knotPath([
      'prove',
      intents('whatever switch fails, all hosts are cut off no longer than 3 s'),
    ]);
    expect(status).toBe(1);
    expect(stdout).toMatch(
      /^broken \(must\).*\n {2}if lodge has no power: In VLAN 25, Camera recorder does not reach Image store for 8 s\.\n/,
    );
  });

  it('ends with 0 where only a should does not hold', () => {
    expect(knotPath(['prove', intents('no link above 1 %')])).toMatchObject({
      status: 0,
      stdout: expect.stringContaining('broken (should): no link above 1 %') as string,
    });
    expect(knotPath(['prove', demo]).stdout).toBe('no intents\n');
  });
});

describe('unusable input', () => {
  it.each([
    ['no such file', ['solve', path.join(folder, 'none')], 'cannot be read (ENOENT)'],
    ['no JSON', ['solve', file('text', 'hello')], 'text that is not JSON'],
    [
      'an illegal value',
      ['check', file('bad', minimal({ switches: [{ id: 'a', mac: '02:00:00:00:00:01', priority: 5, ports: [] }] }))],
      'switches[0].priority: found 5; allowed: 0 to 61440',
    ],
    ['an unknown tree', ['solve', demo, '--tree', 'vlan:7'], '--tree: found "vlan:7"; allowed: vlan:1, vlan:15'],
    [
      'an unknown switch',
      ['explain', demo, 'attic', '1', '--tree', 'vlan:15'],
      'switch: found "attic"; allowed: ridge-a',
    ],
    [
      'an unknown port',
      ['explain', demo, 'lodge', '9', '--tree', 'vlan:15'],
      'port: found "9"; allowed on lodge: 1, 2, 3, 5',
    ],
    ['no tree', ['explain', demo, 'lodge', '1'], 'required option'],
    ['an unknown command', ['dance'], 'unknown command'],
  ])('%s ends with 2 and one line on standard error', (_, args, text) => {
    const { status, stdout, stderr } = knotPath(args);
    expect({ status, stdout }).toEqual({ status: 2, stdout: '' });
    expect(stderr).toContain(text);
    expect(stderr.trimEnd().split('\n')).toHaveLength(1);
  });
});

describe('knot-path simulate', () => {
  const cut = file('cut.json', JSON.stringify({ actions: [{ at: 1, do: 'link-down', link: 'l13' }], until: 30 }));
  it('prints the trace, the outages and where it settles', () => {
    const { status, stdout } = knotPath(['simulate', demo, '--scenario', cut, '--json']);
    const run = JSON.parse(stdout) as {
      trace: object[];
      outages: object[];
      settledAt: number;
      final: { trees: { id: string }[] };
    };
    expect(status).toBe(0);
    expect(run.trace[0]).toMatchObject({
      t: 1,
      switch: expect.any(String),
      port: expect.any(String),
      tree: expect.stringMatching(/^vlan:/),
      from: expect.any(String),
      to: expect.any(String),
      role: expect.any(String),
    });
    expect(run.settledAt).toBeGreaterThan(1);
    expect(run.settledAt).toBeLessThan(1.1);
    expect(run.outages.length).toBeGreaterThan(0);
    const design = fernhollow();
    const after = { ...design, links: design.links.map((link) => (link.id === 'l13' ? { ...link, up: false } : link)) };
    for (const tree of run.final.trees) expect(tree).toEqual(settledTree(after, tree.id));
  });
  it('prints words without --json, and boots where it is asked to', () => {
    const { stdout } = knotPath(['simulate', demo, '--scenario', cut, '--from-boot', '--seed', '7']);
    expect(stdout).toMatch(/^ +0\.000 s {2}vlan:1 /);
    expect(stdout).toContain('settled at');
  });
  it('writes every frame into a capture, or says why it cannot', () => {
    const to = path.join(folder, 'run.pcapng');
    expect(knotPath(['simulate', demo, '--scenario', cut, '--capture', to]).status).toBe(0);
    const capture = decodePcapng(new Uint8Array(readFileSync(to)));
    expect(capture.ok && capture.value.frames.length).toBeGreaterThan(100);
    expect(capture.ok && capture.value.interfaces).toContain('ridge-a 1 = ridge-b 1');
    expect(
      knotPath(['simulate', demo, '--scenario', cut, '--capture', path.join(folder, 'nowhere', 'run.pcapng')]),
    ).toMatchObject({ status: 2, stderr: expect.stringContaining('cannot be written (ENOENT)') });
  });
  it.each<[string, string[], string]>([
    ['no scenario file', ['--scenario', '/nowhere.json'], '/nowhere.json: cannot be read (ENOENT)'],
    ['a scenario that is not JSON', ['--scenario', file('broken.json', '{')], 'is not JSON'],
    [
      'a link that is not there',
      ['--scenario', file('lost.json', JSON.stringify({ actions: [{ at: 1, do: 'link-down', link: 'x' }] }))],
      'actions[0].link: found "x"; allowed: a link: one of l1',
    ],
    ['a seed that is none', ['--scenario', cut, '--seed', 'abc'], '--seed: found "abc"'],
  ])('refuses %s in one line', (_, args, text) => {
    const { status, stderr, stdout } = knotPath(['simulate', demo, ...args]);
    expect([status, stdout]).toEqual([2, '']);
    expect(stderr).toContain(text);
    expect(stderr.trim().split('\n')).toHaveLength(1);
  });
});

it('draws the map as one SVG, fonts and all, in either scheme; says what it cannot do', () => {
  const { status, stdout } = knotPath(['picture', demo, '--tree', 'vlan:15', '-o', '-']);
  expect(status).toBe(0);
  expect(stdout).toMatch(/^<\?xml[^>]*>\n<svg [^]*<\/svg>\n$/);
  expect(stdout).toContain('@font-face{font-family:"Atkinson Hyperlegible Next Variable"');
  expect(stdout).toContain('VLAN 15: root lodge');
  const out = path.join(folder, 'map.svg');
  expect(knotPath(['picture', demo, '--lens', 'cable', '--dark', '-o', out])).toEqual({
    status: 0,
    stdout: '',
    stderr: '',
  });
  expect(readFileSync(out, 'utf8')).toContain('10 Gb/s');
  for (const [wrong, told] of [
    [['--scale', 'x', '-o', '-'], /--scale: found "x"; allowed: 0.05 to 3/],
    [['--tree', 'vlan:9', '-o', '-'], /--tree: found "vlan:9"; allowed: vlan:1, /],
    [['-o', '/nowhere/a.svg'], /\/nowhere\/a.svg: cannot be written \(ENOENT\)/],
    [[], /-o, --output/],
  ] as const) {
    const refused = knotPath(['picture', demo, ...wrong]);
    expect(refused.status).toBe(2);
    expect(refused.stderr).toMatch(told);
  }
});
