/** Tables out and in: nothing is lost on the way, what differs is what was changed, what is wrong is told at its cell. */
import fc from 'fast-check';
import { fernhollow, townOffice, valleyStation } from '../../demo/demos';
import { designNode, type Design } from '../../model/document';
import type { GroupNode, ListNode } from '../../model/field';
import { anyDesign, networkOf } from '../../testing/networks';
import { tries } from '../../testing/runs';
import { furnished } from '../../testing/variants';
import type { Cell } from './cells';
import { csvTables, sheetsIn } from './files';
import { cellFaultText, readTables, type Sheet } from './readBack';
import { readSpreadsheet, writeSpreadsheet } from './spreadsheet';
import { tablesOf } from './tables';

const designs = fc
  .oneof(anyDesign, fc.constantFrom(fernhollow(), valleyStation(), townOffice()))
  .chain((design) => furnished(design, 6));
const sheetsOf = (design: Design): Sheet[] =>
  tablesOf(design).map(({ name, columns, rows }) => ({
    name,
    rows: [columns.map(({ head }) => head), ...rows.map(({ cells }) => cells)],
  }));
const octets = (text: string): Uint8Array<ArrayBuffer> => new Uint8Array(new TextEncoder().encode(text));

it('has headings of its own for each column, and every plain field of every list', () => {
  for (const { columns } of tablesOf(townOffice())) {
    const heads = columns.map(({ head }) => head.toLowerCase());
    expect(new Set(heads).size).toBe(heads.length);
  }
  const headsOf = (key: string): readonly string[] =>
    tablesOf(townOffice())
      .find((table) => table.key === key)!
      .columns.map(({ head }) => head);
  for (const [list, key] of [
    ['switches', 'switches'],
    ['links', 'cables'],
    ['bundles', 'bundles'],
    ['hosts', 'hosts'],
    ['groups', 'groups'],
  ] as const) {
    const { item } = designNode.fields.get(list) as ListNode;
    const plain = [...(item as GroupNode).fields].filter(([field, { kind }]) => kind === 'leaf' && field !== 'id');
    expect(plain.length).toBeGreaterThan(2);
    const heads = headsOf(key).join('|');
    for (const [field, { facts }] of plain) expect(heads).toContain(facts?.label ?? field);
  }
});

it('changes nothing as it is read back: plainly, as CSV, as a spreadsheet', async () => {
  await fc.assert(
    fc.asyncProperty(designs, async (design) => {
      expect(readTables(design, sheetsOf(design))).toMatchObject({ commands: [], faults: [], design });
      const written: Sheet[] = [];
      for (const { name, text } of csvTables(design)) {
        const read = await sheetsIn(name, octets(text));
        if (!read.ok) throw new Error(`${name}: ${read.error}`);
        written.push(...read.value);
      }
      expect(readTables(design, written)).toMatchObject({ commands: [], faults: [] });
    }),
    { numRuns: tries(25) },
  );
  for (const design of [fernhollow(), townOffice()]) {
    const read = await readSpreadsheet(await writeSpreadsheet(tablesOf(design)));
    expect(read.ok && readTables(design, read.value)).toMatchObject({ commands: [], faults: [] });
  }
});

it('reads what others have changed: then the tables are theirs', () => {
  let [taken, tried] = [0, 0];
  fc.assert(
    fc.property(
      designs.chain((design) => fc.tuple(fc.constant(design), furnished(design, 4))),
      ([before, after]) => {
        // Lines of things that are new are told, as the other tests say: here are those that both have.
        const known = new Map(
          tablesOf(before).map(({ name, rows, keys }) => [
            name,
            new Set(rows.map(({ cells }) => cells.slice(0, keys).join('|'))),
          ]),
        );
        const theirs = tablesOf(after)
          .filter(({ name }) => name !== 'Roots')
          .map(({ name, columns, rows, keys }): Sheet => ({
            name,
            rows: [
              columns.map(({ head }) => head),
              ...rows.map(({ cells }) => cells).filter((cells) => known.get(name)!.has(cells.slice(0, keys).join('|'))),
            ],
          }));
        const { design, faults } = readTables(before, theirs);
        tried += 1;
        // What hangs on something that they have and we do not, as a group, is told.
        if (faults.length > 0) return expect(design).toBe(before);
        taken += 1;
        expect(readTables(design, theirs)).toMatchObject({ commands: [], faults: [] });
        const own = new Map(sheetsOf(design).map(({ name, rows }) => [name, rows]));
        for (const { name, rows } of theirs) {
          if (name === 'Hosts') continue;
          const [ours = [], ...told] = own.get(name)!;
          // A tree that they alone have, as that of an instance, is a column of theirs alone.
          const both = rows[0]!.flatMap((head, i) => (ours.includes(head) ? [[i, ours.indexOf(head)] as const] : []));
          expect(both.length).toBeGreaterThan(1);
          const mine = new Set(told.map((row) => both.map(([, i]) => row[i]).join('|')));
          for (const row of rows.slice(1)) expect(mine).toContain(both.map(([i]) => row[i]).join('|'));
        }
      },
    ),
    { numRuns: tries(40) },
  );
  expect(taken).toBeGreaterThan(tried / 4);
});

const design = networkOf({ a: {}, b: {} }, ['a 1 = b 1'], {}, { vlans: [{ id: 15, name: 'Fifteen' }] });
const sheet = (name: string, ...rows: Cell[][]): Sheet => ({ name, rows });

it('takes priorities, costs, VLANs and names as people write them', () => {
  const {
    design: changed,
    faults,
    passed,
  } = readTables(design, [
    sheet('switches.csv', ['Switch', 'Name', 'priority', 'power', 'colour'], ['a', 'Attic', '4096', 'off', 'red']),
    sheet('Costs', ['switch', 'port', 'all trees', 'cst'], ['a', '1', 12, null], ['b', 1, null, 7]),
    sheet('ports', ['switch', 'port', 'VLANs', 'edge port'], ['a', '1', 'access 15', 'YES'], [null, null, null, null]),
    sheet('VLANs', ['VLAN', 'name'], [15, 'Half thirty']),
  ]);
  expect(faults).toEqual([]);
  expect(passed).toEqual(['switches.csv: nothing is read from colour.']);
  const [a, b] = changed.switches;
  expect(a).toMatchObject({ name: 'Attic', priority: 4096, up: false });
  expect(a!.ports[0]).toMatchObject({ cost: 12, edge: true, vlans: { mode: 'access', vlan: 15 } });
  expect(b!.ports[0]!.trees).toEqual({ cst: { cost: 7 } });
  expect(changed.vlans).toEqual([{ id: 15, name: 'Half thirty' }]);
});

it('tells what is wrong at its cell, and takes nothing then', () => {
  const {
    design: same,
    commands,
    faults,
  } = readTables(design, [
    sheet('switches', ['switch', 'priority', 'power'], ['a', '5', 'on'], ['c', '4096', 'on'], ['b', '8192', 'perhaps']),
    sheet('Ports', ['switch', 'port', 'VLANs', 'number'], ['a', '1', 'some', ''], ['a', '1', 'access 15', '1']),
    sheet('other', ['colour'], ['red']),
    sheet('empty'),
  ]);
  expect(same).toBe(design);
  expect(commands).toEqual([]);
  expect(faults.map(cellFaultText)).toEqual([
    'switches, line 2, priority: found “5”; allowed: 0 to 61440 in steps of 4096; nearest: 0 and 4096',
    'switches, line 3, switch: found “c”; allowed: one that the design has: lines are changed by tables, not added',
    'switches, line 4, power: found “perhaps”; allowed: on or off',
    'Ports, line 2, number: found nothing; allowed: a number',
    'Ports, line 2, VLANs: found “some”; allowed: trunk 1-4094, native 1, or access 15',
    'Ports, line 3, switch: found “a 1” a second time; allowed: each once',
    expect.stringMatching(/^other, line 1: found the heading colour; allowed: the heading of a table/),
    expect.stringMatching(/^empty, line 1: found nothing; allowed/),
  ]);
  const clash = readTables(design, [sheet('cables', ['link', 'one end, port'], ['l0', '9'])]);
  expect([clash.design, clash.faults.length]).toEqual([design, 1]);
});

it('keeps formulas as the text that they are', async () => {
  const named = { ...design, switches: design.switches.map((sw) => ({ ...sw, name: '=1+1\u0001"<&>' })) } as Design;
  const read = await readSpreadsheet(await writeSpreadsheet(tablesOf(named)));
  expect(read.ok && read.value[0]!.rows[1]![1]).toBe('=1+1"<&>');
  expect(csvTables(named)[0]!.text).toContain(`"'=1+1`);
  expect(await readSpreadsheet(octets('PK nothing'))).toEqual({
    ok: false,
    error: 'This is no spreadsheet file that can be read.',
  });
  expect(await sheetsIn('x.csv', octets('"a'))).toMatchObject({ ok: false });
});
