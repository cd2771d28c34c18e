import fc from 'fast-check';
import { fernhollow } from '../demo/demos';
import { editAll } from '../edit/edit';
import { readDesignText } from '../model/read';
import type { Design } from '../model/document';
import { writeDesign } from '../model/derive/write';
import { line, portWords } from '../testing/cablingLines';
import { cablesOf, faultOf, made, portOf } from '../testing/madeByLines';
import { anyDesign, designOf } from '../testing/networks';
import { completionsAt } from './complete';
import { parseLine } from './parse';
import { linesOf, printStatement } from './print';
import { planLines } from './plan';
import { parts, tries } from '../testing/runs';

const empty = designOf({});

/** Without places in the line, as a statement means the same wherever its words stand. */
const bare = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (key, inner: unknown) => (key === 'at' || key === 'length' ? undefined : inner)));
const ordered = (design: Design) => ({
  ...design,
  name: '',
  pathCost: 'long',
  links: design.links.map(({ id: _, ...link }) => link),
  switches: design.switches.map((sw) => ({ ...sw, ports: [...sw.ports].sort((a, b) => (a.id < b.id ? -1 : 1)) })),
});

describe('a cabling line', () => {
  it('printed back from what it says, says the same', () => {
    fc.assert(
      fc.property(line, (text) => {
        const parsed = parseLine(text);
        if (!parsed.ok) throw new Error(`${text}: ${parsed.error.message}`);
        const again = parseLine(printStatement(parsed.value.statement!));
        expect(again.ok && bare(again.value.statement)).toEqual(bare(parsed.value.statement));
      }),
      { numRuns: tries(200) },
    );
  });

  it.each(parts(2, 200))('never fails but with a place in the line and a reason (%#)', (runs) => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc
            .array(
              fc.constantFrom(
                'a',
                '1-4',
                '=',
                '*',
                ',',
                '+',
                '"',
                '[',
                ']',
                '#',
                'trunk',
                'vlan',
                'host',
                'switch',
                '10G',
                ' ',
              ),
              { maxLength: 12 },
            )
            .map((parts) => parts.join(' ')),
        ),
        (text) => {
          const parsed = parseLine(text.replace(/\n/g, ' '));
          if (!parsed.ok) {
            expect(parsed.error.at).toBeGreaterThanOrEqual(0);
            expect(parsed.error.at).toBeLessThanOrEqual(text.length);
            expect(parsed.error.message).not.toBe('');
          }
          completionsAt(fernhollow(), text, text.length);
        },
      ),
      runs,
    );
  });

  it('of a whole design makes that design again', () => {
    fc.assert(
      fc.property(anyDesign, (design) => {
        // What lines do not speak of is left at its default.
        const plain = {
          ...design,
          bundles: [],
          regions: [],
          switches: design.switches.map((sw) => ({
            ...sw,
            priority: 32768,
            trees: {},
            ports: sw.ports.map(({ cost: _, ...port }) => ({ ...port, priority: 128, trees: {} })),
          })),
        };
        expect(ordered(made(linesOf(plain).join('\n')))).toEqual(ordered(plain));
      }),
      { numRuns: tries(50) },
    );
    const demo = fernhollow();
    const lines = linesOf(demo).join('\n');
    expect(cablesOf(made(lines))).toEqual(cablesOf(demo));
    const hostsOf = (design: Design) =>
      design.hosts.map((host) => [host.name ?? host.id, host.mac, host.vlan, host.attach]);
    expect(hostsOf(made(lines))).toEqual(hostsOf(demo));
    expect(planLines(made(lines), lines).commands).toEqual([]); // once is enough
  });
});

describe('what lines do', () => {
  const lines = fc.array(line, { minLength: 1, maxLength: 5 }).map((each) => each.join('\n'));
  it('always fits the design: it can be done as it was planned, and written down', () => {
    fc.assert(
      fc.property(anyDesign, lines, (design, text) => {
        const plan = planLines(design, text);
        if (plan.faults > 0) {
          for (const { fault, line: at } of plan.lines)
            if (fault) expect(fault.at + fault.length).toBeLessThanOrEqual(text.split('\n')[at]!.length + 1);
          return;
        }
        const edited = editAll(design, plan.commands);
        if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}; ${edited.error.allowed}`);
        expect(readDesignText(writeDesign(edited.value.design)).ok).toBe(true);
      }),
      { numRuns: tries(150) },
    );
  });

  it('is done once: with ports named, the same lines do nothing more', () => {
    const named = fc
      .tuple(
        fc.constantFrom('s0', 'a', 'r,s'),
        fc.constantFrom('1', '1-2', '7'),
        fc.constantFrom('s1', 'b', 't,u'),
        fc.constantFrom('3', '3-4', '8'),
        portWords,
      )
      .map(([a, p, b, q, words]) => `${a} ${p} = ${b} ${q} ${words}`);
    // Each host has one place: a line that moves it would free its old port for others.
    const host = fc
      .tuple(fc.constantFrom('host h = s0 11', 'host i,j = a 12-13'), fc.constantFrom('', 'vlan 15'))
      .map((parts) => parts.join(' '));
    fc.assert(
      fc.property(
        anyDesign,
        fc.array(fc.oneof(named, host), { minLength: 1, maxLength: 4 }).map((each) => each.join('\n')),
        (design, text) => {
          const plan = planLines(design, text);
          const edited = editAll(design, plan.commands);
          if (plan.faults > 0 || !edited.ok) return;
          const again = planLines(edited.value.design, text);
          expect(again.faults).toBe(0);
          // A later line may set what an earlier one set otherwise; what is added is added once.
          expect(again.commands.filter((command) => command.do.startsWith('add-'))).toEqual([]);
        },
      ),
      { numRuns: tries(150) },
    );
  });
});

describe('cables', () => {
  it('join ports in pairs, adding switches and ports that are not there yet', () => {
    const design = made('ridge-a 1-2 = ridge-b 1-2 10G');
    expect(cablesOf(design)).toEqual(['ridge-a 1 = ridge-b 1', 'ridge-a 2 = ridge-b 2']);
    expect(
      design.switches.map((sw) => [sw.id, sw.dialect, sw.ports.map((port) => [port.id, port.number, port.speed])]),
    ).toEqual([
      [
        'ridge-a',
        'rstp',
        [
          ['1', 1, 10_000],
          ['2', 2, 10_000],
        ],
      ],
      [
        'ridge-b',
        'rstp',
        [
          ['1', 1, 10_000],
          ['2', 2, 10_000],
        ],
      ],
    ]);
  });
  it('spread over ranges of names, each to each, and over a lone switch', () => {
    expect(cablesOf(made('hut-[1-2] * ridge-[a,b]'))).toEqual([
      'hut-1 1 = ridge-a 1',
      'hut-1 2 = ridge-b 1',
      'hut-2 1 = ridge-a 2',
      'hut-2 2 = ridge-b 2',
    ]);
    expect(cablesOf(made('a,b,c * a,b,c'))).toHaveLength(3);
    expect(cablesOf(made('core = hut-[01-03]'))).toEqual([
      'core 1 = hut-01 1',
      'core 2 = hut-02 1',
      'core 3 = hut-03 1',
    ]);
    expect(cablesOf(made('store 1-2 = ridge-a 9 + ridge-b 4'))).toEqual(['store 1 = ridge-a 9', 'store 2 = ridge-b 4']);
  });
  it('that are there already are set, not doubled', () => {
    const once = made('a 1 = b 1');
    const twice = made('a 1 = b 1 100M trunk 15 cut', once);
    expect(cablesOf(twice)).toEqual(['a 1 = b 1']);
    expect(twice.links[0]?.up).toBe(false);
    expect(portOf(twice, 'b', '1')).toMatchObject({ speed: 100, vlans: { mode: 'trunk', native: 1, allowed: '15' } });
    expect(cablesOf(made('a = b', once))).toHaveLength(2);
  });
  it('take the speed of the port that is there', () => {
    expect(portOf(made('port a 7 10G\nb 1 = a 7'), 'b', '1')?.speed).toBe(10_000);
  });
});

describe('hosts, ports, switches and VLANs', () => {
  it('hang hosts on new access ports of their VLAN, one each or one on several', () => {
    const design = made('host cam-[1-2] = hut 11-12 vlan 25\nhost "Image store" = ridge-a 9 + ridge-b 9 vlan 25 10G');
    expect(
      design.hosts.map((host) => [host.id, host.vlan, host.attach.map((at) => `${at.switch} ${at.port}`)]),
    ).toEqual([
      ['cam-1', 25, ['hut 11']],
      ['cam-2', 25, ['hut 12']],
      ['Image store', 25, ['ridge-a 9', 'ridge-b 9']],
    ]);
    expect(portOf(design, 'ridge-b', '9')).toMatchObject({
      speed: 10_000,
      edge: true,
      vlans: { mode: 'access', vlan: 25 },
    });
    expect(made('host cam-1 = hut 13', design).hosts[0]?.attach).toEqual([{ switch: 'hut', port: '13' }]);
  });
  it('set ports that are there and add those that are not', () => {
    const design = made('port a 1-3 access 15 edge\nport a 2 down 100M no-edge');
    expect(design.switches[0]?.ports.map((port) => [port.id, port.up, port.speed, port.edge])).toEqual([
      ['1', true, 1000, true],
      ['2', false, 100, false],
      ['3', true, 1000, true],
    ]);
  });
  it('leave of a trunk what they do not name', () => {
    const trunk = made('port a 1 trunk 15,25 native 15');
    expect(portOf(made('port a 1 native 25', trunk), 'a', '1')?.vlans).toEqual({
      mode: 'trunk',
      native: 25,
      allowed: '15,25',
    });
    expect(portOf(made('port a 1 trunk 15', trunk), 'a', '1')?.vlans).toEqual({
      mode: 'trunk',
      native: 15,
      allowed: '15',
    });
    expect(portOf(made('port a 1 trunk none', trunk), 'a', '1')?.vlans).toEqual({
      mode: 'trunk',
      native: 15,
      allowed: '',
    });
    expect(portOf(made('port a 1 trunk', made('port a 1 access 5')), 'a', '1')?.vlans).toEqual({
      mode: 'trunk',
      native: 1,
      allowed: '1-4094',
    });
  });
  it('limit broadcasts by per cent of the speed, or by frames a second', () => {
    const design = made('port a 1 storm-limit 2.5% bpdu-guard\nport a 2 storm-limit 500/s');
    expect(portOf(design, 'a', '1')?.stormLimit).toEqual({ most: 2.5, of: 'percent' });
    expect(portOf(design, 'a', '2')?.stormLimit).toEqual({ most: 500, of: 'frames' });
    expect(made(linesOf(design).join('\n')).switches).toEqual(design.switches);
  });
  it('say what a port speaks, and for which VLANs', () => {
    const text =
      'port a 1 per-vlan-rstp trees-for 15,25-29\nport a 2 version-0\nport a 3 passes-on\nport a 4 per-vlan-stp';
    const design = made(text);
    expect(portOf(design, 'a', '1')).toMatchObject({ speaks: 'per-vlan-rstp', speaksFor: '15,25-29' });
    expect(['2', '3', '4'].map((port) => portOf(design, 'a', port)?.speaks)).toEqual([
      'version-0',
      'passes-on',
      'per-vlan-stp',
    ]);
    expect(made(linesOf(design).join('\n')).switches).toEqual(design.switches);
    expect(portOf(made(`${text}\nport a 2 as-switch`), 'a', '2')?.speaks).toBeUndefined();
  });
  it('set switches and VLANs by name and range', () => {
    const design = made(
      'switch core-[1-2] core per-vlan-rstp\nvlan 60-62 "Halls" load 5\nswitch core-2 unpowered short-cost at 10,-20',
    );
    expect(design.switches[1]).toMatchObject({
      id: 'core-2',
      tier: 'core',
      dialect: 'per-vlan-rstp',
      up: false,
      pathCost: 'short',
      position: { x: 10, y: -20 },
    });
    expect(design.vlans).toEqual([60, 61, 62].map((id) => ({ id, name: 'Halls', load: 5 })));
  });
});

describe('a fault points at its place', () => {
  it.each([
    ['a 1-2 = b 1-3', 8, 5, '2 ends on the left, 3 on the right'],
    ['a 1 b 1', 4, 1, '"=" joins the ends one to one'],
    ['port a 1 storm-limit 101%', 21, 4, 'here belongs a limit: 5% of the speed'],
    ['port a 1 storm-limit 2.5/s', 21, 5, 'here belongs a limit'],
    ['a 1 = b 1 quick', 10, 5, '"quick" is not an option here'],
    ['a 5-3 = b 1', 2, 3, '5-3 runs backwards (3-5?)'],
    ['a 1 = b 1 trunk 5-3', 16, 3, 'runs backwards'],
    ['a 1 = b 1 trunk 0', 16, 1, 'VLAN 0'],
    ['host x = a 1 vlan 4095', 18, 4, '1 to 4094'],
    ['vlan 4095', 5, 4, 'VLAN 4095'],
    ['a 1 = a 1', 8, 1, 'cannot be joined to itself'],
    ['a 1 = "b', 6, 2, 'no partner'],
    ['a[1-2 = b', 1, 1, 'no partner'],
    ['switch', 6, 1, 'the name of a switch'],
    ['switch a mac 01:00:00:00:00:01', 13, 17, 'an individual MAC address'],
    ['switch a,b at 1,2', 9, 1, 'belongs to one switch'],
    ['x-[1-5000] = b', 0, 10, 'more than 1000'],
    ['a 1 = b 1 99999G', 10, 6, 'a speed in Mbit/s'],
    ['a 1 = b 1\nc 1 = b 1', 8, 1, 'port 1 of b is taken: a port 1 is plugged in there'],
    ['port a', 6, 1, 'which port?'],
    ['host h = a 1,1', 13, 1, 'port 1 of a is named twice'],
    ['a 1 = b 1 access 5 native 7', 19, 6, 'an access port has no native VLAN'],
    ['a 1,2 * b,c', 2, 1, 'name the switches alone'],
  ])('%s', (text, at, length, message) =>
    expect(faultOf(text)).toMatchObject({ at, length, message: expect.stringContaining(message) as string }),
  );

  it('and a line with a fault does nothing', () =>
    expect(planLines(empty, 'a 1 = b 1\nc 1 =').lines.map((each) => each.commands.length)).toEqual([5, 0]));
});

describe('completion', () => {
  const options = (text: string) => completionsAt(fernhollow(), text, text.length).options.map((option) => option.text);
  it('offers what may follow', () => {
    expect(options('')).toEqual(['switch', 'port', 'host', 'vlan', 'group', 'pair', 'stack', 'ridge-a']);
    expect(options('dome-')).toEqual(['dome-north', 'dome-east', 'dome-west']);
    expect(options('lodge ')).toEqual(['6', '7', '=', '*']);
    expect(options('lodge 6 = ridge-b 20 t')).toEqual(['trunk']);
    expect(options('host "Duty')).toEqual(['"Duty desk"']);
    expect(options('host kiosk = lodge vlan 5')).toEqual(['55']);
  });
  it('says which characters it replaces', () =>
    expect(completionsAt(fernhollow(), 'lodge 6 = rid', 13)).toMatchObject({ from: 10, to: 13 }));
});

it('says beforehand where lines are more than one step can take', () => {
  const lines = Array.from({ length: 4 }, (_, i) => `new-${2 * i} 1-1000 = new-${2 * i + 1} 1-1000`);
  const plan = planLines(designOf({}), lines.join('\n'));
  const faulty = plan.lines.find((line) => line.fault);
  expect(faulty?.fault?.message).toMatch(/^with this line these are \d+ changes; 10000 at once are the most/);
  expect(faulty?.line).toBe(3);
});

it('takes thousands of changes as one step, and no more than ten thousand', () => {
  const lines = Array.from({ length: 2 }, (_, i) => `new-${2 * i} 1-1000 = new-${2 * i + 1} 1-1000`);
  const plan = planLines(designOf({}), lines.join('\n'));
  expect(plan.faults).toBe(0);
  expect(editAll(designOf({}), plan.commands).ok).toBe(true);
  expect(
    editAll(
      designOf({}),
      Array.from({ length: 10_001 }, () => ({ do: 'rename-design' as const, name: 'x' })),
    ),
  ).toMatchObject({ ok: false, error: { path: 'commands' } });
});
