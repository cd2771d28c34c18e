import fc from 'fast-check';
import { fernhollow } from '../../demo/demos';
import { editAll } from '../../edit/edit';
import type { Design, Observed } from '../../model/document';
import { anyDesign } from '../../testing/networks';
import { neighbourFindings, neighboursOf } from './neighbours';
import { tries } from '../../testing/runs';

const seen = (...rows: Observed[]): Design => ({ ...fernhollow(), observed: rows });
const rowOf = (design: Design, sw: string, port: string) =>
  neighboursOf(design).find((row) => row.switchName === sw && row.portName === port);
const afterTaking = (design: Design, sw: string, port: string): Design => {
  const edited = editAll(design, rowOf(design, sw, port)!.takeOver!.commands);
  if (!edited.ok) throw new Error(`${edited.error.path}: ${edited.error.found}`);
  return edited.value.design;
};

describe('neighbours', () => {
  it.each<[string, Observed, string]>([
    ['as drawn', { switch: 'ridge-a', port: '1', device: 'ridge-b', devicePort: '1' }, '1'],
    [
      'as drawn',
      { switch: 'RIDGE-A.example', port: 'port1', device: 'somebody', mac: '02:4b:00:00:00:0b', devicePort: 'eth1' },
      '1',
    ],
    ['other port', { switch: 'ridge-a', port: '2', device: 'ridge-b', devicePort: '7' }, '2'],
    ['other switch', { switch: 'ridge-a', port: '2', device: 'lodge', devicePort: '9' }, '2'],
    ['unknown device', { switch: 'ridge-a', port: '2', device: 'attic', kind: 'switch', devicePort: '1' }, '2'],
    ['unknown device', { switch: 'ridge-a', port: '9', device: 'desk of the night' }, '9'],
    ['as drawn', { switch: 'ridge-a', port: '9', device: 'Duty desk' }, '9'],
    ['other switch', { switch: 'ridge-a', port: '2', device: 'Duty desk' }, '2'],
  ])('are %s: %j', (verdict, row, port) => {
    const design = seen(row);
    expect(rowOf(design, 'ridge-a', port)?.verdict).toBe(verdict);
    if (verdict !== 'as drawn')
      expect(rowOf(afterTaking(design, 'ridge-a', port), 'ridge-a', port)?.verdict).toBe('as drawn');
  });

  it('tell a missing cable, and which drawn ones nobody sees', () => {
    const unplugged = {
      ...seen({ switch: 'ridge-a', port: '2', device: 'ridge-b', devicePort: '2' }),
      links: fernhollow().links.filter((link) => link.id !== 'l2'),
    };
    expect(rowOf(unplugged, 'ridge-a', '2')?.verdict).toBe('missing cable');
    expect(rowOf(unplugged, 'ridge-a', '1')?.verdict).toBe('not seen');
    expect(rowOf(unplugged, 'ridge-b', '1')?.verdict).toBe('not observed'); // ridge-b has reported nothing
    expect(afterTaking(unplugged, 'ridge-a', '2').links.at(-1)).toMatchObject({
      a: { switch: 'ridge-a', port: '2' },
      b: { switch: 'ridge-b', port: '2' },
    });
    expect(neighbourFindings(unplugged).map((finding) => finding.text)[1]).toBe(
      'ridge-a port 2: drawn without a cable, but the switch reports ridge-b port 2',
    );
  });

  it('name ports and switches that the design does not have', () => {
    const design = seen(
      { switch: 'ridge-a', port: '44', device: 'ridge-b', devicePort: '12' },
      { switch: 'attic', port: '1', device: 'ridge-b' },
    );
    expect(
      neighboursOf(design)
        .slice(-2)
        .map((row) => [row.verdict, row.takeOver?.label]),
    ).toEqual([
      ['unknown port', 'add the port'],
      ['unknown port', undefined],
    ]);
  });

  it('taken over row by row, leave nothing that differs', () => {
    const row = (design: Design) => {
      const sw = fc.constantFrom(...design.switches.map((s) => s.id));
      return fc.record({
        switch: sw,
        port: fc.constantFrom('1', '2', '3'),
        device: fc.oneof(sw, fc.constantFrom('new one', 'other')),
        devicePort: fc.constantFrom('1', '2', '3', '8'),
        kind: fc.constantFrom('switch' as const, 'host' as const),
      });
    };
    fc.assert(
      fc.property(
        anyDesign.chain((design) => fc.tuple(fc.constant(design), fc.array(row(design), { maxLength: 5 }))),
        ([start, rows]) => {
          let design: Design = { ...start, observed: rows };
          for (const { at } of neighboursOf(design)) {
            if (!at) continue;
            const now = neighboursOf(design).find((each) => each.at?.switch === at.switch && each.at.port === at.port)!;
            if (!now.takeOver) continue;
            const itself = now.observed?.device === at.switch && now.observed.devicePort === at.port;
            const edited = editAll(design, now.takeOver.commands);
            if (itself && !edited.ok) continue; // no port is its own neighbour
            if (!edited.ok)
              throw new Error(`${now.verdict}: ${edited.error.path} ${edited.error.found} ${edited.error.allowed}`);
            design = edited.value.design;
            const after = neighboursOf(design).find(
              (each) => each.at?.switch === at.switch && each.at.port === at.port,
            )!;
            expect(['as drawn', 'not observed']).toContain(after.verdict);
          }
        },
      ),
      { numRuns: tries(75) },
    );
  });
});

it.each(['constructor', '__proto__', 'x'.repeat(300)])(
  'what is reported under a name that no identifier may be is looked at all the same: %s',
  (name) => {
    const demo = fernhollow();
    const sw = demo.switches[0]!;
    const observed = [
      { switch: sw.id as string, port: name, device: 'lodge', devicePort: '1' },
      {
        switch: sw.id as string,
        port: sw.ports[0]!.id as string,
        device: name,
        devicePort: name,
        kind: 'switch' as const,
      },
      { switch: sw.id as string, port: sw.ports[1]!.id as string, device: name, kind: 'host' as const },
      { switch: sw.id as string, port: sw.ports[2]!.id as string, device: 'lodge', devicePort: name },
    ];
    const rows = neighboursOf({ ...demo, observed });
    for (const { takeOver } of rows) {
      if (!takeOver) continue;
      const taken = editAll({ ...demo, observed }, takeOver.commands);
      expect(taken.ok ? 'taken' : taken.error).toBe('taken');
    }
    expect(rows.filter(({ observed: seen, takeOver }) => seen && takeOver)).toHaveLength(observed.length);
  },
);
