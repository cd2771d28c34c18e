import fc from 'fast-check';
import { fernhollow } from '../demo/demos';
import { anyDesign, designOf, networkOf } from '../testing/networks';
import { problemText } from './problem';
import { readDesign, readDesignText } from './read';
import { fileNameOf, writeDesign } from './derive/write';

const bare = { format: 'knot-path-design', version: 1, name: 'n', switches: [], links: [] };
const sw = { id: 'a', mac: '02:00:00:00:00:01', ports: [{ id: '1', number: 1 }] };
const withSwitch = (more: object) => ({ ...bare, switches: [{ ...sw, ...more }] });
const withPort = (more: object) => withSwitch({ ports: [{ id: '1', number: 1, ...more }] });

describe('a design document', () => {
  it('is the same after writing and reading', () => {
    fc.assert(
      fc.property(anyDesign, (design) =>
        expect(readDesignText(writeDesign(design))).toEqual({ ok: true, value: design }),
      ),
    );
    expect(readDesignText(writeDesign(fernhollow()))).toEqual({ ok: true, value: fernhollow() });
  });

  it('keeps every key that it knows, what cannot be solved yet included', () => {
    const steering = {
      cost: 9000,
      externalCost: 8000,
      priority: 64,
      trees: { 'mst:1': { cost: 5 }, 'vlan:25': { cost: 9000, priority: 64 } },
    };
    const full = {
      ...bare,
      notes: 'two\nlines',
      pathCost: 'long',
      vlans: [{ id: 15, name: 'Mount control', load: 120 }, { id: 25 }],
      regions: [{ id: 'ridge', name: 'FERNHOLLOW', revision: 3, instances: [{ id: 1, vlans: '15,25' }] }],
      switches: [
        {
          id: 'a',
          name: 'ridge-a',
          tier: 'core',
          mac: '02:4b:00:00:00:0a',
          dialect: 'mstp',
          region: 'ridge',
          priority: 4096,
          trees: { 'mst:1': { priority: 0 } },
          timers: { hello: 1, maxAge: 10, forwardDelay: 7, maxHops: 30, txHold: 3 },
          lacp: { systemPriority: 100 },
          position: { x: 1.5, y: -2 },
          ports: [
            {
              id: '1',
              number: 1,
              speed: 10_000,
              up: false,
              edge: true,
              lacp: { priority: 9, key: 7 },
              ...steering,
              vlans: { mode: 'trunk', native: 15, allowed: '15,25' },
            },
            { id: '2', number: 2, vlans: { mode: 'access', vlan: 15 } },
          ],
        },
      ],
      links: [{ id: 'l', a: { switch: 'a', port: '1' }, b: { switch: 'a', port: '2' }, up: false, delay: 90 }],
      scenarios: [
        {
          id: 's',
          name: 'Cut',
          look: 'who pays',
          until: 9,
          talk: 5,
          fromBoot: true,
          actions: [
            { at: 1, do: 'link-down', link: 'l', light: false },
            { at: 2, do: 'add-switch', switch: { id: 'b', mac: '02:4b:00:00:00:0c', ports: [] } },
          ],
        },
      ],
      bundles: [
        {
          id: 'up',
          name: 'Uplink',
          switch: 'a',
          number: 1,
          ports: ['1'],
          mode: 'passive',
          timeout: 'fast',
          key: 300,
          minLinks: 2,
          maxActive: 4,
          hash: '3+4',
          edge: true,
          ...steering,
        },
      ],
      hosts: [{ id: 'h', name: 'Desk', mac: '02:4b:00:00:01:01', vlan: 25, bundle: { mode: 'static', hash: '2+3' } }],
    };
    const design = designOf(full);
    expect(JSON.parse(writeDesign(design))).toEqual(full);
    expect(readDesignText(writeDesign(design))).toEqual({ ok: true, value: design });
  });

  it.each([
    ['a region that is not there', withSwitch({ region: 'valley' }), 'switches[0].region: found "valley"'],
    [
      'a bundle of ports that are not there',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 1, ports: ['9'] }] },
      'bundles[0].ports[0]: found "9"; allowed: the id of a port of a, whose ports alone can be members',
    ],
    [
      'a port in two bundles',
      { ...withSwitch({}), bundles: [1, 2].map((n) => ({ id: `u${n}`, switch: 'a', number: n, ports: ['1'] })) },
      'bundles[1].ports[0]: found "1"; allowed: one bundle a port',
    ],
    [
      'a bundle with no member',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 1, ports: [] }] },
      'bundles[0].ports: found',
    ],
    ['a list that is a number', { ...bare, links: 7 }, 'links: found 7; allowed: a list'],
    [
      'a bundle on no switch',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'z', number: 1, ports: ['1'] }] },
      'bundles[0].switch: found "z"',
    ],
    [
      'a key of more than sixteen bits',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 1, ports: ['1'], key: 65_536 }] },
      'bundles[0].key: found 65536; allowed: a key of sixteen bits',
    ],
    [
      'a bundle’s number out of range',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 2048, ports: ['1'] }] },
      'bundles[0].number: found 2048',
    ],
    [
      'minimum links of none',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 1, ports: ['1'], minLinks: 0 }] },
      'bundles[0].minLinks: found 0',
    ],
    [
      'a mode that is none',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 1, ports: ['1'], mode: 'on' }] },
      'bundles[0].mode: found "on"',
    ],
    [
      'a hash that is none',
      { ...withSwitch({}), bundles: [{ id: 'u', switch: 'a', number: 1, ports: ['1'], hash: 'layer 7' }] },
      'bundles[0].hash',
    ],
    [
      'a bundle called like a port of its switch',
      { ...withSwitch({}), bundles: [{ id: '1', switch: 'a', number: 1, ports: ['1'] }] },
      'bundles[0].id: found "1"; allowed: an id that no port of a has',
    ],
    [
      'an LACP priority of seventeen bits',
      withSwitch({ lacp: { systemPriority: 70_000 } }),
      'switches[0].lacp.systemPriority: found 70000',
    ],
    [
      'a host in the air',
      { ...withSwitch({}), hosts: [{ id: 'h', mac: '02:00:00:00:00:09', attach: [{ switch: 'b', port: '1' }] }] },
      'hosts[0].attach[0].switch: found "b"',
    ],
    ['a name of two lines', { ...bare, name: 'a\nb' }, 'name: found "a\\nb"; allowed: a name of one line'],
    [
      'an MSTID beyond the last',
      { ...bare, regions: [{ id: 'r', instances: [{ id: 4095, vlans: '1' }] }] },
      'regions[0].instances[0].id: found 4095',
    ],
    [
      'a delay of nothing',
      {
        ...bare,
        switches: [
          {
            ...sw,
            ports: [
              { id: '1', number: 1 },
              { id: '2', number: 2 },
            ],
          },
        ],
        links: [{ id: 'l', a: { switch: 'a', port: '1' }, b: { switch: 'a', port: '2' }, delay: 0 }],
      },
      'links[0].delay: found 0',
    ],
    [
      'two scenarios of one id',
      { ...bare, scenarios: ['x', 'y'].map((name) => ({ id: 's', name, actions: [] })) },
      'scenarios[1].id: found "s"',
    ],
    ['a scenario without a name', { ...bare, scenarios: [{ id: 's', name: '', actions: [] }] }, 'scenarios[0].name'],
    [
      'an action that is none',
      { ...bare, scenarios: [{ id: 's', name: 'x', actions: [{ at: 1, do: 'dance' }] }] },
      'scenarios[0].actions[0].do',
    ],
    ['a load below nothing', { ...bare, vlans: [{ id: 5, load: -1 }] }, 'vlans[0].load: found -1; allowed: at least 0'],
  ])('refuses %s', (_, document, text) => {
    const result = readDesign(document);
    expect(result.ok ? '' : result.error.map(problemText).join('\n')).toContain(text);
  });

  it('needs only what has no default', () => {
    const design = designOf({ switches: [sw] });
    expect(design).toMatchObject({ pathCost: 'long', vlans: [], notes: '' });
    expect(design.switches[0]).toMatchObject({ dialect: 'rstp', priority: 32768, timers: { hello: 2, maxAge: 20 } });
    expect(design.switches[0]!.ports[0]).toMatchObject({
      speed: 1000,
      up: true,
      priority: 128,
      vlans: { mode: 'trunk', native: 1, allowed: '1-4094' },
    });
    expect(design.switches[0]!.ports[0]!.cost).toBeUndefined();
  });

  it('writes no defaults', () =>
    expect(writeDesign(designOf({ switches: [sw] }))).not.toMatch(/speed|priority|dialect|vlans/));

  it('makes VLAN sets and MAC addresses canonical', () => {
    const [only] = designOf({
      switches: [
        {
          ...sw,
          mac: '02:AB:00:00:00:01',
          ports: [{ id: '1', number: 1, vlans: { mode: 'trunk', allowed: '25, 15' } }],
        },
      ],
    }).switches;
    expect(only).toMatchObject({ mac: '02:ab:00:00:00:01', ports: [{ vlans: { allowed: '15,25' } }] });
  });

  it.each<[string, unknown, string]>([
    [
      'a bridge priority off the grid',
      withSwitch({ priority: 4000 }),
      'switches[0].priority: found 4000; allowed: 0 to 61440 in steps of 4096; nearest: 0 and 4096',
    ],
    [
      'a bridge priority for one tree off the grid',
      withSwitch({ trees: { 'vlan:15': { priority: 5000 } } }),
      'switches[0].trees["vlan:15"].priority: found 5000; allowed: 0 to 61440 in steps of 4096; nearest: 4096 and 8192',
    ],
    ['a bridge priority beyond the end', withSwitch({ priority: 70000 }), 'nearest: 61440'],
    [
      'a port priority off the grid',
      withPort({ priority: 100 }),
      'switches[0].ports[0].priority: found 100; allowed: 0 to 240 in steps of 16; nearest: 96 and 112',
    ],
    [
      'an unknown key',
      withPort({ colour: 'red' }),
      'switches[0].ports[0].colour: found a key that this version does not know; allowed: id, number, speed, up',
    ],
    [
      'an unknown key of a trunk',
      withPort({ vlans: { mode: 'trunk', vlan: 3 } }),
      'switches[0].ports[0].vlans.vlan: found a key that this version does not know; allowed: mode, native, allowed',
    ],
    [
      'a way of carrying VLANs that there is not',
      withPort({ vlans: { mode: 'hybrid' } }),
      'switches[0].ports[0].vlans.mode: found "hybrid"; allowed: "trunk", "access"',
    ],
    [
      'an action that there is not',
      { ...bare, scenarios: [{ id: 's', name: 's', actions: [{ at: 1, do: 'explode' }] }] },
      'scenarios[0].actions[0].do: found "explode"; allowed: "link-down", "link-up", "one-way"',
    ],
    [
      'an unknown key of an action',
      { ...bare, scenarios: [{ id: 's', name: 's', actions: [{ at: 1, do: 'link-up', link: 'l', force: true }] }] },
      'scenarios[0].actions[0].force: found a key that this version does not know; allowed: at, do, link, between',
    ],
    ['an unknown tree', withSwitch({ trees: { 'vlan:5000': { priority: 0 } } }), 'a tree: cst, vlan:1 to vlan:4094'],
    [
      'a word where a number belongs',
      withPort({ speed: 'fast' }),
      'switches[0].ports[0].speed: found "fast"; allowed: a number',
    ],
    [
      'a speed of nothing',
      withPort({ speed: 0 }),
      'switches[0].ports[0].speed: found 0; allowed: a speed in Mbit/s above 0',
    ],
    [
      'an unknown dialect',
      withSwitch({ dialect: 'token' }),
      'switches[0].dialect: found "token"; allowed: "stp", "rstp"',
    ],
    ['a range that runs backwards', withPort({ vlans: { mode: 'trunk', allowed: '9-5' } }), 'runs backwards'],
    [
      'a group MAC address',
      withSwitch({ mac: '01:80:c2:00:00:00' }),
      'switches[0].mac: found "01:80:c2:00:00:00"; allowed: an individual MAC address',
    ],
    [
      'a timer out of its range',
      withSwitch({ timers: { maxAge: 5 } }),
      'switches[0].timers.maxAge: found 5; allowed: a max age in seconds, a whole number from 6 to 40',
    ],
    [
      'a missing MAC',
      { ...bare, switches: [{ id: 'a', ports: [] }] },
      'switches[0].mac: found nothing; allowed: a string',
    ],
    ['two switches of one id', { ...bare, switches: [sw, sw] }, 'switches[1].id: found "a"; allowed: each switch once'],
    [
      'a link to nowhere',
      { ...bare, switches: [sw], links: [{ id: 'l', a: { switch: 'a', port: '1' }, b: { switch: 'b', port: '1' } }] },
      'links[0].b.switch: found "b"; allowed: the id of a switch',
    ],
    [
      'a link to no port',
      { ...bare, switches: [sw], links: [{ id: 'l', a: { switch: 'a', port: '1' }, b: { switch: 'a', port: '7' } }] },
      'links[0].b.port: found "7"; allowed: the id of a port of a',
    ],
    [
      'two cables in one port',
      { ...bare, switches: [sw], links: [{ id: 'l', a: { switch: 'a', port: '1' }, b: { switch: 'a', port: '1' } }] },
      'links[0].b: found a port 1; allowed: one cable a port: link l is plugged in there',
    ],
    [
      'a cost that short costs cannot say',
      { ...withPort({ cost: 70_000 }), pathCost: 'short' },
      'switches[0].ports[0].cost: found 70000; allowed: 1 to 65535 with the short path cost method',
    ],
    ['another format', { ...bare, format: 'other' }, 'format: found "other"; allowed: "knot-path-design"'],
    ['a later version', { ...bare, version: 9 }, 'version: found 9, which a later Knot Path wrote'],
    ['a list', [], 'document: found a list'],
  ])('refuses %s', (_, document, text) => {
    const result = readDesign(document);
    if (result.ok) throw new Error('was taken');
    expect(result.error.map(problemText).join('\n')).toContain(text);
  });

  it('names every problem at once', () => {
    const result = readDesign(withSwitch({ priority: 1, mac: 'x', ports: [{ id: '1', number: 0 }] }));
    expect(result.ok ? [] : result.error.map((problem) => problem.path).sort()).toEqual([
      'switches[0].mac',
      'switches[0].ports[0].number',
      'switches[0].priority',
    ]);
  });

  it.each([
    ['', 'an empty file'],
    ['{"a":', 'text that is not JSON'],
    ['\uFEFF{}', 'nothing'],
  ])('says what is wrong with the text %j', (text, found) => {
    const result = readDesignText(text);
    expect(result.ok ? '' : result.error[0]?.found).toContain(found);
  });

  it('keeps names with markup and names of ten thousand characters', () => {
    for (const name of ['<b>bold</b> & "quoted"', 'x'.repeat(10_000)]) expect(designOf({ name }).name).toBe(name);
  });

  it('gets a file name that every file system takes', () => {
    expect(fileNameOf(fernhollow())).toBe('fernhollow-observatory.knot.json');
    expect(fileNameOf({ ...networkOf({}, []), name: '../…' })).toBe('design.knot.json');
  });
});
